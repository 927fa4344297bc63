using System.Text.Json.Nodes;

namespace MillCard.Core.Findings;

/// <summary>What would mend a finding, as edits that can be undone.</summary>
/// <param name="Label">What the button says.</param>
/// <param name="Edits">To be made together.</param>
public sealed record Remedy(string Label, IReadOnlyList<Edit> Edits);

/// <summary>One change.</summary>
/// <param name="How">What is done.</param>
/// <param name="Line">Line of the program it is done to, counted from 1; null for a fact.</param>
/// <param name="Text">The new text, possibly several lines, as a routine writes it; null where a line goes.</param>
/// <param name="Pointer">JSON pointer of a fact; null for a line.</param>
/// <param name="Value">The fact's new value; null where it goes.</param>
public sealed record Edit(EditKind How, int? Line = null, string? Text = null, string? Pointer = null, JsonNode? Value = null)
{
    internal static Edit Before(int line, string text) => new(EditKind.InsertBefore, line + 1, text);
    internal static Edit After(int line, string text) => new(EditKind.InsertAfter, line + 1, text);
    internal static Edit Replace(int line, string text) => new(EditKind.Replace, line + 1, text);
    internal static Edit Remove(int line) => new(EditKind.Remove, line + 1);
    internal static Edit Fact(string pointer, JsonNode? value) => new(EditKind.SetFact, Pointer: pointer, Value: value);
}

/// <summary>Kinds of change.</summary>
public enum EditKind
{
    /// <summary>Lines before a line.</summary>
    InsertBefore,
    /// <summary>Lines after a line.</summary>
    InsertAfter,
    /// <summary>Another line in its place.</summary>
    Replace,
    /// <summary>The line goes.</summary>
    Remove,
    /// <summary>A fact of the card.</summary>
    SetFact,
}

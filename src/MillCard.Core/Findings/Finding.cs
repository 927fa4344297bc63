using System.Text.Json.Serialization;
using MillCard.Core.Wording;

namespace MillCard.Core.Findings;

/// <summary>How bad a finding is.</summary>
public enum Severity
{
    /// <summary>Worth knowing.</summary>
    Note,
    /// <summary>Likely to spoil something.</summary>
    Caution,
    /// <summary>The print fails, or something is hit.</summary>
    Stop,
}

/// <summary>A rule's name and how bad its findings are.</summary>
public sealed record RuleId(string Name, Severity Severity)
{
    /// <summary>A finding about a fact.</summary>
    internal Finding At(string pointer, string message, string why) => new(Name, Severity, message, why, Pointer: pointer);

    /// <summary>A finding about a fact, with the values of its sentence.</summary>
    internal Finding At(string pointer, Sentence message, string why) => new(Name, Severity, message, why, Pointer: pointer);

    /// <summary>A finding about a line.</summary>
    /// <param name="line">Counted from 0.</param>
    /// <param name="message">One sentence with numbers.</param>
    /// <param name="why">Why it matters.</param>
    internal Finding OnLine(int line, string message, string why) => new(Name, Severity, message, why, Line: line + 1);

    /// <summary>A finding about a line, with the values of its sentence.</summary>
    /// <param name="line">Counted from 0.</param>
    /// <param name="message">One sentence with numbers.</param>
    /// <param name="why">Why it matters.</param>
    internal Finding OnLine(int line, Sentence message, string why) => new(Name, Severity, message, why, Line: line + 1);
}

/// <summary>Something the computation noticed.</summary>
/// <param name="Rule">Id of the rule, kebab-case.</param>
/// <param name="Severity">How bad it is.</param>
/// <param name="Message">One sentence with numbers.</param>
/// <param name="Why">Why it matters.</param>
/// <param name="Pointer">JSON pointer of the fact it is about.</param>
/// <param name="Line">Line of the program it is about, counted from 1.</param>
public sealed record Finding(string Rule, Severity Severity, string Message, string Why, string? Pointer = null, int? Line = null)
{
    /// <summary>A finding with the values of its sentence.</summary>
    internal Finding(string rule, Severity severity, Sentence message, string why, string? Pointer = null, int? Line = null)
        : this(rule, severity, message.Text, why, Pointer, Line) => Values = message.Values;

    /// <summary>Numbers and texts of the sentence by their names, as a script reads them; null where it has none.</summary>
    public IReadOnlyDictionary<string, object>? Values { get; init; }

    /// <summary>The reason for which its owner accepts it; null where nobody has.</summary>
    [JsonPropertyName("accepted")] public string? AcceptedBecause { get; init; }

    /// <summary>What would mend it; null where nothing can be computed.</summary>
    public Remedy? Remedy { get; init; }

    /// <summary>With a remedy; without one where there is no label.</summary>
    internal Finding Cure(string? label, params Edit[] edits) => label is null ? this : this with { Remedy = new Remedy(label, edits) };
}

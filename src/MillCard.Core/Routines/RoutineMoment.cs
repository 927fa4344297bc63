namespace MillCard.Core.Routines;

/// <summary>A moment of a print at which a routine runs.</summary>
/// <param name="Name">Its member name in the document.</param>
/// <param name="Title">Its name in a sentence.</param>
/// <param name="Of">Takes its text from a card.</param>
public sealed record RoutineMoment(string Name, string Title, Func<Documents.Routines, string?> Of)
{
    /// <summary>Before the first layer.</summary>
    public static RoutineMoment Start { get; } = new("start", "Start", r => r.Start);
    /// <summary>Before every layer.</summary>
    public static RoutineMoment BeforeLayer { get; } = new("beforeLayer", "Before-layer", r => r.BeforeLayer);
    /// <summary>After every layer.</summary>
    public static RoutineMoment AfterLayer { get; } = new("afterLayer", "After-layer", r => r.AfterLayer);
    /// <summary>At a change of tool.</summary>
    public static RoutineMoment ToolChange { get; } = new("toolChange", "Tool-change", r => r.ToolChange);
    /// <summary>After the last layer.</summary>
    public static RoutineMoment End { get; } = new("end", "End", r => r.End);
    /// <summary>When the print is paused from outside.</summary>
    public static RoutineMoment Pause { get; } = new("pause", "Pause", r => r.Pause);
    /// <summary>When it goes on.</summary>
    public static RoutineMoment Resume { get; } = new("resume", "Resume", r => r.Resume);
    /// <summary>When it is given up.</summary>
    public static RoutineMoment Cancel { get; } = new("cancel", "Cancel", r => r.Cancel);

    /// <summary>All of them, in the order of a print; those that come from outside last.</summary>
    public static IReadOnlyList<RoutineMoment> All { get; } = [Start, BeforeLayer, AfterLayer, ToolChange, End, Pause, Resume, Cancel];
}

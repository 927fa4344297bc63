using MillCard.Core.Lines;

namespace MillCard.Web.Lines;

/// <summary>How a job goes to the printer.</summary>
internal enum SendHow
{
    /// <summary>Line by line, each answered.</summary>
    Lines,
    /// <summary>Handed over as a file, then started there.</summary>
    File,
}

/// <summary>What is known of the heaters once a job has ended before its end.</summary>
internal enum HeatersAre
{
    /// <summary>The job runs, or went to its end: they are as its program left them.</summary>
    AsProgrammed,
    /// <summary>They are being switched off.</summary>
    SwitchingOff,
    /// <summary>The printer itself reports that no heater has a target.</summary>
    Off,
    /// <summary>The printer was told to switch them off and has not confirmed it.</summary>
    ToldNotConfirmed,
    /// <summary>Nobody could be told: they may be hot.</summary>
    NotKnown,
}

/// <summary>A job on the line.</summary>
/// <param name="Name">Its name.</param>
/// <param name="How">How it goes.</param>
/// <param name="State">How it stands.</param>
/// <param name="Taken">Commands that the printer has taken.</param>
/// <param name="Count">All commands.</param>
/// <param name="Line">The program's line it is at, counted from 1.</param>
/// <param name="Message">Why it stopped, or what was survived.</param>
/// <param name="ErrorLine">The line that provoked an error.</param>
/// <param name="ErrorText">What stands on that line.</param>
/// <param name="At">When it began.</param>
internal sealed record LineJob(string Name, SendHow How, SendState State, int Taken, int Count, int Line, string? Message, int? ErrorLine,
    string? ErrorText, DateTimeOffset At)
{
    /// <summary>What the printer does with a file that was handed over; null for a job sent line by line.</summary>
    public string? OnPrinter { get; init; }

    /// <summary>What is known of the heaters.</summary>
    public HeatersAre Heaters { get; init; }
}

/// <summary>One line of the talk.</summary>
/// <param name="Out">Whether it went to the printer.</param>
/// <param name="Text">What was said.</param>
internal sealed record LineTalk(bool Out, string Text);

/// <summary>How the line of a card stands.</summary>
internal sealed record LineStatus
{
    /// <summary>Whether the printer answers.</summary>
    public bool Connected { get; init; }
    /// <summary>What it says it is.</summary>
    public string? Firmware { get; init; }
    /// <summary>Temperatures as last said.</summary>
    public LineTemperatures? Temperatures { get; init; }
    /// <summary>Position as last said.</summary>
    public LinePosition? Position { get; init; }
    /// <summary>The job; null where there was none.</summary>
    public LineJob? Job { get; init; }
    /// <summary>The end of the talk.</summary>
    public IReadOnlyList<LineTalk> Talk { get; init; } = [];
    /// <summary>What went wrong last; null for nothing.</summary>
    public string? Problem { get; init; }
}

namespace MillCard.Core.Documents;

/// <summary>An event: something that happens at a height of a print, or holds from there on.</summary>
public sealed record TrialStop : Member
{
    /// <summary>It comes before the first layer that reaches above it, mm above the parts' own floor.</summary>
    [Field("event's height", "mm", AtLeast = 0, AtMost = 10000)] public required double Z { get; init; }
    /// <summary>What happens.</summary>
    public StopKind For { get; init; } = StopKind.Filament;
    /// <summary>What holds from there on: °C, or a share of speed or fan; null where nothing does.</summary>
    [Field("value from there on", AtLeast = 0, AtMost = 1000)] public double? Value { get; init; }
    /// <summary>Lines of G-code that are written there; null for none.</summary>
    [Field("own lines", Most = 4000)] public string? Lines { get; init; }
}

/// <summary>What happens at a height.</summary>
public enum StopKind
{
    /// <summary>It stops for another filament.</summary>
    [Word("change the filament")]
    Filament,
    /// <summary>It stops for something else, such as a nut that is laid in.</summary>
    Pause,
    /// <summary>Lines of the owner's are written.</summary>
    [Word("own lines of G-code")]
    Lines,
    /// <summary>The nozzle has another temperature from there on.</summary>
    [Word("nozzle's temperature")]
    Temperature,
    /// <summary>All is laid at a share of its speed from there on.</summary>
    [Word("share of speed")]
    Speed,
    /// <summary>The fan that cools parts runs at a share from there on.</summary>
    [Word("share of fan")]
    Fan,
}

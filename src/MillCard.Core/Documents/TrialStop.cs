namespace MillCard.Core.Documents;

/// <summary>A height at which a print stops, for another colour or something that is laid in.</summary>
public sealed record TrialStop : Member
{
    /// <summary>The first layer that reaches above it comes after the stop, mm above the parts' own floor.</summary>
    [Field("stop's height", "mm", AtLeast = 0, AtMost = 10000)] public required double Z { get; init; }
    /// <summary>What it is for.</summary>
    public StopKind For { get; init; } = StopKind.Filament;
}

/// <summary>What a print stops for.</summary>
public enum StopKind
{
    /// <summary>Another filament.</summary>
    [Word("change the filament")]
    Filament,
    /// <summary>Something else, such as a nut that is laid in.</summary>
    Pause,
}

namespace MillCard.Core.Documents;

/// <summary>Layers of a height of their own between two heights of a print, set by hand.</summary>
public sealed record HeightBand : Member
{
    /// <summary>Layers that begin at or above it have the height, mm above the parts' own floor.</summary>
    [Field("band's beginning", "mm", AtLeast = 0, AtMost = 10000)] public required double From { get; init; }
    /// <summary>Layers that begin at or above it have the usual height again, mm.</summary>
    [Field("band's end", "mm", Above = 0, AtMost = 10000)] public required double To { get; init; }
    /// <summary>How high the layers between are, mm.</summary>
    [Field("band's layers", "mm", AtLeast = 0.01, AtMost = 2)] public required double Height { get; init; }
}

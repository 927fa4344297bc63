namespace MillCard.Core.Documents;

/// <summary>What a filament or a recipe needs of a machine, beside what follows from its own figures. Matched by physics, not by
/// names.</summary>
public sealed record Needs : OpenRecord
{
    /// <summary>Smallest nozzle, mm.</summary>
    [Field("smallest nozzle", "mm", AtLeast = 0.1, AtMost = 2, Short = "nozzle from")]
    public double? NozzleFrom { get; init; }
    /// <summary>Largest nozzle, mm.</summary>
    [Field("largest nozzle", "mm", AtLeast = 0.1, AtMost = 2, Short = "nozzle to")]
    public double? NozzleTo { get; init; }
    /// <summary>How well the nozzle must stand filled filament.</summary>
    [Field("nozzle's wear rating")] public WearRating? Wear { get; init; }
    /// <summary>The kind of feed it wants.</summary>
    [Field("feed", Otherwise = "any")]
    public FeedKind? Feed { get; init; }
    /// <summary>Plastic that must be melted, mm³/s.</summary>
    [Field("needed flow", "mm³/s", Above = 0, AtMost = 500, Short = "flow of the hot end")]
    public double? Flow { get; init; }
    /// <summary>Room along X, mm.</summary>
    [Field("needed width", "mm", Above = 0, AtMost = 2000, Short = "room, width")]
    public double? Width { get; init; }
    /// <summary>Room along Y, mm.</summary>
    [Field("needed depth", "mm", Above = 0, AtMost = 2000, Short = "room, depth")]
    public double? Depth { get; init; }
    /// <summary>Room upwards, mm.</summary>
    [Field("needed height", "mm", Above = 0, AtMost = 2000, Short = "room, height")]
    public double? Height { get; init; }
    /// <summary>Temperature of the chamber, °C.</summary>
    [Field("needed chamber temperature", "°C", AtLeast = 0, AtMost = 200, Short = "chamber")]
    public double? Chamber { get; init; }
}

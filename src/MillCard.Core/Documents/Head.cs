namespace MillCard.Core.Documents;

/// <summary>Nozzles and what hangs on the carriage beside them.</summary>
public sealed record Head : OpenRecord
{
    /// <summary>The nozzles; the first is the reference of the head frame.</summary>
    [Field("nozzles", Needed = true, Fewest = 1, Most = 16)] public IReadOnlyList<Nozzle>? Nozzles { get; init; }
    /// <summary>Solid things beside the nozzle, head frame.</summary>
    [Field("bodies", Most = 50)] public IReadOnlyList<Body> Bodies { get; init; } = [];
    /// <summary>Room kept between the head and anything that stands, mm. 1 where nothing is said.</summary>
    [Field("clearance", "mm", AtLeast = 0, AtMost = 50)] public double? Clearance { get; init; }
    /// <summary>Beams that cross the whole machine and move with the nozzle in the other direction.</summary>
    [Field("beams", Most = 10)] public IReadOnlyList<Beam> Beams { get; init; } = [];
    /// <summary>What finds the bed's height; null where nobody has said.</summary>
    public Probe? Probe { get; init; }
}

/// <summary>A levelling probe.</summary>
public sealed record Probe : OpenRecord
{
    /// <summary>How it feels the bed.</summary>
    [Field("probe")] public ProbeKind? Kind { get; init; }
    /// <summary>From the first nozzle to the right, mm.</summary>
    [Field("probe's offset X", "mm", AtLeast = -300, AtMost = 300)] public double? X { get; init; }
    /// <summary>From the first nozzle to the back, mm.</summary>
    [Field("probe's offset Y", "mm", AtLeast = -300, AtMost = 300)] public double? Y { get; init; }
}

/// <summary>Kinds of levelling probe.</summary>
public enum ProbeKind
{
    /// <summary>There is none.</summary>
    None,
    /// <summary>A switch that is pressed.</summary>
    Switch,
    /// <summary>A pin that is pushed in.</summary>
    TouchPin,
    /// <summary>A sensor that feels metal.</summary>
    Inductive,
    /// <summary>The nozzle itself.</summary>
    NozzleContact,
}

/// <summary>One nozzle with its feed.</summary>
public sealed record Nozzle : OpenRecord
{
    /// <summary>Short name used by other facts.</summary>
    [Field("nozzle id", Most = 40)] public required string Id { get; init; }
    /// <summary>Bore, mm.</summary>
    [Field("nozzle diameter", "mm", AtLeast = 0.1, AtMost = 2, Needed = true)] public double? Diameter { get; init; }
    /// <summary>What the nozzle is made of.</summary>
    [Field("nozzle material", Most = 60)] public string? Material { get; init; }
    /// <summary>From the carriage reference, mm.</summary>
    public Offset? Offset { get; init; }
    /// <summary>Diameter of the filament fed to it, mm.</summary>
    [Field("filament diameter", "mm", AtLeast = 1, AtMost = 4, Needed = true)] public double? FilamentDiameter { get; init; }
    /// <summary>How the filament gets there.</summary>
    public Feed? Feed { get; init; }
    /// <summary>Highest allowed hot-end temperature, °C.</summary>
    [Field("hot end's rating", "°C", AtLeast = 100, AtMost = 600)] public double? MaxTemperature { get; init; }
    /// <summary>Most plastic it melts, mm³/s.</summary>
    [Field("melting limit", "mm³/s", Above = 0, AtMost = 500)] public double? MaxFlow { get; init; }
}

/// <summary>An offset in three directions, mm.</summary>
public sealed record Offset : OpenRecord
{
    /// <summary>To the right, mm.</summary>
    [Field("offset X", "mm", AtLeast = -1000, AtMost = 1000)] public double X { get; init; }
    /// <summary>To the back, mm.</summary>
    [Field("offset Y", "mm", AtLeast = -1000, AtMost = 1000)] public double Y { get; init; }
    /// <summary>Up, mm; a lower nozzle is negative.</summary>
    [Field("offset Z", "mm", AtLeast = -100, AtMost = 100)] public double Z { get; init; }
}

/// <summary>How filament is pushed into the hot end.</summary>
public sealed record Feed : OpenRecord
{
    /// <summary>Direct, or through a long tube.</summary>
    public FeedKind Kind { get; init; }
    /// <summary>Length of the tube, mm.</summary>
    [Field("tube length", "mm", AtLeast = 0, AtMost = 5000)] public double? Length { get; init; }
}

/// <summary>Kinds of feed.</summary>
public enum FeedKind
{
    /// <summary>The drive sits on the head.</summary>
    Direct,
    /// <summary>The drive sits on the frame and pushes through a tube.</summary>
    LongTube,
}

/// <summary>Something solid on the carriage, from its underside upward.</summary>
public sealed record Body : OpenRecord
{
    /// <summary>What its owner calls it.</summary>
    [Field("body's name", Most = 100)] public required string Name { get; init; }
    /// <summary>Outline in the head frame: the first nozzle's tip is (0, 0).</summary>
    public required Outline Outline { get; init; }
    /// <summary>Height of its underside above the first nozzle's tip, mm.</summary>
    [Field("underside", "mm", AtLeast = 0, AtMost = 500)] public required double Underside { get; init; }
}

/// <summary>A strip across the whole machine along one axis.</summary>
public sealed record Beam : OpenRecord
{
    /// <summary>The axis it lies along.</summary>
    public required BeamAxis Along { get; init; }
    /// <summary>Near edge from the nozzle in the other direction, mm.</summary>
    [Field("near edge", "mm", AtLeast = -2000, AtMost = 2000)] public required double Near { get; init; }
    /// <summary>Far edge from the nozzle in the other direction, mm.</summary>
    [Field("far edge", "mm", AtLeast = -2000, AtMost = 2000)] public required double Far { get; init; }
    /// <summary>Height of its underside above the tip, mm.</summary>
    [Field("underside", "mm", AtLeast = 0, AtMost = 2000)] public required double Underside { get; init; }
}

/// <summary>Direction of a beam.</summary>
public enum BeamAxis
{
    /// <summary>Along X.</summary>
    X,
    /// <summary>Along Y.</summary>
    Y,
}

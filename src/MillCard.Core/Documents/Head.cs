namespace MillCard.Core.Documents;

/// <summary>Nozzles and what hangs on the carriage beside them.</summary>
public sealed record Head : OpenRecord
{
    /// <summary>The nozzles; the first is the reference of the head frame.</summary>
    [Field("nozzles", Needed = true, Fewest = 1, Most = 16)] public IReadOnlyList<Nozzle>? Nozzles { get; init; }
    /// <summary>What finds the bed's height; null where nobody has said.</summary>
    public Probe? Probe { get; init; }
    /// <summary>Solid things beside the nozzle, head frame.</summary>
    [Field("bodies", Most = 50)] public IReadOnlyList<Body> Bodies { get; init; } = [];
    /// <summary>Room kept between the head and anything that stands, mm. 1 where nothing is said.</summary>
    [Field("clearance", "mm", AtLeast = 0, AtMost = 50, Hint = "room kept between head and anything that stands",
        Pages = FieldPages.Sheet)]
    public double? Clearance { get; init; }
    /// <summary>Beams that cross the whole machine and move with the nozzle in the other direction.</summary>
    [Field("beams", Most = 10)] public IReadOnlyList<Beam> Beams { get; init; } = [];
    /// <summary>The fans.</summary>
    [Field("fans", Most = 16)] public IReadOnlyList<Fan> Fans { get; init; } = [];
    /// <summary>Two carriages on one beam, the left one first; empty where there is one carriage.</summary>
    [Field("carriages", Most = 2)] public IReadOnlyList<Carriage> Carriages { get; init; } = [];
    /// <summary>Least distance along X between the nozzles of two carriages, mm.</summary>
    [Field("least distance of the nozzles", "mm", AtLeast = 0, AtMost = 1000)] public double? LeastDistance { get; init; }
    /// <summary>Whether tools are parked and changed, so that the head carries one nozzle at a time. Null where nobody has said.</summary>
    [Field("tool changer")] public bool? Changer { get; init; }
    /// <summary>Who takes the nozzles' offsets into account; null where nobody has said.</summary>
    public OffsetsUse? Offsets { get; init; }
}

/// <summary>Something solid on the carriage, from its underside upward.</summary>
public sealed record Body : Member
{
    /// <summary>What its owner calls it.</summary>
    [Field("body's name", Most = 100)] public required string Name { get; init; }
    /// <summary>Id of the nozzle whose carriage it hangs on, where there are two; null where both carry one alike. Its outline is then
    /// about that nozzle.</summary>
    [Field("body's nozzle", Most = 40)] public string? On { get; init; }
    /// <summary>Outline in the head frame: the first nozzle's tip is (0, 0).</summary>
    [Below("width", "body, wide", When = "shape=rectangle", Hint = "the fan duct or whatever hangs lowest beside the nozzle")]
    [Below("depth", "body, deep", When = "shape=rectangle")]
    [Below("x", "its left edge", When = "shape=rectangle", Hint = "from the nozzle; to the left is negative")]
    [Below("y", "its front edge", When = "shape=rectangle", Hint = "from the nozzle; to the front is negative")]
    public required Outline Outline { get; init; }
    /// <summary>Height of its underside above the first nozzle's tip, mm.</summary>
    [Field("underside", "mm", AtLeast = 0, AtMost = 500, Short = "body above tip", When = "../0",
        Hint = "height of its underside above the tip of the nozzle", Pages = FieldPages.Sheet)]
    public required double Underside { get; init; }
}

/// <summary>A strip across the whole machine along one axis.</summary>
public sealed record Beam : Member
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

/// <summary>One of two carriages on a beam.</summary>
public sealed record Carriage : Member
{
    /// <summary>Id of the nozzle it carries.</summary>
    [Field("carriage's nozzle", Fewest = 1, Most = 40)] public required string Nozzle { get; init; }
    /// <summary>Least position along X, mm, machine frame.</summary>
    [Field("carriage's least position", "mm", AtLeast = -4000, AtMost = 4000)] public required double Min { get; init; }
    /// <summary>Greatest position along X, mm, machine frame.</summary>
    [Field("carriage's greatest position", "mm", AtLeast = -4000, AtMost = 4000)] public required double Max { get; init; }
    /// <summary>Where it stands while the other prints, mm, machine frame.</summary>
    [Field("carriage's park position", "mm", AtLeast = -4000, AtMost = 4000)] public required double Park { get; init; }
}

/// <summary>Who takes the offsets of the second and further nozzles into account. It has to be one of the two: applied twice, the head hits
/// things.</summary>
public sealed record OffsetsUse : OpenRecord
{
    /// <summary>Whether the firmware holds tool offsets of its own.</summary>
    public bool? Firmware { get; init; }
    /// <summary>Whether they are written into the G-code.</summary>
    public bool? Gcode { get; init; }
}

/// <summary>A fan.</summary>
public sealed record Fan : OpenRecord
{
    /// <summary>Short name used by other facts.</summary>
    [Field("fan id", Fewest = 1, Most = 40)] public required string Id { get; init; }
    /// <summary>The firmware's number for it.</summary>
    [Field("fan number", "", AtLeast = 0, AtMost = 100)] public int? Number { get; init; }
    /// <summary>What it cools.</summary>
    [Field("kind of fan")] public required FanKind Kind { get; init; }
    /// <summary>The firmware switches it off by itself when the nozzle has cooled to this, °C; null where it does not.</summary>
    [Field("fan goes off below", "°C", AtLeast = 0, AtMost = 300)] public double? OffBelow { get; init; }
}

/// <summary>Kinds of fan.</summary>
public enum FanKind
{
    /// <summary>Blows on the part from the head.</summary>
    [Word("on the part")] Part,
    /// <summary>Blows along the bed from the side.</summary>
    [Word("from the side")] Side,
    /// <summary>Moves the air of the housing.</summary>
    [Word("in the housing")] Chamber,
    /// <summary>Cools the cold side of the hot end.</summary>
    [Word("on the hot end")] HotEnd,
}

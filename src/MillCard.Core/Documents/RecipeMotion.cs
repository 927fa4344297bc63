namespace MillCard.Core.Documents;

/// <summary>Speeds, mm/s.</summary>
public sealed record Speeds : OpenRecord
{
    /// <summary>Outermost wall.</summary>
    [Field("outer wall speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "outer wall", Departs = Departs.Zone,
        Pages = FieldPages.Trial)]
    [Tends("Slower is smoother and truer.", Time = 2, Surface = -2, Accuracy = -2)]
    public double OuterWall { get; init; } = 40;
    /// <summary>Other walls.</summary>
    [Field("inner wall speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "inner walls", Departs = Departs.Zone,
        Pages = FieldPages.Trial)]
    [Tends("Faster is quicker; very fast bonds worse.", Time = 2, Strength = -1)]
    public double InnerWall { get; init; } = 60;
    /// <summary>Solid fill.</summary>
    [Field("solid fill speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "solid fill", Departs = Departs.Zone,
        Pages = FieldPages.Trial)]
    [Tends("Faster is quicker; tops get coarser.", Time = 2, Surface = -1)]
    public double Solid { get; init; } = 60;
    /// <summary>Sparse infill.</summary>
    [Field("infill speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "infill", Departs = Departs.Zone, Pages = FieldPages.Trial)]
    [Tends("Faster is quicker; very fast bonds worse.", Time = 2, Strength = -1)]
    public double Infill { get; init; } = 80;
    /// <summary>The uppermost layer's fill; as solid fill where nothing is said.</summary>
    [Field("top surface speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "top surface", Otherwise = "as solid",
        Departs = Departs.Zone)]
    [Tends("Slower tops look better.", Time = 1, Surface = -2)]
    public double? Top { get; init; }
    /// <summary>Lines that hang between two banks.</summary>
    [Field("bridge speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "bridges", Departs = Departs.Zone)]
    [Tends("Slow strands sag less than hurried ones tear.", Surface = -1, Time = 1)]
    public double Bridge { get; init; } = 25;
    /// <summary>Single lines in thin places and gaps.</summary>
    [Field("thin line speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "thin lines", Departs = Departs.Zone)]
    [Tends("Slower thin lines are evener.", Surface = -1, Time = 1)]
    public double Thin { get; init; } = 30;
    /// <summary>Walls that lie over air, by the share of their width that does.</summary>
    public OverhangSpeeds Overhangs { get; init; } = new();
    /// <summary>Rings of wall that are short.</summary>
    [Field("small rings' speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "small rings", Otherwise = "as all",
        Also = "small perimeters, small holes", Departs = Departs.Zone)]
    [Tends("Slower small holes are rounder.", Accuracy = -1, Surface = -1, Time = 1)]
    public double? Small { get; init; }
    /// <summary>Rings shorter than this are small, mm.</summary>
    [Field("small rings are shorter than", "mm", AtLeast = 0, AtMost = 1000, When = "small", Departs = Departs.Zone)]
    [Tends("Longer rings count as small, and are slower.", Time = -1)]
    public double SmallBelow { get; init; } = 30;
    /// <summary>Supports, shield and tower.</summary>
    [Field("support speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "supports", Departs = Departs.Part)]
    [Tends("Faster supports are quicker and stand worse.", Time = 1)]
    public double Support { get; init; } = 60;
    /// <summary>The dense layers between support and part.</summary>
    [Field("interface speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "interface", Departs = Departs.Part)]
    [Tends("Slower lays an evener bed for the part.", Time = 1, Surface = -1)]
    public double Interface { get; init; } = 40;
    /// <summary>Moves without plastic.</summary>
    [Field("travel speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "travel", Also = "move", Pages = FieldPages.Trial)]
    [Tends("Faster is quicker and strings less.", Time = 2, Surface = 1)]
    public double Travel { get; init; } = 120;
    /// <summary>Everything on the first layer.</summary>
    [Field("first layer's speed", "mm/s", AtLeast = 1, AtMost = 2000, Short = "first layer", Pages = FieldPages.Trial)]
    [Tends("Slower holds better.", Adhesion = -2, Time = 1)]
    public double FirstLayer { get; init; } = 25;
    /// <summary>How many layers at the bottom are slower; the speed rises evenly from the first layer's.</summary>
    [Field("slow layers", "", AtLeast = 1, AtMost = 100)]
    [Tends("More slow layers let the foot settle.", Adhesion = 1, Time = -1)]
    public int SlowLayers { get; init; } = 1;
    /// <summary>A layer takes at least this long, s; lines are laid slower where it would not.</summary>
    [Field("least layer time", "s", AtLeast = 0, AtMost = 600, Also = "cooling, minimum layer time")]
    [Tends("Small layers cool before the next.", Surface = 2, Accuracy = 1, Time = -2)]
    public double LeastLayerTime { get; init; }
    /// <summary>The least layer time slows nothing below this.</summary>
    [Field("least speed", "mm/s", AtLeast = 1, AtMost = 2000)]
    [Tends("How slow the least layer time may make it.", Time = 1, Surface = -1)]
    public double Least { get; init; } = 10;
    /// <summary>How quickly the flow of plastic may rise or fall from line to line, mm³/s in a second; at once where nothing is
    /// said.</summary>
    [Field("change of flow", "mm³/s²", AtLeast = 0.1, AtMost = 10000, Otherwise = "at once",
        Also = "smooth flow, long tube, pressure in the tube")]
    [Tends("Less lets the pressure in a long tube follow: lines begin and end as wide as they are meant, and take longer.", Accuracy = 1,
        Surface = 1, Time = -1)]
    public double? FlowChange { get; init; }
    /// <summary>What becomes of a layer that takes less than its least time even at the least speed.</summary>
    [Field("layers too quick to cool", Also = "minimum layer time, cooling, lift head, small parts")]
    [Tends("Waiting aside cools small layers, and strings.", Surface = 1, Accuracy = 1, Time = -2)]
    public TooQuick TooQuick { get; init; } = TooQuick.Leave;
}

/// <summary>What becomes of a layer that is laid too quickly to cool.</summary>
public enum TooQuick
{
    /// <summary>The next one follows at once.</summary>
    [Word("go on")]
    Leave,
    /// <summary>The nozzle rises off the part until the time is over.</summary>
    [Word("wait aside")]
    Wait,
}

/// <summary>Speed of walls that lie over air, as a ratio of what they have else, by the share of their width that nothing carries; wholly
/// over air they are laid as bridges are. Which shares deserve which speed is common practice, no source.</summary>
public sealed record OverhangSpeeds : OpenRecord
{
    /// <summary>From a quarter of the width on.</summary>
    [Field("speed with a quarter over air", "", AtLeast = 0.05, AtMost = 1, Short = "a quarter over air", Look = FieldLook.Percent,
        Also = "overhang speed", Departs = Departs.Zone)]
    [Tends("Slower overhangs curl less.", Surface = -1, Time = 1)]
    public double Quarter { get; init; } = 1;
    /// <summary>From half of the width on.</summary>
    [Field("speed with half over air", "", AtLeast = 0.05, AtMost = 1, Short = "half over air", Look = FieldLook.Percent,
        Also = "overhang speed", Departs = Departs.Zone)]
    [Tends("Slower overhangs curl less.", Surface = -1, Time = 1)]
    public double Half { get; init; } = 0.75;
    /// <summary>From three quarters of the width on.</summary>
    [Field("speed with three quarters over air", "", AtLeast = 0.05, AtMost = 1, Short = "three quarters over air",
        Look = FieldLook.Percent, Also = "overhang speed", Departs = Departs.Zone)]
    [Tends("Slower overhangs curl less.", Surface = -1, Time = 1)]
    public double ThreeQuarters { get; init; } = 0.5;
}

/// <summary>Accelerations, mm/s²; what stands in the firmware where nothing is said.</summary>
public sealed record Accelerations : OpenRecord
{
    /// <summary>Outermost wall.</summary>
    [Field("outer wall's acceleration", "mm/s²", AtLeast = 10, AtMost = 100000, Short = "outer wall", Otherwise = "firmware")]
    [Tends("Lower shows less ringing.", Time = 1, Surface = -2, Accuracy = -1)]
    public double? OuterWall { get; init; }
    /// <summary>Other walls.</summary>
    [Field("inner walls' acceleration", "mm/s²", AtLeast = 10, AtMost = 100000, Short = "inner walls", Otherwise = "firmware")]
    [Tends("Higher is quicker.", Time = 1, Surface = -1)]
    public double? InnerWall { get; init; }
    /// <summary>Solid fill.</summary>
    [Field("solid fill's acceleration", "mm/s²", AtLeast = 10, AtMost = 100000, Short = "solid fill", Otherwise = "firmware")]
    [Tends("Higher is quicker.", Time = 1, Surface = -1)]
    public double? Solid { get; init; }
    /// <summary>Sparse infill, supports and all else.</summary>
    [Field("infill's acceleration", "mm/s²", AtLeast = 10, AtMost = 100000, Short = "infill and the rest", Otherwise = "firmware")]
    [Tends("Higher is quicker.", Time = 2)]
    public double? Infill { get; init; }
    /// <summary>Everything on the first layer.</summary>
    [Field("first layer's acceleration", "mm/s²", AtLeast = 10, AtMost = 100000, Short = "first layer", Otherwise = "as above")]
    [Tends("Lower holds better.", Adhesion = -1, Time = 1)]
    public double? FirstLayer { get; init; }
    /// <summary>Moves without plastic.</summary>
    [Field("travel acceleration", "mm/s²", AtLeast = 10, AtMost = 100000, Short = "travel", Otherwise = "firmware")]
    [Tends("Higher is quicker; a tall part may be shaken loose.", Time = 2, Adhesion = -1)]
    public double? Travel { get; init; }

    /// <summary>Whether anything is said.</summary>
    internal bool Any => (OuterWall ?? InnerWall ?? Solid ?? Infill ?? FirstLayer ?? Travel) is not null;
}

/// <summary>Pulling filament back before a travel. What is not said is the filament's, then the head's own.</summary>
public sealed record Retraction : OpenRecord
{
    /// <summary>Length, mm of filament; 0 for none.</summary>
    [Field("retraction", "mm", AtLeast = 0, AtMost = 50, Otherwise = "filament, head", Also = "pull back", Pages = FieldPages.Trial)]
    [Tends("More strings less; too much grinds or clogs.", Surface = 1, Time = -1)]
    public double? Length { get; init; }
    /// <summary>Speed, mm/s.</summary>
    [Field("retraction speed", "mm/s", AtLeast = 1, AtMost = 500, Otherwise = "filament, head")]
    [Tends("Faster strings less; too fast grinds.", Surface = 1, Time = 1)]
    public double? Speed { get; init; }
    /// <summary>Travels shorter than this go without, mm.</summary>
    [Field("shortest travel with retraction", "mm", AtLeast = 0, AtMost = 1000, Short = "none on travels below")]
    [Tends("Longer pulls back less often: quicker, more strings.", Time = 1, Surface = -1)]
    public double LeastTravel { get; init; } = 2;
    /// <summary>Lift of Z while travelling, mm.</summary>
    [Field("Z hop", "mm", AtLeast = 0, AtMost = 20, Otherwise = "filament, head", Also = "lift, hop")]
    [Tends("Keeps off what stands; slower, strings more.", Adhesion = 1, Surface = -1, Time = -1)]
    public double? Lift { get; init; }
    /// <summary>Way back along the line just laid while pulling back, mm.</summary>
    [Field("wipe", "mm", AtLeast = 0, AtMost = 20, Otherwise = "filament, head", Also = "wipe while retracting")]
    [Tends("Leaves the drop on the line instead of at the seam; a little slower.", Surface = 1, Time = -1)]
    public double? Wipe { get; init; }
    /// <summary>Whether that way runs beside the outer wall, a line's width inside it, instead of over it.</summary>
    [Field("wipe inside", Also = "wipe inwards, hidden seam")]
    [Tends("The drop ends within the wall and does not show; the inner wall takes it.", Surface = 1)]
    public bool WipeInside { get; init; }
    /// <summary>Whether Z is lifted only on travels over lines that the layer has already.</summary>
    [Field("lift only over print", Also = "hop only over printed parts")]
    [Tends("Fewer lifts are quicker and string less; what curls up beside a way is not kept off.", Time = 1, Surface = 1)]
    public bool LiftOverPrint { get; init; }
    /// <summary>Whether travels are led round corners so that they stay within the part, where that is not much longer.</summary>
    [Field("travels stay inside")]
    [Tends("Fewer marks outside; a little more way.", Surface = 2)]
    public bool StayInside { get; init; } = true;
}

/// <summary>What belongs to prints with several nozzles.</summary>
public sealed record NozzleChanges : OpenRecord
{
    /// <summary>Plastic laid on a tower after every change, mm³; 0 for no tower.</summary>
    [Field("tower's plastic a change", "mm³", AtLeast = 0, AtMost = 1000, Short = "tower, plastic a change",
        Also = "purge, prime")]
    [Tends("More plastic cleans the change better and costs time.", Surface = 2, Time = -2)]
    public double Tower { get; init; }
    /// <summary>Width and depth of the tower, mm.</summary>
    [Field("tower width", "mm", AtLeast = 5, AtMost = 100)]
    [Tends("A wider tower stands better.", Adhesion = 1, Time = -1)]
    public double TowerWidth { get; init; } = 15;
    /// <summary>Whether a wall stands round everything that catches what drips from the idle nozzle.</summary>
    [Field("shield against ooze", Also = "ooze, drip")]
    [Tends("Catches drips; costs plastic.", Surface = 2, Time = -2)]
    public bool Shield { get; init; }
    /// <summary>Between the parts and the shield, mm.</summary>
    [Field("shield gap", "mm", AtLeast = 0.5, AtMost = 50)]
    [Tends("Nearer catches more.", Surface = -1)]
    public double ShieldGap { get; init; } = 2;
    /// <summary>Retraction of a nozzle that is put away, mm of filament; as before travels where nothing is said.</summary>
    [Field("retraction at a change", "mm", AtLeast = 0, AtMost = 100, Otherwise = "as before travels")]
    [Tends("More drips less from the idle nozzle.", Surface = 1)]
    public double? Retraction { get; init; }
}

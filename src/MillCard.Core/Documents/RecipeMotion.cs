namespace MillCard.Core.Documents;

/// <summary>Speeds, mm/s.</summary>
public sealed record Speeds : OpenRecord
{
    /// <summary>Outermost wall.</summary>
    [Field("outer wall speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double OuterWall { get; init; } = 40;
    /// <summary>Other walls.</summary>
    [Field("inner wall speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double InnerWall { get; init; } = 60;
    /// <summary>Solid fill.</summary>
    [Field("solid fill speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Solid { get; init; } = 60;
    /// <summary>Sparse infill.</summary>
    [Field("infill speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Infill { get; init; } = 80;
    /// <summary>The uppermost layer's fill; as solid fill where nothing is said.</summary>
    [Field("top surface speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double? Top { get; init; }
    /// <summary>Lines that hang between two banks.</summary>
    [Field("bridge speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Bridge { get; init; } = 25;
    /// <summary>Single lines in thin places and gaps.</summary>
    [Field("thin line speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Thin { get; init; } = 30;
    /// <summary>Supports, shield and tower.</summary>
    [Field("support speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Support { get; init; } = 60;
    /// <summary>The dense layers between support and part.</summary>
    [Field("interface speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Interface { get; init; } = 40;
    /// <summary>Moves without plastic.</summary>
    [Field("travel speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Travel { get; init; } = 120;
    /// <summary>Everything on the first layer.</summary>
    [Field("first layer's speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double FirstLayer { get; init; } = 25;
    /// <summary>How many layers at the bottom are slower; the speed rises evenly from the first layer's.</summary>
    [Field("slow layers", "", AtLeast = 1, AtMost = 100)] public int SlowLayers { get; init; } = 1;
    /// <summary>A layer takes at least this long, s; lines are laid slower where it would not.</summary>
    [Field("least layer time", "s", AtLeast = 0, AtMost = 600)] public double LeastLayerTime { get; init; }
    /// <summary>The least layer time slows nothing below this.</summary>
    [Field("least speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Least { get; init; } = 10;
}

/// <summary>Accelerations, mm/s²; what stands in the firmware where nothing is said.</summary>
public sealed record Accelerations : OpenRecord
{
    /// <summary>Outermost wall.</summary>
    [Field("outer wall's acceleration", "mm/s²", AtLeast = 10, AtMost = 100000)] public double? OuterWall { get; init; }
    /// <summary>Other walls.</summary>
    [Field("inner walls' acceleration", "mm/s²", AtLeast = 10, AtMost = 100000)] public double? InnerWall { get; init; }
    /// <summary>Solid fill.</summary>
    [Field("solid fill's acceleration", "mm/s²", AtLeast = 10, AtMost = 100000)] public double? Solid { get; init; }
    /// <summary>Sparse infill, supports and all else.</summary>
    [Field("infill's acceleration", "mm/s²", AtLeast = 10, AtMost = 100000)] public double? Infill { get; init; }
    /// <summary>Everything on the first layer.</summary>
    [Field("first layer's acceleration", "mm/s²", AtLeast = 10, AtMost = 100000)] public double? FirstLayer { get; init; }
    /// <summary>Moves without plastic.</summary>
    [Field("travel acceleration", "mm/s²", AtLeast = 10, AtMost = 100000)] public double? Travel { get; init; }

    /// <summary>Whether anything is said.</summary>
    internal bool Any => (OuterWall ?? InnerWall ?? Solid ?? Infill ?? FirstLayer ?? Travel) is not null;
}

/// <summary>Pulling filament back before a travel. What is not said is the filament's, then the head's own.</summary>
public sealed record Retraction : OpenRecord
{
    /// <summary>Length, mm of filament; 0 for none.</summary>
    [Field("retraction", "mm", AtLeast = 0, AtMost = 50)] public double? Length { get; init; }
    /// <summary>Speed, mm/s.</summary>
    [Field("retraction speed", "mm/s", AtLeast = 1, AtMost = 500)] public double? Speed { get; init; }
    /// <summary>Travels shorter than this go without, mm.</summary>
    [Field("shortest travel with retraction", "mm", AtLeast = 0, AtMost = 1000)] public double LeastTravel { get; init; } = 2;
    /// <summary>Lift of Z while travelling, mm.</summary>
    [Field("Z hop", "mm", AtLeast = 0, AtMost = 20)] public double? Lift { get; init; }
    /// <summary>Whether travels are led round corners so that they stay within the part, where that is not much longer.</summary>
    [Field("travels stay inside")] public bool StayInside { get; init; } = true;
}

/// <summary>What belongs to prints with several nozzles.</summary>
public sealed record NozzleChanges : OpenRecord
{
    /// <summary>Plastic laid on a tower after every change, mm³; 0 for no tower.</summary>
    [Field("tower's plastic a change", "mm³", AtLeast = 0, AtMost = 1000)] public double Tower { get; init; }
    /// <summary>Width and depth of the tower, mm.</summary>
    [Field("tower width", "mm", AtLeast = 5, AtMost = 100)] public double TowerWidth { get; init; } = 15;
    /// <summary>Whether a wall stands round everything that catches what drips from the idle nozzle.</summary>
    [Field("shield against ooze")] public bool Shield { get; init; }
    /// <summary>Between the parts and the shield, mm.</summary>
    [Field("shield gap", "mm", AtLeast = 0.5, AtMost = 50)] public double ShieldGap { get; init; } = 2;
    /// <summary>Retraction of a nozzle that is put away, mm of filament; as before travels where nothing is said.</summary>
    [Field("retraction at a change", "mm", AtLeast = 0, AtMost = 100)] public double? Retraction { get; init; }
}

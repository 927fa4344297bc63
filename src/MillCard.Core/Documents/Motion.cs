namespace MillCard.Core.Documents;

/// <summary>How the machine moves.</summary>
public sealed record MotionFacts : OpenRecord
{
    /// <summary>Which axis carries what.</summary>
    public MotionLayout? Layout { get; init; }
    /// <summary>Facts by axis: x, y, z, e.</summary>
    public Axes Axes { get; init; } = new();
    /// <summary>How corners are taken; the flavour's usual one where nothing is said.</summary>
    public Corner? Corner { get; init; }
    /// <summary>Whether the limits are sent at the start of a print or stand in the firmware.</summary>
    public LimitsUse Limits { get; init; } = LimitsUse.Trusted;
}

/// <summary>Kinds of motion.</summary>
public enum MotionLayout
{
    /// <summary>The bed moves along Y under the head.</summary>
    MovingBed,
    /// <summary>The bed moves in Z only.</summary>
    FixedBed,
    /// <summary>Two crossed belts drive X and Y together.</summary>
    CrossedBelts,
    /// <summary>Three towers.</summary>
    Delta,
}

/// <summary>Facts of the four axes.</summary>
public sealed record Axes : OpenRecord
{
    /// <summary>X.</summary>
    public Axis? X { get; init; }
    /// <summary>Y.</summary>
    public Axis? Y { get; init; }
    /// <summary>Z.</summary>
    public Axis? Z { get; init; }
    /// <summary>The filament drive.</summary>
    public Axis? E { get; init; }
}

/// <summary>Travel and limits of one axis.</summary>
public sealed record Axis : OpenRecord
{
    /// <summary>Least position, mm, machine frame.</summary>
    [Field("least position", "mm", AtLeast = -4000, AtMost = 4000)] public double? Min { get; init; }
    /// <summary>Greatest position, mm, machine frame.</summary>
    [Field("greatest position", "mm", AtLeast = -4000, AtMost = 4000)] public double? Max { get; init; }
    /// <summary>Highest speed, mm/s.</summary>
    [Field("highest speed", "mm/s", Above = 0, AtMost = 5000)] public double? MaxSpeed { get; init; }
    /// <summary>Highest acceleration, mm/s².</summary>
    [Field("highest acceleration", "mm/s²", Above = 0, AtMost = 100000)] public double? MaxAcceleration { get; init; }
    /// <summary>Steps of the motor per mm.</summary>
    [Field("steps per mm", "1/mm", Above = 0, AtMost = 100000)] public double? StepsPerMm { get; init; }
    /// <summary>Speed of homing, mm/s.</summary>
    [Field("homing speed", "mm/s", Above = 0, AtMost = 1000)] public double? HomingSpeed { get; init; }
}

/// <summary>How the planner takes corners.</summary>
public sealed record Corner : OpenRecord
{
    /// <summary>Which rule.</summary>
    public required CornerKind Kind { get; init; }
    /// <summary>mm for junction deviation, mm/s for the two others.</summary>
    [Field("corner value", "", AtLeast = 0, AtMost = 1000)] public required double Value { get; init; }
}

/// <summary>Corner rules of firmwares.</summary>
public enum CornerKind
{
    /// <summary>Speed from the deviation of an imagined arc through the corner, mm.</summary>
    JunctionDeviation,
    /// <summary>No axis jumps by more than this, mm/s.</summary>
    InstantSpeedChange,
    /// <summary>The speed at a right angle, mm/s.</summary>
    SquareCornerSpeed,
}

/// <summary>Who keeps the limits.</summary>
public enum LimitsUse
{
    /// <summary>The firmware's own stand; the card's figures are for the estimate only.</summary>
    Trusted,
    /// <summary>The card's figures are sent at the start of every print.</summary>
    Stated,
}

namespace MillCard.Core.Documents;

/// <summary>How the machine moves.</summary>
public sealed record MotionFacts : OpenRecord
{
    /// <summary>Which axis carries what.</summary>
    [Field("kind of motion", Pages = FieldPages.Sheet)] public MotionLayout? Layout { get; init; }
    /// <summary>Facts by axis: x, y, z, e.</summary>
    public Axes Axes { get; init; } = new();
    /// <summary>How corners are taken; the flavour's usual one where nothing is said.</summary>
    public Corner? Corner { get; init; }
    /// <summary>Most steps a second that the board sends to one motor, 1/s. 40 000 is common for 8-bit boards (common practice).</summary>
    [Field("board's step rate", "1/s", AtLeast = 1000, AtMost = 10_000_000)] public double? StepRate { get; init; }
    /// <summary>Arms and towers of a delta; null on other machines.</summary>
    public DeltaFacts? Delta { get; init; }
    /// <summary>Whether the limits are sent at the start of a print or stand in the firmware.</summary>
    public LimitsUse Limits { get; init; } = LimitsUse.Trusted;
}

/// <summary>Kinds of motion.</summary>
public enum MotionLayout
{
    /// <summary>The bed moves along Y under the head.</summary>
    MovingBed,
    /// <summary>The bed moves in Z only.</summary>
    [Word("fixed bed, belts")]
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
    /// <summary>What turns the motor's steps into way; null where nobody has looked.</summary>
    public Drive? Drive { get; init; }
    /// <summary>What was asked for and what came, the newest last.</summary>
    [Field("measurements", Most = 50)] public IReadOnlyList<AxisMeasurement> Measurements { get; init; } = [];
    /// <summary>Steps of the motor per mm, as the firmware has them.</summary>
    [Field("steps per mm", "1/mm", Above = 0, AtMost = 100000)] public double? StepsPerMm { get; init; }
    /// <summary>Whether it homes away from the bed; only Z says so, and a delta always does.</summary>
    public bool? HomesUp { get; init; }
    /// <summary>Speed on the way to the end-stop, mm/s.</summary>
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

/// <summary>Geometry of a delta, mm. R is the effective radius: tower to carriage joint less the effector's offset.</summary>
public sealed record DeltaFacts : OpenRecord
{
    /// <summary>Length of the arms between their joints.</summary>
    [Field("arm length", "mm", Above = 0, AtMost = 4000)] public double? Arm { get; init; }
    /// <summary>Horizontal radius from tower to effector.</summary>
    [Field("tower radius", "mm", Above = 0, AtMost = 2000)] public double? Radius { get; init; }
    /// <summary>Height of the carriages at their end-stops above the bed.</summary>
    [Field("carriages' home height", "mm", Above = 0, AtMost = 8000)] public double? HomeHeight { get; init; }
    /// <summary>Correction of the end-stop of the tower at 210°, the left front one.</summary>
    [Field("end-stop correction, left front", "mm", AtLeast = -50, AtMost = 50)] public double? EndStopLeft { get; init; }
    /// <summary>Correction of the end-stop of the tower at 330°, the right front one.</summary>
    [Field("end-stop correction, right front", "mm", AtLeast = -50, AtMost = 50)] public double? EndStopRight { get; init; }
    /// <summary>Correction of the end-stop of the tower at 90°, the back one.</summary>
    [Field("end-stop correction, back", "mm", AtLeast = -50, AtMost = 50)] public double? EndStopBack { get; init; }
    /// <summary>Straight pieces a second into which the firmware cuts moves.</summary>
    [Field("segments per second", "1/s", AtLeast = 1, AtMost = 10000)] public double? SegmentsPerSecond { get; init; }
}

/// <summary>A way commanded and the way that came.</summary>
public sealed record AxisMeasurement : Member
{
    /// <summary>Asked for, mm.</summary>
    [Field("commanded", "mm", Above = 0, AtMost = 10000)] public required double Commanded { get; init; }
    /// <summary>Measured, mm.</summary>
    [Field("measured", "mm", Above = 0, AtMost = 100000)] public required double Measured { get; init; }
    /// <summary>Steps per mm at which it was done.</summary>
    [Field("steps per mm then", "1/mm", Above = 0, AtMost = 100000)] public double? StepsPerMm { get; init; }
    /// <summary>Day.</summary>
    public DateOnly? On { get; init; }
    /// <summary>With which tool.</summary>
    [Field("note", Most = 200)] public string? Note { get; init; }
}

namespace MillCard.Core.Documents;

/// <summary>A way to run a machine with two carriages on one beam.</summary>
public sealed record Mode : Member
{
    /// <summary>Which.</summary>
    [Field("mode")] public required ModeKind Kind { get; init; }
    /// <summary>Least gap between a part and its copy, mm; the head's clearance where nothing is said.</summary>
    [Field("gap between copies", "mm", AtLeast = 0, AtMost = 500)] public double? Gap { get; init; }
    /// <summary>Where the mirror stands, mm along X, bed frame; the middle of the bed where nothing is said.</summary>
    [Field("mirror axis", "mm", AtLeast = -4000, AtMost = 4000)] public double? MirrorAt { get; init; }
    /// <summary>Highest speed in this mode, mm/s; the recipe's where nothing is said.</summary>
    [Field("highest speed in this mode", "mm/s", Above = 0, AtMost = 5000)] public double? MaxSpeed { get; init; }
    /// <summary>Start routine of this mode; the card's own where nothing is said.</summary>
    [Field("start routine of the mode", Most = 400_000)] public string? Start { get; init; }
}

/// <summary>The modes of two carriages.</summary>
public enum ModeKind
{
    /// <summary>The first carriage prints, the second is parked.</summary>
    Single,
    /// <summary>Both print the same at a distance along X.</summary>
    Copy,
    /// <summary>The second prints the mirror image of the first.</summary>
    Mirror,
    /// <summary>They take turns in one part.</summary>
    [Word("two materials")] TwoMaterial,
}

/// <summary>The modes' names, as they stand in documents and routines.</summary>
public static class ModeNames
{
    /// <summary>The name of a mode.</summary>
    public static string Of(ModeKind kind) => kind switch
    {
        ModeKind.Single => "single",
        ModeKind.Copy => "copy",
        ModeKind.Mirror => "mirror",
        _ => "two-material",
    };
}

/// <summary>The mode of one trial, with what belongs to the trial and not to the card.</summary>
public sealed record ModeUse : OpenRecord
{
    /// <summary>Which mode.</summary>
    public required ModeKind Kind { get; init; }
    /// <summary>Distance of the copy along X, mm; what lies on the bed asks for where nothing is said.</summary>
    [Field("copy distance", "mm", AtLeast = 0, AtMost = 2000)] public double? Distance { get; init; }
    /// <summary>How much hotter the second nozzle is than the first, °C; follows from the two filaments where nothing is said.</summary>
    [Field("second nozzle hotter by", "°C", AtLeast = -300, AtMost = 300)] public double? Warmer { get; init; }
    /// <summary>Share of full speed of the second nozzle's fan, 0 to 1; as the first's where nothing is said.</summary>
    [Field("second nozzle's fan", "", AtLeast = 0, AtMost = 1)] public double? Fan { get; init; }
}

/// <summary>Whether parts grow together or one after the other.</summary>
public enum Sequence
{
    /// <summary>Layer by layer through all parts.</summary>
    AllAtOnce,
    /// <summary>Each part to its top before the next begins.</summary>
    OneAtATime,
}

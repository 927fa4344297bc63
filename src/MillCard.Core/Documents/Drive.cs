using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>What turns the steps of a motor into way along an axis.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(BeltDrive), "belt")]
[JsonDerivedType(typeof(ScrewDrive), "screw")]
[JsonDerivedType(typeof(GearDrive), "gear")]
public abstract record Drive : OpenRecord
{
    /// <summary>Angle of a full step, degrees: 1.8 or 0.9.</summary>
    [Field("step angle", "°", Above = 0, AtMost = 90)] public double? StepAngle { get; init; }
    /// <summary>Microsteps to a full step.</summary>
    [Field("microsteps", "", AtLeast = 1, AtMost = 256)] public int? Microsteps { get; init; }
}

/// <summary>A toothed belt on a pulley.</summary>
public sealed record BeltDrive : Drive
{
    /// <summary>Teeth of the pulley.</summary>
    [Field("teeth of the pulley", "", AtLeast = 5, AtMost = 200)] public int? Teeth { get; init; }
    /// <summary>Pitch of the belt, mm.</summary>
    [Field("belt pitch", "mm", Above = 0, AtMost = 20)] public double? Pitch { get; init; }
}

/// <summary>A lead screw.</summary>
public sealed record ScrewDrive : Drive
{
    /// <summary>Pitch of the thread, mm.</summary>
    [Field("thread pitch", "mm", Above = 0, AtMost = 50)] public double? Pitch { get; init; }
    /// <summary>Starts of the thread; the lead is pitch × starts.</summary>
    [Field("starts of the thread", "", AtLeast = 1, AtMost = 20)] public int? Starts { get; init; }
}

/// <summary>A wheel that pushes filament, or a wheel on a rack.</summary>
public sealed record GearDrive : Drive
{
    /// <summary>Effective diameter of the wheel, mm.</summary>
    [Field("effective diameter", "mm", Above = 0, AtMost = 200)] public double? Diameter { get; init; }
    /// <summary>Turns of the motor to one of the wheel; 1 where it sits on the motor.</summary>
    [Field("gear ratio", "", Above = 0, AtMost = 1000)] public double? Ratio { get; init; }
}

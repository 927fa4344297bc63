using MillCard.Core.Documents;
using MillCard.Core.Wording;

namespace MillCard.Core.Motion;

/// <summary>What follows from the parts of a drive.</summary>
public static class Drives
{
    /// <summary>Way of one turn of the motor, mm: teeth × pitch, pitch × starts, or π × diameter / ratio; null where a figure is
    /// missing. The starts of a screw are never assumed.</summary>
    [Formula("Way of one turn of a motor", "belt: z·p; screw: p·n; gear: π·d/i",
        "Elementary geometry.", Where = "z teeth, p pitch, n starts, d diameter, i ratio")]
    public static double? WayPerTurn(Drive? drive) => drive switch
    {
        BeltDrive b => b.Teeth * b.Pitch,
        ScrewDrive s => s.Pitch * s.Starts,
        GearDrive g => Math.PI * g.Diameter / (g.Ratio ?? 1),
        _ => null,
    };

    /// <summary>Way of one full step, mm: way per turn × α / 360.</summary>
    [Formula("Way of one full step", "s = W·α/360",
        "Elementary geometry.", Where = "W way per turn, α step angle, °")]
    public static double? FullStep(Drive? drive) => WayPerTurn(drive) * drive?.StepAngle / 360;

    /// <summary>Steps per mm from the parts: (360/α · μ) / way per turn; null where a figure is missing.</summary>
    [Formula("Steps per mm", "(360/α)·μ / W",
        "Elementary geometry.", Where = "α step angle, μ microsteps, W way per turn")]
    public static double? StepsPerMm(Drive? drive) => drive?.Microsteps / FullStep(drive);

    /// <summary>Share of the holding torque that holds one microstep: sin(90°/μ). Motor makers' application notes; from memory.</summary>
    [Formula("Torque that holds one microstep", "sin(90°/μ)",
        "Motor makers' application notes; from memory.", Where = "μ microsteps, as a share of the holding torque")]
    public static double HeldTorque(int microsteps) => Math.Sin(Math.PI / 2 / microsteps);

    /// <summary>How much faster a motor may have to turn than the nozzle moves in the plane.</summary>
    /// <remarks>√2 where two crossed belts share the way; on a delta the cotangent of the flattest arm's angle at the edge of the
    /// reach.</remarks>
    [Formula("How much faster a motor turns than the nozzle moves", "crossed belts: √2; delta: cot α",
        "Elementary geometry.",
        Where = "α angle of the flattest arm to the bed")]
    public static double WorstMotor(Card card) => card.Motion.Layout switch
    {
        MotionLayout.CrossedBelts => Math.Sqrt(2),
        MotionLayout.Delta when DeltaGeometry.Of(card) is { } delta
            && delta.FlattestArm(0, -Math.Min(card.Motion.Axes.X?.Max ?? delta.ReachRadius, delta.ReachRadius)) is var angle and > 0 =>
            Math.Max(1, 1 / Math.Tan(angle * Math.PI / 180)),
        _ => 1,
    };

    /// <summary>Steps per mm after a measured move: old · commanded / measured.</summary>
    [Formula("Steps per mm after a measured move", "old · commanded / measured",
        "Rule of three.")]
    public static double Corrected(double stepsPerMm, double commanded, double measured) => stepsPerMm * commanded / measured;
}

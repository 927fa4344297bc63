using MillCard.Core.Documents;
using MillCard.Core.Flavours;

namespace MillCard.Core.Motion;

/// <summary>What the planner must keep: mm/s and mm/s² by axis, corners. Changed by commands while a program runs.</summary>
public sealed class Limits
{
    private const double TypicalSpeed = 200, TypicalAcceleration = 1500, TypicalZSpeed = 10, TypicalZAcceleration = 100,
        TypicalESpeed = 60, TypicalEAcceleration = 3000;

    /// <summary>Highest speed of x, y, z, e, mm/s.</summary>
    public double[] Speed { get; } = new double[4];
    /// <summary>Highest acceleration of x, y, z, e, mm/s².</summary>
    public double[] Acceleration { get; } = new double[4];
    /// <summary>Acceleration of printing moves, mm/s²; infinite where only the axes limit it.</summary>
    public double Printing { get; set; } = double.PositiveInfinity;
    /// <summary>Acceleration of travels, mm/s².</summary>
    public double Travel { get; set; } = double.PositiveInfinity;
    /// <summary>Acceleration of the filament alone, mm/s².</summary>
    public double Retraction { get; set; } = double.PositiveInfinity;
    /// <summary>Which corner rule.</summary>
    public CornerKind Corner { get; set; }
    /// <summary>Its value: mm or mm/s.</summary>
    public double CornerValue { get; set; }
    /// <summary>Instant speed change of Z and of the filament, mm/s.</summary>
    public double[] Jump { get; } = [10, 10, 0.4, 5];

    /// <summary>The card's limits; what it does not say is typical: common practice, no source.</summary>
    public static Limits Of(Card card)
    {
        var limits = new Limits();
        limits.Take(0, card.Motion.Axes.X, TypicalSpeed, TypicalAcceleration);
        limits.Take(1, card.Motion.Axes.Y, TypicalSpeed, TypicalAcceleration);
        limits.Take(2, card.Motion.Axes.Z, card.Motion.Layout == MotionLayout.Delta ? TypicalSpeed
            : TypicalZSpeed, card.Motion.Layout == MotionLayout.Delta ? TypicalAcceleration : TypicalZAcceleration);
        limits.Take(3, card.Motion.Axes.E, TypicalESpeed, TypicalEAcceleration);
        var corner = card.Motion.Corner ?? Flavour.Of(card.Firmware.Flavour!.Value).Corner;
        (limits.Corner, limits.CornerValue) = (corner.Kind, corner.Value);
        if (corner.Kind == CornerKind.InstantSpeedChange) (limits.Jump[0], limits.Jump[1]) = (corner.Value, corner.Value);
        return limits;
    }

    private void Take(int axis, Axis? facts, double speed, double acceleration) =>
        (Speed[axis], Acceleration[axis]) = (facts?.MaxSpeed ?? speed, facts?.MaxAcceleration ?? acceleration);
}

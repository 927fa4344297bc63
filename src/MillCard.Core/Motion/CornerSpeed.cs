using MillCard.Core.Wording;

namespace MillCard.Core.Motion;

/// <summary>Speeds at which a corner between two moves is taken.</summary>
public static class CornerSpeed
{
    /// <summary>Junction deviation: v = √(a δ sin(θ/2) / (1 − sin(θ/2))), θ the angle between the segments, 180° straight on.</summary>
    /// <param name="acceleration">mm/s².</param>
    /// <param name="deviation">δ, mm.</param>
    /// <param name="cosTurn">Cosine of the change of direction: 1 straight on, −1 back.</param>
    [Formula("Speed at a corner, junction deviation", "v = √(a·δ·sin(θ/2) / (1 − sin(θ/2)))",
        "The firmwares' public documentation; from memory.",
            Where = "a acceleration, δ deviation, θ angle between the segments, 180° straight on")]
    public static double Junction(double acceleration, double deviation, double cosTurn)
    {
        // θ = 180° − turn, so sin(θ/2) = cos(turn/2)
        var half = Math.Sqrt(Math.Max(0, (1 + cosTurn) / 2));
        return half > 0.999999 ? double.PositiveInfinity : Math.Sqrt(acceleration * deviation * half / (1 - half));
    }

    /// <summary>The deviation that gives a speed at a right angle: δ = v₉₀²(√2 − 1)/a.</summary>
    [Formula("Deviation that gives a speed at a right angle", "δ = v₉₀²·(√2 − 1)/a",
        "Follows from the one above.", Where = "v₉₀ speed at 90°, a acceleration")]
    public static double DeviationOfSquareCorner(double speed, double acceleration) => speed * speed * (Math.Sqrt(2) - 1) / acceleration;
}

using MillCard.Core.Documents;
using MillCard.Core.Wording;

namespace MillCard.Core.Motion;

/// <summary>A delta with arms of length L on towers at 90°, 210° and 330° of the effective radius R; machine frame, mm.</summary>
/// <param name="Arm">L.</param>
/// <param name="Radius">R.</param>
public sealed record DeltaGeometry(double Arm, double Radius)
{
    /// <summary>Arms flatter than this hold the effector badly; common practice, no source.</summary>
    public const double LeastAngle = 20;

    private static readonly double[] Angles = [90, 210, 330];

    /// <summary>Of a card; null where a figure is missing.</summary>
    public static DeltaGeometry? Of(Card card) =>
        card.Motion is { Layout: MotionLayout.Delta, Delta: { Arm: { } arm, Radius: { } radius } } ? new DeltaGeometry(arm, radius) : null;

    /// <summary>Heights of the three carriages for an effector at (x, y, z): z + √(L² − (x − X)² − (y − Y)²); NaN where an arm does not
    /// reach.</summary>
    [Formula("Height of a delta carriage", "z + √(L² − (x − X)² − (y − Y)²)",
        "Theorem of Pythagoras.", Where = "L arm, (X, Y) the tower")]
    public (double Back, double Left, double Right) Carriages(double x, double y, double z) =>
        (z + Rise(0, x, y), z + Rise(1, x, y), z + Rise(2, x, y));

    /// <summary>How high the effector can go at (x, y): home height less the highest carriage; NaN where an arm does not reach.</summary>
    [Formula("Ceiling of a delta", "H − maxᵢ √(L² − (x − Xᵢ)² − (y − Yᵢ)²)",
        "Theorem of Pythagoras.",
        Where = "H height of the carriages at home, L arm, (Xᵢ, Yᵢ) the towers")]
    public double Ceiling(double x, double y, double homeHeight) =>
        homeHeight - Math.Max(Rise(0, x, y), Math.Max(Rise(1, x, y), Rise(2, x, y)));

    /// <summary>Angle of the flattest arm to the horizontal, degrees; NaN where an arm does not reach.</summary>
    public double FlattestArm(double x, double y) => Angles.Select((_, i) => Math.Asin(Rise(i, x, y) / Arm) * 180 / Math.PI)
        .Aggregate((a, b) => double.IsNaN(a) || double.IsNaN(b) ? double.NaN : Math.Min(a, b));

    /// <summary>Radius within which every arm stands at 20° or more and the effector stays between the towers, mm.</summary>
    /// <remarks>The flattest arm is that of the tower opposite, at distance R + r: cos 20° · L ≥ R + r.</remarks>
    [Formula("Reach of a delta", "R ≤ L·cos 20° − R₀",
        "Common practice, no source.", Where = "L arm, R₀ radius of the towers: the flattest arm stands at 20°")]
    public double ReachRadius => Math.Max(0, Math.Min(Radius, Arm * Math.Cos(LeastAngle * Math.PI / 180) - Radius));

    private double Rise(int tower, double x, double y)
    {
        var (sin, cos) = Math.SinCos(Angles[tower] * Math.PI / 180);
        var (dx, dy) = (x - Radius * cos, y - Radius * sin);
        return Math.Sqrt(Arm * Arm - dx * dx - dy * dy);
    }
}

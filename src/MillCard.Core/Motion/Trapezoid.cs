using MillCard.Core.Wording;

namespace MillCard.Core.Motion;

/// <summary>Times of moves with constant acceleration.</summary>
public static class Trapezoid
{
    /// <summary>Time of a move, s: up to the cruising speed, on, and down; where the way is too short, up and down without
    /// cruising.</summary>
    /// <param name="distance">mm.</param>
    /// <param name="entry">Speed at the start, mm/s.</param>
    /// <param name="cruise">Speed asked for, mm/s.</param>
    /// <param name="exit">Speed at the end, mm/s.</param>
    /// <param name="acceleration">mm/s².</param>
    [Formula("Time of a move", "t = (2·vₘ − v₀ − v₁)/a + (s − s₀ − s₁)/vₘ",
        "Uniformly accelerated motion.",
            Where = "vₘ cruising speed, v₀ and v₁ at the ends, a acceleration, s way, "
                + "s₀ and s₁ the ways up and down: (vₘ² − v²)/2a")]
    public static double Time(double distance, double entry, double cruise, double exit, double acceleration)
    {
        var up = (cruise * cruise - entry * entry) / (2 * acceleration);
        var down = (cruise * cruise - exit * exit) / (2 * acceleration);
        if (up + down <= distance) return (2 * cruise - entry - exit) / acceleration + (distance - up - down) / cruise;
        var peak = Math.Sqrt(Math.Max(0, acceleration * distance + (entry * entry + exit * exit) / 2));
        peak = Math.Max(peak, Math.Max(entry, exit));
        return (2 * peak - entry - exit) / acceleration;
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Where rings begin.</summary>
internal static class Seams
{
    /// <summary>The ring so that it begins at its seam.</summary>
    /// <param name="ring">A closed path.</param>
    /// <param name="seam">Which kind.</param>
    /// <param name="guide">The seam of the layer below.</param>
    /// <param name="layer">Number of the layer.</param>
    public static ToolPath At(ToolPath ring, Seam seam, Point guide, int layer)
    {
        var points = ring.Points;
        var at = seam switch
        {
            Seam.Back => Best(points, i => points[i].Y + 1e-6 * points[i].X),
            Seam.Sharpest => Best(points, i => Turn(points, i)),
            // the golden ratio never comes back to the same place
            Seam.Scattered => (int)(Math.Abs((layer * 0.6180339887 + points.Length * 0.37) % 1) * points.Length) % points.Length,
            _ => Best(points, i => -points[i].To(guide)),
        };
        return ring.From(at);
    }

    /// <summary>The seam of the lowest layer, from which the aligned ones go up: its sharpest corner.</summary>
    public static Point First(ToolPath ring) => ring.Points[Best(ring.Points, i => Turn(ring.Points, i))];

    private static int Best(Point[] points, Func<int, double> score)
    {
        var (best, most) = (0, double.NegativeInfinity);
        for (var i = 0; i < points.Length; i++) if (score(i) is var s && s > most + 1e-9) (best, most) = (i, s);
        return best;
    }

    /// <summary>How far the ring turns at a corner, radians; corners that point inwards count double, as they hide the seam.</summary>
    private static double Turn(Point[] points, int i)
    {
        var (a, b, c) = (points[(i + points.Length - 1) % points.Length], points[i], points[(i + 1) % points.Length]);
        var cross = (b.X - a.X) * (c.Y - b.Y) - (b.Y - a.Y) * (c.X - b.X);
        var turn = Math.Atan2(cross, (b.X - a.X) * (c.X - b.X) + (b.Y - a.Y) * (c.Y - b.Y));
        // NTS runs its shells clockwise
        return turn > 0 ? 2 * turn : -turn;
    }
}

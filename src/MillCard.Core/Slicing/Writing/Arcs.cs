using MillCard.Core.Slicing.Paths;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Finds stretches of a line that are arcs of a circle, so that one move stands for many.</summary>
internal static class Arcs
{
    /// <summary>Fewer segments are no shorter as an arc.</summary>
    private const int Fewest = 3;

    /// <summary>More segments in one arc are not sought: each one that is added is held against all before it.</summary>
    private const int Most = 200;

    /// <summary>Larger circles are straight lines to most firmwares, mm.</summary>
    private const double LargestRadius = 500;

    /// <summary>An arc along a line.</summary>
    /// <param name="End">Index of the point at which it ends; the number of points stands for the first one again.</param>
    /// <param name="Centre">mm.</param>
    /// <param name="Sweep">Radians, counter-clockwise above 0.</param>
    /// <param name="Length">mm.</param>
    public readonly record struct Arc(int End, Point Centre, double Sweep, double Length);

    /// <summary>The arc that begins at a point; null where the way goes on straight or is no circle.</summary>
    /// <param name="path">A line of one width.</param>
    /// <param name="from">Index of the point.</param>
    /// <param name="error">How far it may lie off the line's points, and twice that off its chords, mm: chords lie that far off their
    /// curve themselves.</param>
    [Formula("How far a chord leaves its arc", "r·(1 − cos(θ/2))",
        "Elementary geometry.",
        Where = "r radius, θ angle of the chord")]
    public static Arc? From(ToolPath path, int from, double error)
    {
        var (n, last) = (path.Points.Length, path.Closed ? path.Points.Length : path.Points.Length - 1);
        Arc? best = null;
        for (var end = from + Fewest; end <= Math.Min(last, from + Most); end++)
        {
            if (path.Paces is { } paces && paces[end - 1] != paces[from]) break;
            if (Through(path, from, end, error) is not { } arc) break;
            best = arc;
        }
        return best;

        Point At(int i) => path.Points[i % n];

        Arc? Through(ToolPath path, int from, int end, double error)
        {
            var (a, b, c) = (At(from), At((from + end) / 2), At(end));
            if (CentreOf(a, b, c) is not { } centre) return null;
            var radius = centre.To(a);
            if (radius > LargestRadius) return null;
            var sweep = 0.0;
            for (var i = from; i < end; i++)
            {
                var (p, q) = (At(i), At(i + 1));
                if (Math.Abs(centre.To(q) - radius) > error) return null;
                var (px, py, qx, qy) = (p.X - centre.X, p.Y - centre.Y, q.X - centre.X, q.Y - centre.Y);
                var turn = Math.Atan2(px * qy - py * qx, px * qx + py * qy);
                // all one way round, and every chord near its piece of the arc
                if (turn == 0 || sweep != 0 && turn > 0 != sweep > 0 || radius * (1 - Math.Cos(turn / 2)) > 2 * error) return null;
                sweep += turn;
            }
            return Math.Abs(sweep) >= Math.PI ? null : new Arc(end, centre, sweep, radius * Math.Abs(sweep));
        }
    }

    /// <summary>Middle of the circle through three points; null where they lie on a line.</summary>
    private static Point? CentreOf(Point a, Point b, Point c)
    {
        var (bx, by, cx, cy) = (b.X - a.X, b.Y - a.Y, c.X - a.X, c.Y - a.Y);
        var twice = 2 * (bx * cy - by * cx);
        if (Math.Abs(twice) < 1e-12) return null;
        var (bb, cc) = (bx * bx + by * by, cx * cx + cy * cy);
        return new Point(a.X + (cy * bb - by * cc) / twice, a.Y + (bx * cc - cx * bb) / twice);
    }
}

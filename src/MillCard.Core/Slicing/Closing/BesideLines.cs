using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Closing;

/// <summary>Places beside lines at which they may leave holes.</summary>
internal static class BesideLines
{
    /// <summary>How far beside the plastic the places lie, mm.</summary>
    private const double Away = 0.05;

    /// <summary>Lines leave holes where they turn by about this, radians, and walls by twice as much.</summary>
    private const double Turn = 0.4;

    /// <summary>Within sharper corners, as the cosine of half of the turn, places lie no farther.</summary>
    private const double Sharpest = 0.3;

    /// <summary>Between places all along a line, mm.</summary>
    private const double Step = 0.4;

    /// <summary>The places.</summary>
    public static IEnumerable<Point> Of(ToolPath path) =>
        path.Kind == PathKind.Thin || path.Widths is not null ? AtTurns(path).Concat(AllAlong(path)) : AtTurns(path);

    private static IEnumerable<Point> AtTurns(ToolPath path)
    {
        var (n, p) = (path.Points.Length, path.Points);
        for (var i = 0; i < n; i++)
        {
            var away = (path.Widths?[i] ?? path.Width) / 2 + Away;
            var (before, next) = (p[(i + n - 1) % n], p[(i + 1) % n]);
            if (!path.Closed && (i == 0 || i == n - 1))
            {
                var inner = i == 0 ? next : before;
                var angle = Math.Atan2(p[i].Y - inner.Y, p[i].X - inner.X);
                for (var side = -1; side <= 1; side++)
                {
                    var (sine, cosine) = Math.SinCos(angle + side * Math.PI / 3);
                    yield return new(p[i].X + away * cosine, p[i].Y + away * sine);
                }
                continue;
            }
            var (back, on) = (p[i].To(before), p[i].To(next));
            if (back == 0 || on == 0) continue;
            var (x, y) = ((before.X - p[i].X) / back + (next.X - p[i].X) / on, (before.Y - p[i].Y) / back + (next.Y - p[i].Y) / on);
            // 2·sin(θ/2) for a turn by θ
            var turn = Math.Sqrt(x * x + y * y);
            if (turn < (path.Closed ? 2 * Turn : Turn)) continue;
            yield return new(p[i].X - away * x / turn, p[i].Y - away * y / turn);
            // in the corner there may be no other line that turns
            var within = away / Math.Max(Math.Sqrt(Math.Max(0, 1 - turn * turn / 4)), Sharpest);
            yield return new(p[i].X + within * x / turn, p[i].Y + within * y / turn);
        }
    }

    private static IEnumerable<Point> AllAlong(ToolPath path)
    {
        for (var i = 1; i < path.Points.Length; i++)
        {
            var (from, to) = (path.Points[i - 1], path.Points[i]);
            var (length, away) = (from.To(to), path.Widest / 2 + Away);
            var (x, y) = ((to.X - from.X) / length, (to.Y - from.Y) / length);
            for (var along = 0.0; along < length; along += Step)
            {
                Point at = new(from.X + along * x, from.Y + along * y);
                yield return new(at.X - away * y, at.Y + away * x);
                yield return new(at.X + away * y, at.Y - away * x);
            }
        }
    }
}

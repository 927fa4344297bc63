using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Paths;

/// <summary>Leaves out the points of a line that change nothing: boards run out of moves long before they run out of time.</summary>
internal static class FewerPoints
{
    /// <summary>A line narrower or wider by so much, as a share of how far its middle may be off, is as bad: half of it shows on either
    /// side.</summary>
    private const double OfWidth = 0.5;

    /// <summary>The same line with as few of its points as keep its middle, and its sides.</summary>
    /// <param name="path">Any.</param>
    /// <param name="error">How far a point that is left out may lie off, mm.</param>
    public static ToolPath Thinned(this ToolPath path, double error)
    {
        var n = path.Points.Length;
        if (n < 3 || error <= 0) return path;
        var count = path.Closed ? n + 1 : n;
        var keep = Thinning.Kept(count, path.Closed ? Thinning.Farthest(n, i => path.Points[i].To(path.Points[0])) : null,
            new OffPath(path), error);
        var kept = Enumerable.Range(0, n).Where(i => keep[i]).ToArray();
        if (kept.Length == n || path.Closed && kept.Length < 3) return path;
        return path with
        {
            Points = At(path.Points),
            Widths = path.Widths is { } widths ? At(widths) : null,
            Paces = path.Paces is { } paces ? Array.ConvertAll(path.Closed ? kept : kept[..^1], i => paces[i]) : null,
        };

        T[] At<T>(T[] all) => Array.ConvertAll(kept, i => all[i]);
    }

    /// <summary>How far a point lies off the straight way between two others, mm, or its side where its width changes; where the pace
    /// changes it must stay. A closed path's first point counts as its last too.</summary>
    private readonly struct OffPath(ToolPath path) : IOffStraight
    {
        private readonly Point[] _points = path.Way;
        private readonly double[]? _widths = path is { Closed: true, Widths: { } open } ? [.. open, open[0]] : path.Widths;
        private readonly Pace[]? _paces = path.Paces;

        public double Off(int from, int to, int point)
        {
            if (_paces is not null && _paces[point - 1] != _paces[point]) return double.PositiveInfinity;
            var (a, b, p) = (_points[from], _points[to], _points[point]);
            var t = a.NearestShare(b, p);
            var off = p.To(a.Towards(b, t));
            return _widths is not { } w ? off : Math.Max(off, OfWidth * Math.Abs(w[from] + t * (w[to] - w[from]) - w[point]));
        }
    }
}

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
        var left = keep.AsSpan(0, n).Count(true);
        if (left == n || path.Closed && left < 3) return path;
        var kept = new int[left];
        for (int i = 0, next = 0; i < n; i++) if (keep[i]) kept[next++] = i;
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
        private readonly Point[] _points = path.Points;
        private readonly double[]? _widths = path.Widths;
        private readonly Pace[]? _paces = path.Paces;

        public double Squares(int from, int to, double[] offs)
        {
            var (end, most) = (to % _points.Length, 0.0);
            var way = new StraightWay(_points[from], _points[end]);
            var (width, wider) = _widths is { } w ? (w[from], w[end] - w[from]) : (0, 0);
            for (var i = from + 1; i < to; i++)
            {
                var (square, share) = way.Off(_points[i]);
                if (_widths is not null && OfWidth * (width + share * wider - _widths[i]) is var side) square = Math.Max(square, side * side);
                if (_paces is not null && _paces[i - 1] != _paces[i]) square = double.PositiveInfinity;
                offs[i] = square;
                most = Math.Max(most, square);
            }
            return most;
        }
    }
}

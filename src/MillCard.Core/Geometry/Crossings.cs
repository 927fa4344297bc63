namespace MillCard.Core.Geometry;

/// <summary>Whether segments cross each other so often that it is not wise to look at every crossing.</summary>
internal static class Crossings
{
    /// <summary>So many crossings are resolved in no time.</summary>
    private const int Few = 100;

    private const int MostCells = 1 << 20;
    private const int CellsEach = 4;
    private const int PairsEach = 100;

    /// <summary>Looks at pairs of segments that come near each other, until enough of them cross.</summary>
    /// <param name="segments">mm.</param>
    /// <param name="stop">Ends the search.</param>
    public static bool AreMany(IReadOnlyList<DirectedSegment> segments, CancellationToken stop)
    {
        if (segments.Count < 2) return false;
        var grid = new Cells(segments);
        var (crossings, pairs) = (0, 0L);
        for (var cell = 0; cell < grid.Count; cell++)
        {
            if (cell % 1024 == 0) stop.ThrowIfCancellationRequested();
            var within = grid.In(cell);
            for (var i = 1; i < within.Length; i++)
                for (var k = 0; k < i; k++)
                    // two that pass several cells together are counted where they cross
                    if (CrossAt(segments[within[i]], segments[within[k]]) is { } at && grid.CellOf(at.X, at.Y) == cell) crossings++;
            pairs += (long)within.Length * (within.Length - 1) / 2;
            if (crossings > Few + segments.Count || pairs > (long)PairsEach * segments.Count + Few) return true;
        }
        return false;
    }

    /// <summary>Where each has its ends on both sides of the other; null where they do not cross.</summary>
    private static Point? CrossAt(in DirectedSegment a, in DirectedSegment b)
    {
        var (from, to) = (Side(a, b.X0, b.Y0), Side(a, b.X1, b.Y1));
        if (from * to >= 0 || Side(b, a.X0, a.Y0) * Side(b, a.X1, a.Y1) >= 0) return null;
        var share = from / (from - to);
        return new Point(b.X0 + share * (b.X1 - b.X0), b.Y0 + share * (b.Y1 - b.Y0));
    }

    private static double Side(in DirectedSegment s, double x, double y) => (s.X1 - s.X0) * (y - s.Y0) - (s.Y1 - s.Y0) * (x - s.X0);

    /// <summary>Segments by the square cells of a grid that they pass, or nearly.</summary>
    private sealed class Cells
    {
        private readonly IReadOnlyList<DirectedSegment> _segments;
        private readonly double _x = double.MaxValue, _y = double.MaxValue, _size;
        private readonly int _columns, _rows;
        private readonly int[] _starts, _within;

        public Cells(IReadOnlyList<DirectedSegment> segments)
        {
            _segments = segments;
            var (right, back) = (double.MinValue, double.MinValue);
            foreach (var s in segments)
            {
                (_x, _y) = (Math.Min(_x, Math.Min(s.X0, s.X1)), Math.Min(_y, Math.Min(s.Y0, s.Y1)));
                (right, back) = (Math.Max(right, Math.Max(s.X0, s.X1)), Math.Max(back, Math.Max(s.Y0, s.Y1)));
            }
            // as many cells as segments, but none much smaller than they are long: the work stays that of the segments
            var mean = segments.Sum(s => Math.Max(Math.Abs(s.X1 - s.X0), Math.Abs(s.Y1 - s.Y0))) / segments.Count;
            var (width, depth, most) = (right - _x, back - _y, Math.Min(MostCells, (double)CellsEach * segments.Count));
            _size = Math.Max(Math.Max(Math.Sqrt(width * depth / most), Math.Max(width, depth) / most), Math.Max(mean / CellsEach, 1e-9));
            (_columns, _rows) = (1 + (int)(width / _size), 1 + (int)(depth / _size));
            _starts = new int[Count + 1];
            for (var i = 0; i < segments.Count; i++) foreach (var cell in Passed(i)) _starts[cell + 1]++;
            for (var cell = 0; cell < Count; cell++) _starts[cell + 1] += _starts[cell];
            _within = new int[_starts[Count]];
            var next = _starts.ToArray();
            for (var i = 0; i < segments.Count; i++) foreach (var cell in Passed(i)) _within[next[cell]++] = i;
        }

        public int Count => _columns * _rows;

        public int CellOf(double x, double y) =>
            Math.Clamp((int)((y - _y) / _size), 0, _rows - 1) * _columns + Math.Clamp((int)((x - _x) / _size), 0, _columns - 1);

        public ReadOnlySpan<int> In(int cell) => _within.AsSpan(_starts[cell].._starts[cell + 1]);

        private IEnumerable<int> Passed(int segment)
        {
            var s = _segments[segment];
            var steps = 1 + (int)(Math.Max(Math.Abs(s.X1 - s.X0), Math.Abs(s.Y1 - s.Y0)) / _size);
            var last = -1;
            for (var k = 0; k <= steps; k++)
            {
                var t = (double)k / steps;
                var cell = CellOf(s.X0 + t * (s.X1 - s.X0), s.Y0 + t * (s.Y1 - s.Y0));
                if (cell != last) yield return last = cell;
            }
        }
    }
}

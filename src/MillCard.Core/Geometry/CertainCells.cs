namespace MillCard.Core.Geometry;

/// <summary>What a border surely encloses, in squares: quickly found however often it crosses itself.</summary>
/// <remarks>From one point to another the winding number changes by at most one for every piece of the border between them. A square whose
/// middle has a greater number than pieces pass through it is therefore covered whole, where all areas wind the same way.</remarks>
internal static class CertainCells
{
    /// <summary>Most squares along a side.</summary>
    private const int Finest = 1024;
    private const int Coarsest = 64;

    /// <summary>The union of those squares.</summary>
    /// <param name="border">Closed as a whole, areas to its left, none of them winding the other way.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Shape Of(IReadOnlyList<DirectedSegment> border, CancellationToken stop)
    {
        var (left, right, bottom, top) = (double.MaxValue, double.MinValue, double.MaxValue, double.MinValue);
        foreach (var s in border)
        {
            (left, right) = (Math.Min(left, Math.Min(s.X0, s.X1)), Math.Max(right, Math.Max(s.X0, s.X1)));
            (bottom, top) = (Math.Min(bottom, Math.Min(s.Y0, s.Y1)), Math.Max(top, Math.Max(s.Y0, s.Y1)));
        }
        // as fine as the pieces of the border are short
        var side = (int)Math.Clamp(4 * Math.Sqrt(border.Count), Coarsest, Finest);
        var cell = Math.Max(right - left, top - bottom) / side;
        if (!(cell > Plane.Touch)) return Plane.Empty;
        // the number at the middle of a square less the pieces that pass through it
        var surely = new int[side * side];
        // by how much the number is greater to the left of a column
        var changes = new int[side * (side + 1)];
        for (var i = 0; i < border.Count; i++)
        {
            if (i % 4096 == 0) stop.ThrowIfCancellationRequested();
            Pass(border[i]);
        }
        for (var row = 0; row < side; row++)
            for (var (column, number) = (side - 1, 0); column >= 0; column--)
                surely[row * side + column] += number += changes[row * (side + 1) + column + 1];
        return Outline();

        int Index(double at, double from) => (int)Math.Clamp((at - from) / cell, 0, side - 1);

        void Pass(DirectedSegment s)
        {
            var (low, high) = (Math.Min(s.Y0, s.Y1), Math.Max(s.Y0, s.Y1));
            for (int row = Index(low - Plane.Touch, bottom), last = Index(high + Plane.Touch, bottom); row <= last; row++)
            {
                var (from, to) = (bottom + row * cell, bottom + (row + 1) * cell);
                var (x0, x1) = s.Y0 == s.Y1 ? (s.X0, s.X1) : (At(s, from), At(s, to));
                var (first, end) = (Index(Math.Min(x0, x1) - Plane.Touch, left), Index(Math.Max(x0, x1) + Plane.Touch, left));
                for (var column = first; column <= end; column++) surely[row * side + column]--;
                var middle = from + cell / 2;
                if (s.Y0 <= middle == s.Y1 <= middle) continue;
                // a piece that goes up has its area to the left of it
                var by = s.Y1 > s.Y0 ? 1 : -1;
                var until = (int)Math.Ceiling((At(s, middle) - left) / cell - 0.5);
                if (until > 0) changes[row * (side + 1) + Math.Min(until, side)] += by;
            }
        }

        Shape Outline()
        {
            var edges = new List<DirectedSegment>();
            bool Is(int row, int column) => row >= 0 && row < side && column >= 0 && column < side && surely[row * side + column] > 0;
            double X(int column) => left + column * cell;
            double Y(int row) => bottom + row * cell;
            for (var row = 0; row <= side; row++)
                for (int column = 0, end; column < side; column = end)
                {
                    var (above, below) = (Is(row, column), Is(row - 1, column));
                    for (end = column + 1; end < side && Is(row, end) == above && Is(row - 1, end) == below;) end++;
                    if (above && !below) edges.Add(new(X(column), Y(row), X(end), Y(row)));
                    if (below && !above) edges.Add(new(X(end), Y(row), X(column), Y(row)));
                }
            for (var column = 0; column <= side; column++)
                for (int row = 0, end; row < side; row = end)
                {
                    var (after, before) = (Is(row, column), Is(row, column - 1));
                    for (end = row + 1; end < side && Is(end, column) == after && Is(end, column - 1) == before;) end++;
                    if (after && !before) edges.Add(new(X(column), Y(end), X(column), Y(row)));
                    if (before && !after) edges.Add(new(X(column), Y(row), X(column), Y(end)));
                }
            return Winding.Resolve(edges, stop);
        }
    }

    /// <summary>Where a piece is at a height, at its ends beyond them.</summary>
    private static double At(in DirectedSegment s, double y) =>
        s.X0 + Math.Clamp((y - s.Y0) / (s.Y1 - s.Y0), 0, 1) * (s.X1 - s.X0);
}

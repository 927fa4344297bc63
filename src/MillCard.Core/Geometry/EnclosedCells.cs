namespace MillCard.Core.Geometry;

/// <summary>What a border surely encloses, in squares: quickly found however often it crosses itself.</summary>
/// <remarks>From one point to another the winding number changes by at most one for every piece of the border between them. A square whose
/// middle has a greater number than pieces pass through it is therefore covered whole, where all areas wind the same way.</remarks>
internal static class EnclosedCells
{
    /// <summary>Most squares along a side.</summary>
    private const int Finest = 384;

    private const int Coarsest = 64;

    /// <summary>So many rows of pieces are passed, if the squares need not be coarser than the coarsest for it.</summary>
    private const double MostRows = 8_000_000;

    /// <param name="border">Closed as a whole, areas to its left, none of them winding the other way.</param>
    /// <param name="stop">Ends the computation.</param>
    public static CertainCells Of(IReadOnlyList<DirectedSegment> border, CancellationToken stop)
    {
        var (left, bottom, right, top, heights) = (double.MaxValue, double.MaxValue, double.MinValue, double.MinValue, 0.0);
        foreach (var s in border)
        {
            heights += Math.Abs(s.Y1 - s.Y0);
            (left, right) = (Math.Min(left, Math.Min(s.X0, s.X1)), Math.Max(right, Math.Max(s.X0, s.X1)));
            (bottom, top) = (Math.Min(bottom, Math.Min(s.Y0, s.Y1)), Math.Max(top, Math.Max(s.Y0, s.Y1)));
        }
        // as fine as the pieces of the border are short
        var fine = Math.Min(Finest, MostRows * Math.Max(right - left, top - bottom) / heights);
        var side = (int)Math.Clamp(4 * Math.Sqrt(border.Count), Coarsest, Math.Max(fine, Coarsest));
        var raster = SquareRaster.Over(left, bottom, right, top, side);
        return new(raster, Array.ConvertAll(Numbers(border, raster, stop), number => number > 0));
    }

    /// <summary>The number at the middle of every square less the pieces that pass through it.</summary>
    private static int[] Numbers(IReadOnlyList<DirectedSegment> border, SquareRaster raster, CancellationToken stop)
    {
        var side = raster.Side;
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
        return surely;

        void Pass(DirectedSegment s)
        {
            var (low, high) = (Math.Min(s.Y0, s.Y1), Math.Max(s.Y0, s.Y1));
            for (int row = raster.Row(low - Plane.Touch), last = raster.Row(high + Plane.Touch); row <= last; row++)
            {
                var (from, to) = (raster.Y(row), raster.Y(row + 1));
                var (x0, x1) = s.Y0 == s.Y1 ? (s.X0, s.X1) : (s.At(from), s.At(to));
                var (first, end) = (raster.Column(Math.Min(x0, x1) - Plane.Touch), raster.Column(Math.Max(x0, x1) + Plane.Touch));
                for (var column = first; column <= end; column++) surely[row * side + column]--;
                var middle = from + raster.Size / 2;
                if (s.Y0 <= middle == s.Y1 <= middle) continue;
                // a piece that goes up has its area to the left of it
                var by = s.Y1 > s.Y0 ? 1 : -1;
                var until = (int)Math.Ceiling((s.At(middle) - raster.Left) / raster.Size - 0.5);
                if (until > 0) changes[row * (side + 1) + Math.Min(until, side)] += by;
            }
        }
    }
}

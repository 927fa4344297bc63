namespace MillCard.Core.Geometry;

/// <summary>The squares of a raster that lie whole in one triangle or another: on a heap, or a bar that is twisted many times, nearly all
/// that it covers.</summary>
internal static class FilledCells
{
    /// <summary>Squares along a side, least and most, and so many along a triangle of the middle size.</summary>
    private const int Coarsest = 256, Finest = 2048, Across = 8;

    /// <summary>So many rows of triangles are drawn; of more than that every so manieth triangle stands for the others.</summary>
    private const double MostRows = 15_000_000;

    /// <summary>Two steps of the raster on which borders are broken up, mm: nearer to an edge nothing is sure.</summary>
    private const double Margin = 2 * Node.Step;

    /// <summary>Very many triangles that lie on each other, so many everywhere.</summary>
    private const int Many = 10_000, Deep = 3;

    /// <summary>The squares; null where the triangles do not lie on each other: then there are cheaper ways.</summary>
    public static CertainCells? Of(IReadOnlyList<Triangle> triangles, CancellationToken stop)
    {
        if (triangles.Count < Many) return null;
        var (left, bottom, right, top) = (double.MaxValue, double.MaxValue, double.MinValue, double.MinValue);
        var (heights, area) = (0.0, 0.0);
        foreach (var t in triangles)
        {
            (left, right) = (Math.Min(left, t.MinX), Math.Max(right, t.MaxX));
            (bottom, top) = (Math.Min(bottom, t.MinY), Math.Max(top, t.MaxY));
            (heights, area) = (heights + t.MaxY - t.MinY, area + t.TwiceArea);
        }
        if (area / 2 < Deep * (right - left) * (top - bottom)) return null;
        var side = (int)Math.Clamp(Across * Math.Max(right - left, top - bottom) / Math.Sqrt(area / triangles.Count), Coarsest, Finest);
        var raster = SquareRaster.Over(left, bottom, right, top, side);
        var filled = new bool[side * side];
        // odd, so that where faces come in pairs both of a pair have their turn
        var every = 1 + 2 * (int)(heights / raster.Size / MostRows / 2 + 0.5);
        for (var i = 0; i < triangles.Count; i += every)
        {
            if (i % 4096 < every) stop.ThrowIfCancellationRequested();
            Fill(triangles[i], raster, filled);
        }
        return new(raster, filled);
    }

    /// <summary>Fills the squares that lie in a triangle with a margin all round: those whose lower and upper sides do.</summary>
    private static void Fill(in Triangle t, SquareRaster raster, bool[] filled)
    {
        var first = (int)Math.Ceiling((t.MinY + Margin - raster.Bottom) / raster.Size);
        var last = (int)Math.Floor((t.MaxY - Margin - raster.Bottom) / raster.Size);
        var banded = new Banded(t);
        for (var row = first; row < last; row++)
        {
            var (below, above) = (banded.Between(raster.Y(row) - Margin, raster.Y(row) - Margin),
                banded.Between(raster.Y(row + 1) + Margin, raster.Y(row + 1) + Margin));
            var from = (int)Math.Ceiling((Math.Max(below.Left, above.Left) + Margin - raster.Left) / raster.Size);
            var until = (int)Math.Floor((Math.Min(below.Right, above.Right) - Margin - raster.Left) / raster.Size);
            if (until > from) filled.AsSpan(row * raster.Side + from, until - from).Fill(true);
        }
    }
}

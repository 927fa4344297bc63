namespace MillCard.Core.Geometry;

/// <summary>Squares over a square of the bed, mm.</summary>
/// <param name="Left">X of its left side.</param>
/// <param name="Bottom">Y of its front side.</param>
/// <param name="Size">Side of a square of it.</param>
/// <param name="Side">Number of squares along each side.</param>
internal readonly record struct SquareRaster(double Left, double Bottom, double Size, int Side)
{
    /// <summary>The raster over a rectangle, of so many squares along its longer side.</summary>
    public static SquareRaster Over(double left, double bottom, double right, double top, int side) =>
        new(left, bottom, Math.Max(Math.Max(right - left, top - bottom) / side, Plane.Touch), side);

    /// <summary>The column of a place; the first or last for what lies beyond.</summary>
    public int Column(double x) => (int)Math.Clamp((x - Left) / Size, 0, Side - 1);

    /// <summary>The row of a place; the first or last for what lies beyond.</summary>
    public int Row(double y) => (int)Math.Clamp((y - Bottom) / Size, 0, Side - 1);

    /// <summary>The heights of a row; the first and the last reach as far as what lies beyond them does.</summary>
    public (double Bottom, double Top) Band(int row) =>
        (row == 0 ? double.MinValue : Y(row), row == Side - 1 ? double.MaxValue : Y(row + 1));

    /// <summary>X of a column's left side.</summary>
    public double X(int column) => Left + column * Size;

    /// <summary>Y of a row's front side.</summary>
    public double Y(int row) => Bottom + row * Size;
}

namespace MillCard.Core.Slicing.Sections;

/// <summary>The cross-section's outlines at one height, as they were traced.</summary>
/// <param name="Points">All points, contour after contour.</param>
/// <param name="Ends">Where each contour ends in <paramref name="Points"/> (exclusive).</param>
/// <param name="Unclosed">How many chains had a gap wider than is closed; they are left out.</param>
public sealed record Contours(Point[] Points, int[] Ends, int Unclosed)
{
    /// <summary>Number of contours.</summary>
    public int Count => Ends.Length;

    /// <summary>The points of one contour, not closed; the solid lies to the left.</summary>
    public ReadOnlySpan<Point> this[int contour] =>
        Points.AsSpan(contour == 0 ? 0 : Ends[contour - 1], Ends[contour] - (contour == 0 ? 0 : Ends[contour - 1]));

    /// <summary>Area within a contour, mm², positive counter-clockwise (shoelace formula).</summary>
    public double SignedArea(int contour) => SignedArea(this[contour]);

    internal static double SignedArea(ReadOnlySpan<Point> ring)
    {
        if (ring.Length < 3) return 0;
        var twice = 0.0;
        var previous = ring[^1];
        foreach (var point in ring)
        {
            twice += previous.X * point.Y - previous.Y * point.X;
            previous = point;
        }
        return twice / 2;
    }
}

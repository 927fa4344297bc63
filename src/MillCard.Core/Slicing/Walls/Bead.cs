using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Walls;

/// <summary>One point of the middle of a line.</summary>
/// <param name="At">mm.</param>
/// <param name="Width">Of the line there, mm.</param>
internal readonly record struct BeadPoint(Point At, double Width);

/// <summary>The middle of a line of varying width.</summary>
/// <param name="Points">At least two.</param>
/// <param name="Closed">Whether it runs back to its first point.</param>
internal sealed record Bead(IReadOnlyList<BeadPoint> Points, bool Closed)
{
    /// <summary>Straighter than this is straight, mm.</summary>
    private const double Straight = 0.006;

    /// <summary>Widths within this are the same, mm.</summary>
    private const double SameWidth = 0.004;

    /// <summary>As a path, without the points that change nothing.</summary>
    public ToolPath Path(PathKind kind)
    {
        var (points, widths) = (new Point[Points.Count], new double[Points.Count]);
        for (var i = 0; i < points.Length; i++) (points[i], widths[i]) = Points[i];
        var (least, most) = (widths.Min(), widths.Max());
        var path = new ToolPath(kind, points, Closed, (least + most) / 2);
        return (most - least <= SameWidth ? path : path with { Widths = widths }).Thinned(Straight);
    }

    /// <summary>Length of a middle that is not closed, mm.</summary>
    public static double LengthOf(IReadOnlyList<BeadPoint> points)
    {
        var sum = 0.0;
        for (var i = 1; i < points.Count; i++) sum += points[i - 1].At.To(points[i].At);
        return sum;
    }
}

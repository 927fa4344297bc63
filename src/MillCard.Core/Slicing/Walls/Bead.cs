using MillCard.Core.Geometry;
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
    /// <summary>Straighter than this is straight, mm; half of it counts for widths.</summary>
    private const double Straight = 0.006;

    /// <summary>Widths within this are the same, mm.</summary>
    private const double SameWidth = 0.004;

    /// <summary>As a path, without the points that change nothing.</summary>
    public ToolPath Path(PathKind kind)
    {
        var kept = Kept();
        var widths = Array.ConvertAll(kept, p => p.Width);
        var (least, most) = (widths.Min(), widths.Max());
        var path = new ToolPath(kind, Array.ConvertAll(kept, p => p.At), Closed, (least + most) / 2);
        return most - least <= SameWidth ? path : path with { Widths = widths };
    }

    private BeadPoint[] Kept()
    {
        BeadPoint[] all = Closed ? [.. Points, Points[0]] : [.. Points];
        var keep = Thinning.Kept(all.Length, Closed ? Thinning.Farthest(all.Length, i => all[i].At.To(all[0].At)) : null,
            (from, to, i) => Off(all[from], all[to], all[i]), Straight);
        var kept = all.Where((_, i) => keep[i]).ToArray();
        return Closed ? kept[..^1] : kept;
    }

    /// <summary>How far a point lies off the straight way between two others, mm; half of what its width is off counts as well.</summary>
    private static double Off(BeadPoint a, BeadPoint b, BeadPoint p)
    {
        var (dx, dy) = (b.At.X - a.At.X, b.At.Y - a.At.Y);
        var square = dx * dx + dy * dy;
        var t = square > 0 ? Math.Clamp(((p.At.X - a.At.X) * dx + (p.At.Y - a.At.Y) * dy) / square, 0, 1) : 0;
        var (x, y) = (a.At.X + t * dx - p.At.X, a.At.Y + t * dy - p.At.Y);
        return Math.Max(Math.Sqrt(x * x + y * y), Math.Abs(a.Width + t * (b.Width - a.Width) - p.Width) / 2);
    }
}

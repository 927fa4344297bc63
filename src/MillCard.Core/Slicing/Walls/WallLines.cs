using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Lines along the contour, from the outside in.</summary>
/// <param name="Middles">The areas bounded by each wall's middle.</param>
/// <param name="Inside">The area in which the middles of fill lines may lie.</param>
/// <param name="Thin">Places of the contour where one line has to do, between its edges.</param>
/// <param name="Gaps">What is left free between walls, and between walls and fill.</param>
internal sealed record WallLines(IReadOnlyList<Shape> Middles, Shape Inside, Shape Thin, Shape Gaps)
{
    private const int Chords = 6;

    /// <summary>How far fill laps onto the innermost wall, as a share of half a line: rows that end at half a line from the wall, joined on
    /// one side each, hold too little along the border. Found by the volumes of the demo parts at full infill.</summary>
    private const double Lap = 0.3;

    /// <summary>Areas smaller than this are no place for a line, mm².</summary>
    private const double LeastArea = 0.1;

    /// <summary>Walls of one layer; the outer edge of the first lies on the contour.</summary>
    /// <param name="region">The cross-section.</param>
    /// <param name="count">Number of walls.</param>
    /// <param name="outer">Width of the outer wall, mm.</param>
    /// <param name="inner">Width of the others, mm.</param>
    /// <param name="height">Of the layer, mm.</param>
    /// <param name="fillThin">Whether thin places are left to single lines.</param>
    public static WallLines Of(Shape region, int count, double outer, double inner, double height, bool fillThin)
    {
        var (middles, thin, gaps) = (new List<Shape>(count), Plane.Empty, new List<Shape>());
        var half = Flow.ExtrudedLine.Spacing(inner, height) / 2;
        var edge = new Lazy<Shape>(region);
        Inset? ahead = null;
        for (var i = 0; i < count; i++)
        {
            var spacing = Flow.ExtrudedLine.Spacing(i == 0 ? outer : inner, height);
            // the outer edge of the outermost line is the contour itself; neighbours overlap by their round sides
            var outside = i == 0 ? outer / 2 : half;
            var (middle, keeps) = ahead ?? Inset.Of(edge.Value, outside, Chords);
            // where nothing is lost on the way, what comes next follows straight from this line's middle
            ahead = Inset.WithoutLoss(middle, spacing / 2 + (i + 1 < count ? half : (1 - Lap) * half), Chords);
            var next = ahead is null ? Inset.Of(middle, spacing / 2, Chords) : null;
            if (fillThin)
            {
                if (next is { KeepsForm: false } && WithoutThin(middle, spacing) is var wide && !ReferenceEquals(wide, middle))
                    (middle, keeps, next) = (wide, false, Inset.Of(wide, spacing / 2, Chords));
                var left = keeps ? Plane.Empty : Left(edge.Value, middle, outside);
                if (i == 0) thin = left; else if (!left.IsEmpty) gaps.Add(left);
            }
            var line = middle;
            edge = next is null ? new Lazy<Shape>(() => Inset.Of(line, spacing / 2, Chords).Area) : new Lazy<Shape>(next.Area);
            if (middle.IsEmpty) break;
            middles.Add(middle);
            if (next is { Area.IsEmpty: true }) break;
        }
        if (count == 0) return new WallLines(middles, Inset.Of(region, inner / 2, Chords).Area, thin, Plane.Empty);
        if (middles.Count == count && ahead is not null) return new WallLines(middles, ahead.Area, thin, Plane.Union(gaps));
        var (inside, whole) = Inset.Of(edge.Value, (1 - Lap) * half, Chords);
        if (fillThin && !whole && Left(edge.Value, Inset.Of(edge.Value, half, Chords).Area, half) is { IsEmpty: false } rest)
            gaps.Add(rest);
        return new WallLines(middles, inside, thin, Plane.Union(gaps));
    }

    /// <summary>A wall's middles without the places where its two sides would lie nearer to each other than a line is wide.</summary>
    private static Shape WithoutThin(Shape middle, double spacing)
    {
        if (middle.IsEmpty) return middle;
        var radius = 0.45 * spacing;
        var wide = Plane.Opened(middle, radius, Chords);
        if (middle.Area - wide.Area < LeastArea) return wide.IsEmpty ? wide : middle;
        // the opening rounds corners as well; only what reaches away from it is thin
        var thin = Plane.Polygons(Plane.Difference(middle, Plane.Offset(wide, radius, Chords))).Where(p => p.Area > LeastArea / 4)
            .ToArray();
        return thin.Length == 0 ? middle : Plane.Difference(middle, Plane.Union([.. thin.Select(t => Plane.Offset(t, 0.1 * radius, 2))]));
    }

    private static Shape Left(Shape edge, Shape middle, double half)
    {
        // a touch more than it was shrunk by: edges that coincide are slow to overlay
        var left = Plane.Difference(edge, Plane.Offset(middle, half + Plane.Touch, Chords));
        if (left.Area < LeastArea) return Plane.Empty;
        var narrowest = 0.4 * half;
        return Plane.Factory.BuildGeometry([.. Plane.Polygons(Plane.Opened(left, narrowest, Chords)).Where(p => p.Area > LeastArea)]);
    }

    /// <summary>The rings of one wall as paths.</summary>
    public static IEnumerable<ToolPath> Rings(Shape middle, PathKind kind, double width) => Plane.Rings(middle)
        .Select(ring => Ring(ring, kind, width));

    /// <summary>A ring as a path.</summary>
    public static ToolPath Ring(LineString ring, PathKind kind, double width)
    {
        var c = ring.Coordinates;
        var points = new Point[c.Length - 1];
        for (var i = 0; i < points.Length; i++) points[i] = new Point(c[i].X, c[i].Y);
        return new ToolPath(kind, points, Closed: true, width);
    }
}

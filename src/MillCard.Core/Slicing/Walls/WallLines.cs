using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>How walls are to be laid on a layer.</summary>
/// <param name="Count">On each side.</param>
/// <param name="Outer">Width of the outer wall, mm.</param>
/// <param name="Inner">Width of the others, mm.</param>
/// <param name="Height">Of the layer, mm.</param>
/// <param name="Between">Lines that may lie between the walls of both sides in place of fill.</param>
/// <param name="Least">Least width of a line, mm.</param>
/// <param name="Most">Greatest width of a line, mm.</param>
/// <param name="Varying">Whether lines follow the thickness; without it all are as wide as usual, and narrow places stay free.</param>
internal sealed record WallPlan(int Count, double Outer, double Inner, double Height, int Between, double Least, double Most, bool Varying);

/// <summary>Lines along the contour, from the outside in.</summary>
/// <param name="Walls">The lines of each wall, the outermost first.</param>
/// <param name="Thin">Single lines in the middle of thin places, and lines between the walls of both sides.</param>
/// <param name="Inside">The area in which the middles of fill lines may lie.</param>
/// <param name="Missing">Places that no line fits into.</param>
internal sealed record WallLines(IReadOnlyList<IReadOnlyList<ToolPath>> Walls, IReadOnlyList<ToolPath> Thin, Shape Inside,
    IReadOnlyList<TooThin> Missing)
{
    /// <summary>Whether there may be holes between them.</summary>
    public bool MayLeaveHoles { get; private init; }

    private const int Chords = 6;

    /// <summary>How far fill laps onto the innermost wall, as a share of half a line: rows that end at half a line from the wall, joined on
    /// one side each, hold too little along the border. Found by the volumes of the demo parts at full infill.</summary>
    public const double Lap = 0.3;

    /// <summary>Areas smaller than this are no place for a line, mm².</summary>
    private const double LeastArea = 0.02;

    /// <summary>Walls of one layer; the outer edge of the first lies on the contour.</summary>
    /// <param name="region">The cross-section.</param>
    /// <param name="plan">How they are to be laid.</param>
    public static WallLines Of(Shape region, WallPlan plan)
    {
        if (plan.Count == 0) return new([], [], Inset.Of(region, plan.Inner / 2, Chords), []);
        var laid = Plane.Polygons(region).Select(polygon => Even(polygon, plan) ?? Varying(polygon, plan)).ToArray();
        if (laid.Length == 1) return laid[0];
        return new(
            [.. Enumerable.Range(0, plan.Count).Select(wall => (IReadOnlyList<ToolPath>)[.. laid.Where(l => l.Walls.Count > wall)
                .SelectMany(l => l.Walls[wall])])],
            [.. laid.SelectMany(l => l.Thin)], Plane.Factory.BuildGeometry([.. laid.SelectMany(l => Plane.Polygons(l.Inside))]),
            [.. laid.SelectMany(l => l.Missing)])
        { MayLeaveHoles = Array.Exists(laid, l => l.MayLeaveHoles) };
    }

    private static PathKind KindOf(int wall) => wall == 0 ? PathKind.OuterWall : PathKind.InnerWall;

    /// <summary>Lines of the usual widths all round; null where their number or width is to vary: a line would be lost on the way, or
    /// hardly more than one has room between the innermost.</summary>
    private static WallLines? Even(Polygon polygon, WallPlan plan)
    {
        var sharpest = plan.Varying ? Ribs.Sharpest(polygon) : 1;
        if (Ribs.IsTip(sharpest)) return null;
        var half = ExtrudedLine.Spacing(plan.Inner, plan.Height) / 2;
        var (walls, area, step) = (new List<IReadOnlyList<ToolPath>>(), (Shape)polygon, plan.Outer / 2);
        for (var wall = 0; wall < plan.Count; wall++)
        {
            if (Next(step) is not { } middle) return null;
            area = middle;
            var width = wall == 0 ? plan.Outer : plan.Inner;
            walls.Add([.. Rings(area, KindOf(wall), width)]);
            step = ExtrudedLine.Spacing(width, plan.Height) / 2 + (wall + 1 < plan.Count ? half : (1 - Lap) * half);
        }
        if (Next(step) is not { } inside) return null;
        if (plan.Varying && Inset.WithoutLoss(inside, (plan.Between + 1.5 - (1 - Lap)) * half, Chords) is null) return null;
        return new(walls, [], inside, []) { MayLeaveHoles = Ribs.IsPoint(sharpest) };

        Shape? Next(double by) => plan.Varying ? Inset.WithoutLoss(area, by, Chords) : Inset.Of(area, by, Chords);
    }

    private static WallLines Varying(Polygon polygon, WallPlan plan)
    {
        var beading = new Beading(plan.Count, plan.Outer, plan.Inner, plan.Height, plan.Between, plan.Least, plan.Most);
        var outline = new Outline(polygon, beading);
        var walls = new List<IReadOnlyList<ToolPath>>();
        for (var i = 0; i < plan.Count; i++) walls.Add([.. RingBeads.Of(outline, i).Select(bead => bead.Path(KindOf(i)))]);
        // lines along the walls that stand for fill
        var between = Enumerable.Range(plan.Count, beading.Most / 2 - plan.Count).SelectMany(i => RingBeads.Of(outline, i))
            .Select(bead => bead.Path(PathKind.Solid));
        List<ToolPath> thin = [.. between, .. MiddleBeads.Of(outline).Select(bead => bead.Path(PathKind.Thin))];
        thin.AddRange(Dots.Of(polygon, outline, [.. walls.SelectMany(w => w), .. thin], plan));
        var half = ExtrudedLine.Spacing(plan.Inner, plan.Height) / 2;
        var step = ExtrudedLine.Spacing(plan.Count == 1 ? plan.Outer : plan.Inner, plan.Height) / 2 + (1 - Lap) * half;
        var inside = Left(walls, outline, step);
        var lie = inside.IsEmpty ? [] : walls.SelectMany(wall => wall).Where(path => !path.Closed).Concat(thin);
        foreach (var path in lie) inside = Plane.Difference(inside, Beside(path, plan.Height, (1 - Lap) * half));
        var places = Plane.Factory.BuildGeometry([.. Plane.Polygons(inside).Where(p => p.Area > LeastArea)]);
        return new(walls, thin, places, MiddleBeads.Missing(outline)) { MayLeaveHoles = true };
    }

    /// <summary>What the last walls enclose, and what others do beside the next where there is more room than lines lie across.</summary>
    /// <param name="walls">The lines of each wall.</param>
    /// <param name="outline">That they follow.</param>
    /// <param name="step">From the middle of a wall to that of what is laid beside it, mm.</param>
    private static Shape Left(List<IReadOnlyList<ToolPath>> walls, Outline outline, double step)
    {
        var left = Inset.Of(Within(walls[^1]), step, Chords);
        for (var i = 0; i + 1 < walls.Count; i++)
        {
            if (!outline.HasRoomWithin(i, step)) continue;
            var next = Plane.Offset(Within(walls[i + 1]), step, Chords);
            left = Plane.Union(left, Plane.Difference(Inset.Of(Within(walls[i]), step, Chords), next));
        }
        return left;
    }

    /// <summary>What closed lines enclose.</summary>
    private static Shape Within(IReadOnlyList<ToolPath> lines)
    {
        ToolPath[] rings = [.. lines.Where(line => line.Closed)];
        var (ends, end) = (new int[rings.Length], 0);
        for (var i = 0; i < rings.Length; i++) ends[i] = end += rings[i].Points.Length;
        return Regions.Of(new Contours([.. rings.SelectMany(ring => ring.Points)], ends, Unclosed: 0));
    }

    /// <summary>What lies within a distance of the room that a line takes.</summary>
    private static Shape Beside(ToolPath path, double height, double distance)
    {
        var way = Corners(path);
        // of a closed line that is narrower than the distance a hole would be left
        var half = path.Closed ? way.Length / 2 : way.Length - 1;
        var lines = new[] { way[..(half + 1)], way[half..] }.Where(line => line.Length > 1).Select(Plane.Factory.CreateLineString);
        return Plane.Offset(Plane.Factory.CreateMultiLineString([.. lines]), ExtrudedLine.Spacing(path.Widest, height) / 2 + distance,
            Chords);
    }

    /// <summary>All corners that a line goes through: of a closed one the first again at the end.</summary>
    public static Coordinate[] Corners(ToolPath path) => Array.ConvertAll(path.Way, p => new Coordinate(p.X, p.Y));

    /// <summary>The rings of one wall as paths, the solid to the left of the way.</summary>
    public static IEnumerable<ToolPath> Rings(Shape middle, PathKind kind, double width) => Plane.Polygons(middle).SelectMany(polygon =>
        polygon.InteriorRings.Select(hole => Ring(hole, kind, width, Orientation.IsCCWArea(hole.Coordinates)))
            .Prepend(Ring(polygon.ExteriorRing, kind, width, !Orientation.IsCCWArea(polygon.ExteriorRing.Coordinates))));

    /// <summary>A ring as a path.</summary>
    public static ToolPath Ring(LineString ring, PathKind kind, double width, bool backwards = false)
    {
        var c = ring.Coordinates;
        var points = new Point[c.Length - 1];
        for (var i = 0; i < points.Length; i++) points[backwards ? points.Length - 1 - i : i] = new Point(c[i].X, c[i].Y);
        return new ToolPath(kind, points, Closed: true, width);
    }
}

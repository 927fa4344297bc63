using MillCard.Core.Documents;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>Which side a polygon that stands for a curve errs to.</summary>
public enum Side
{
    /// <summary>Never outside the curve: beds and reach.</summary>
    Inside,
    /// <summary>Never inside the curve: keep-outs, bodies and margins.</summary>
    Outside,
}

/// <summary>Polygons from the outlines of documents.</summary>
public static class Shapes
{
    private const double CurveError = 0.01;
    private const double Farthest = 4000;

    /// <summary>Sides of the polygon that stands for a circle with an error of at most 0.01 mm: n ≥ π / acos(1 − 0.01/r).</summary>
    /// <param name="radius">mm, the larger half axis of an ellipse.</param>
    public static int Segments(double radius) =>
        radius <= CurveError ? 8 : Math.Max(16, (int)Math.Ceiling(Math.PI / Math.Acos(1 - CurveError / radius)));

    /// <summary>The bed in the bed frame, curves inscribed. Needs its sizes.</summary>
    /// <exception cref="OutlineException">The outline crosses itself.</exception>
    public static Polygon Of(Bed bed) => bed switch
    {
        RectangleBed r => Rectangle(0, 0, r.Width!.Value, r.Depth!.Value),
        EllipseBed e => Ellipse(e.Width!.Value / 2, e.Depth!.Value / 2, e.Width.Value / 2, e.Depth.Value / 2, Side.Inside),
        PolygonBed p => ToFrame(Simple(p.Points)),
        _ => throw new ArgumentOutOfRangeException(nameof(bed)),
    };

    /// <summary>An outline, curves drawn to the given side.</summary>
    /// <exception cref="OutlineException">The outline crosses itself.</exception>
    public static Polygon Of(Outline outline, Side side) => outline switch
    {
        RectangleOutline r => Rectangle(r.X, r.Y, r.Width, r.Depth),
        CircleOutline c => Ellipse(c.X, c.Y, c.Radius, c.Radius, side),
        EllipseOutline e => Ellipse(e.X + e.Width / 2, e.Y + e.Depth / 2, e.Width / 2, e.Depth / 2, side),
        PolygonOutline p => Simple(p.Points),
        _ => throw new ArgumentOutOfRangeException(nameof(outline)),
    };

    /// <summary>A rectangle from its front-left corner.</summary>
    public static Polygon Rectangle(double x, double y, double width, double depth) => Plane.Factory.CreatePolygon(
        [new(x, y), new(x + width, y), new(x + width, y + depth), new(x, y + depth), new(x, y)]);

    /// <summary>A polygon that stands for an ellipse, counter-clockwise.</summary>
    /// <param name="x">Centre.</param>
    /// <param name="y">Centre.</param>
    /// <param name="a">Half axis along X.</param>
    /// <param name="b">Half axis along Y.</param>
    /// <param name="side">Inscribed or circumscribed.</param>
    public static Polygon Ellipse(double x, double y, double a, double b, Side side)
    {
        var n = Segments(Math.Max(a, b));
        var grow = side == Side.Outside ? 1 / Math.Cos(Math.PI / n) : 1;
        var ring = new Coordinate[n + 1];
        for (var i = 0; i < n; i++)
        {
            var (sin, cos) = Math.SinCos(2 * Math.PI * i / n);
            ring[i] = new Coordinate(x + a * grow * cos, y + b * grow * sin);
        }
        ring[n] = ring[0].Copy();
        return Plane.Factory.CreatePolygon(ring);
    }

    private static Polygon Simple(IReadOnlyList<IReadOnlyList<double>> points)
    {
        if (points.Any(p => p.Count != 2 || p.Any(v => !(Math.Abs(v) <= Farthest))))
            throw new OutlineException($"A corner is two numbers, none beyond {Farthest:0} mm.");
        var ring = points.Select(p => new Coordinate(p[0], p[1])).ToList();
        if (ring.Count > 0 && !ring[0].Equals2D(ring[^1])) ring.Add(ring[0].Copy());
        if (ring.Count < 4) throw new OutlineException("An outline needs at least three different corners.");
        var polygon = Plane.Factory.CreatePolygon([.. ring]);
        if (!polygon.IsValid || !(polygon.Area > 0)) throw new OutlineException("The outline crosses itself or has no area.");
        return polygon;
    }

    private static Polygon ToFrame(Polygon polygon)
    {
        var box = polygon.EnvelopeInternal;
        return (Polygon)Plane.Moved(polygon, -box.MinX, -box.MinY);
    }

    /// <summary>The convex hull; empty where the shape has no area.</summary>
    public static Shape Hull(Shape shape) => shape.ConvexHull() is Polygon hull ? hull : Plane.Empty;
}

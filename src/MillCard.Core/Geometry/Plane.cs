using NetTopologySuite;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Implementation;
using NetTopologySuite.Operation.Buffer;
using NetTopologySuite.Operation.Overlay;
using NetTopologySuite.Operation.OverlayNG;

namespace MillCard.Core.Geometry;

/// <summary>The geometry factory and set operations that everything in the plane uses, in mm.</summary>
/// <remarks>The next-generation overlay, floating precision; results are areas only.</remarks>
public static class Plane
{
    /// <summary>Lengths up to this count as touching, mm.</summary>
    public const double Touch = 0.001;

    /// <summary>Factory of all geometries.</summary>
    public static GeometryFactory Factory { get; } = new NtsGeometryServices(
        CoordinateArraySequenceFactory.Instance, new PrecisionModel(), 0, GeometryOverlay.NG, new CoordinateEqualityComparer())
            .CreateGeometryFactory();

    /// <summary>Nothing.</summary>
    public static Shape Empty { get; } = Factory.CreatePolygon();

    /// <summary>What either covers.</summary>
    public static Shape Union(Shape a, Shape b)
    {
        if (a.IsEmpty || b.IsEmpty) return a.IsEmpty ? b : a;
        return Areas(OverlayNGRobust.Overlay(a, b, SpatialFunction.Union));
    }

    /// <summary>What any covers.</summary>
    public static Shape Union(IReadOnlyCollection<Shape> all) => all.Count switch
    {
        0 => Empty,
        1 => all.First(),
        _ => Areas(OverlayNGRobust.Union(all)),
    };

    /// <summary>What both cover.</summary>
    public static Shape Intersection(Shape a, Shape b)
    {
        if (a.IsEmpty || b.IsEmpty || !a.EnvelopeInternal.Intersects(b.EnvelopeInternal)) return Empty;
        if (Nesting.LiesClearlyWithin(a, b)) return a;
        return Nesting.LiesClearlyWithin(b, a) ? b : Areas(OverlayNGRobust.Overlay(a, b, SpatialFunction.Intersection));
    }

    /// <summary>What the first covers and the second does not.</summary>
    public static Shape Difference(Shape a, Shape b)
    {
        if (a.IsEmpty || b.IsEmpty || !a.EnvelopeInternal.Intersects(b.EnvelopeInternal)) return a;
        return Nesting.LiesClearlyWithin(a, b) ? Empty : Areas(OverlayNGRobust.Overlay(a, b, SpatialFunction.Difference));
    }

    /// <summary>Grown (or, where negative, shrunk) by a distance, corners rounded.</summary>
    /// <param name="shape">Valid areas.</param>
    /// <param name="distance">mm.</param>
    /// <param name="quadrantSegments">Chords a quarter turn.</param>
    public static Shape Offset(Shape shape, double distance, int quadrantSegments = 8) =>
        distance == 0 || shape.IsEmpty ? shape : BufferOp.Buffer(shape, distance, new BufferParameters(quadrantSegments));

    /// <summary>Shrunk and grown again: what is narrower than twice the radius goes, corners are rounded.</summary>
    /// <param name="shape">Valid areas.</param>
    /// <param name="radius">mm.</param>
    /// <param name="quadrantSegments">Chords a quarter turn.</param>
    public static Shape Opened(Shape shape, double radius, int quadrantSegments = 8) =>
        Offset(Offset(shape, -radius, quadrantSegments), radius, quadrantSegments);

    /// <summary>Grown by a disc, on the safe side: never less than the true sum, at most 0.01 mm more.</summary>
    public static Shape GrowOutside(Shape shape, double radius)
    {
        if (radius <= 0) return Offset(shape, radius);
        var segments = 4 * ((Shapes.Segments(radius) + 3) / 4);
        return Offset(shape, radius / Math.Cos(Math.PI / segments), segments / 4);
    }

    /// <summary>Outlines of more than 64 corners with fewer of them, on the safe side: never less than the area, at most 0.01 mm beyond it.
    /// Convex ones stay as they are.</summary>
    public static Shape PlainOutside(Shape shape) =>
        Factory.BuildGeometry([.. Polygons(shape).SelectMany(polygon => Polygons(Plain(polygon)))]);

    private static Shape Plain(Polygon polygon)
    {
        if (polygon.NumPoints <= ManyCorners || MinkowskiSum.IsConvex(polygon)) return polygon;
        var plain = BufferOp.Buffer(NetTopologySuite.Simplify.TopologyPreservingSimplifier.Simplify(polygon, PlainWithin), PlainWithin,
            new BufferParameters(1, EndCapStyle.Flat, JoinStyle.Mitre, 2));
        return plain.NumPoints < polygon.NumPoints ? plain : polygon;
    }

    private const int ManyCorners = 64;
    private const double PlainWithin = 0.005;

    /// <summary>The areas without holes and splinters too narrow for anything: what rounding leaves between and beside pieces that
    /// meet.</summary>
    public static Shape WithoutSlits(Shape shape)
    {
        var polygons = Polygons(shape).ToArray();
        return polygons.All(p => !IsSlit(p.ExteriorRing) && !p.InteriorRings.Any(IsSlit)) ? shape : Factory.BuildGeometry(
            [.. polygons.Where(p => !IsSlit(p.ExteriorRing))
                .Select(p => Factory.CreatePolygon((LinearRing)p.ExteriorRing,
                [.. p.InteriorRings.Where(r => !IsSlit(r)).Cast<LinearRing>()]))]);
    }

    private static bool IsSlit(LineString ring) => 2 * NetTopologySuite.Algorithm.Area.OfRing(ring.Coordinates) < Touch / 2 * ring.Length;

    /// <summary>The polygons in a geometry, one by one.</summary>
    public static IEnumerable<Polygon> Polygons(Shape shape)
    {
        for (var i = 0; i < shape.NumGeometries; i++)
        {
            switch (shape.GetGeometryN(i))
            {
                case Polygon { IsEmpty: false } polygon: yield return polygon; break;
                case GeometryCollection { IsEmpty: false } nested when shape.NumGeometries > 1 || nested != shape:
                    foreach (var inner in Polygons(nested)) yield return inner;
                    break;
            }
        }
    }

    /// <summary>The outlines of all polygons, each with its holes after it.</summary>
    public static IEnumerable<LineString> Rings(Shape shape) => Polygons(shape).SelectMany(p => p.InteriorRings.Prepend(p.ExteriorRing));

    /// <summary>The same, each turned so that its area lies to the left; its last corner is its first.</summary>
    public static IEnumerable<Coordinate[]> DirectedRings(Shape shape)
    {
        foreach (var polygon in Polygons(shape))
            foreach (var ring in polygon.InteriorRings.Prepend(polygon.ExteriorRing))
            {
                var corners = ring.Coordinates;
                var turned = NetTopologySuite.Algorithm.Orientation.IsCCWArea(corners) != ReferenceEquals(ring, polygon.ExteriorRing);
                yield return turned ? [.. corners.Reverse()] : corners;
            }
    }

    /// <summary>The outlines piece by piece, the area to the left of each.</summary>
    public static IEnumerable<DirectedSegment> Border(Shape shape) =>
        from corners in DirectedRings(shape)
        from i in Enumerable.Range(1, corners.Length - 1)
        select new DirectedSegment(corners[i - 1].X, corners[i - 1].Y, corners[i].X, corners[i].Y);

    /// <summary>Moved by (x, y).</summary>
    public static Shape Moved(Shape shape, double x, double y) =>
        x == 0 && y == 0 ? shape : NetTopologySuite.Geometries.Utilities.AffineTransformation.TranslationInstance(x, y).Transform(shape);

    private static Shape Areas(Shape shape)
    {
        if (shape is GeometryCollection and not MultiPolygon) return Factory.BuildGeometry([.. Polygons(shape)]);
        return shape.Dimension == Dimension.Surface ? shape : Empty;
    }
}

using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>Tells areas that lie well within others, which is most of them from layer to layer, at a small part of an overlay's
/// cost.</summary>
public static class Nesting
{
    /// <summary>Whether an area lies within another and their edges nowhere meet. Where they meet, the answer is no, whatever lies inside
    /// what.</summary>
    /// <param name="inner">Valid areas, not empty.</param>
    /// <param name="outer">Valid areas, not empty.</param>
    public static bool LiesClearlyWithin(Shape inner, Shape outer) =>
        outer.EnvelopeInternal.Contains(inner.EnvelopeInternal)
        && Plane.Polygons(inner).All(p => Holds(outer, p.ExteriorRing))
        && !Plane.Rings(outer).Any(ring => Holds(inner, ring))
        && !EdgesMeet(outer, inner);

    /// <summary>Whether two areas have anything in common.</summary>
    /// <param name="a">Valid areas, not empty.</param>
    /// <param name="b">Valid areas, not empty.</param>
    public static bool Meet(Shape a, Shape b) =>
        a.EnvelopeInternal.Intersects(b.EnvelopeInternal)
        && (Plane.Polygons(a).Any(p => Holds(b, p.ExteriorRing)) || Plane.Polygons(b).Any(p => Holds(a, p.ExteriorRing))
            || EdgesMeet(a, b));

    private static bool EdgesMeet(Shape a, Shape b)
    {
        using var edges = new Edges(a);
        return edges.AreMet(b);
    }

    private static bool Holds(Shape areas, LineString ring)
    {
        var first = ring.GetCoordinateN(0);
        return Plane.Polygons(areas).Any(p => PointLocation.IsInRing(first, p.ExteriorRing.Coordinates)
            && !p.InteriorRings.Any(hole => PointLocation.IsInRing(first, hole.Coordinates)));
    }
}

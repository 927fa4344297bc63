using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>Tells areas that lie well within others, which is most of them from layer to layer, at a small part of an overlay's
/// cost.</summary>
public static class Nesting
{
    /// <summary>Whether an area lies within another, and their edges nowhere meet but along outlines that both have, such as those of a
    /// bore in a cone. Where they meet elsewhere, the answer is no, whatever lies inside what.</summary>
    /// <param name="inner">Valid areas, not empty.</param>
    /// <param name="outer">Valid areas, not empty.</param>
    public static bool LiesClearlyWithin(Shape inner, Shape outer)
    {
        if (!outer.EnvelopeInternal.Contains(inner.EnvelopeInternal)) return false;
        var (own, others) = (Outlines(inner), Outlines(outer));
        (own, others) = (Without(own, others), Without(others, own));
        return own.TrueForAll(o => o.IsHole || PlaceOf(o.Ring, outer) == Location.Interior)
            && others.TrueForAll(o => PlaceOf(o.Ring, inner) == Location.Exterior)
            && (own.Count == 0 || others.Count == 0 || !EdgesMeet([.. others.Select(o => o.Ring)], own.Select(o => o.Ring)));
    }

    /// <summary>Whether an area lies within another, and their edges nowhere meet; for an area that is held against many.</summary>
    /// <param name="inner">Valid areas, not empty.</param>
    /// <param name="edges">Their edges.</param>
    /// <param name="outer">Valid areas.</param>
    public static bool LiesClearlyWithin(Shape inner, Edges edges, Shape outer) =>
        outer.EnvelopeInternal.Contains(inner.EnvelopeInternal)
        && !Plane.Rings(outer).Any(ring => edges.Hold(ring.Coordinate.X, ring.Coordinate.Y))
        && !edges.AreMet(outer)
        && Plane.Polygons(inner).All(polygon => PlaceOf(polygon.ExteriorRing, outer) == Location.Interior);

    private readonly record struct Outline(LineString Ring, bool IsHole);

    private static List<Outline> Outlines(Shape areas) => [.. Plane.Polygons(areas).SelectMany(p =>
        p.InteriorRings.Select(hole => new Outline(hole, IsHole: true)).Prepend(new(p.ExteriorRing, IsHole: false)))];

    /// <summary>Where the first point of an outline lies, which may touch another there.</summary>
    private static Location PlaceOf(LineString ring, Shape areas) => SimplePointInAreaLocator.Locate(ring.GetCoordinateN(0), areas);

    /// <summary>The outlines that others are not exactly alike.</summary>
    private static List<Outline> Without(List<Outline> outlines, List<Outline> others)
    {
        var alike = others.ToLookup(Key);
        return [.. outlines.Where(o => !alike[Key(o)].Any(other => other.Ring.EqualsExact(o.Ring)))];

        static (bool, int, double, double) Key(Outline o) =>
            (o.IsHole, o.Ring.NumPoints, o.Ring.GetCoordinateN(0).X, o.Ring.GetCoordinateN(0).Y);
    }

    /// <summary>Whether two areas have anything in common.</summary>
    /// <param name="a">Valid areas, not empty.</param>
    /// <param name="b">Valid areas, not empty.</param>
    public static bool Meet(Shape a, Shape b) =>
        a.EnvelopeInternal.Intersects(b.EnvelopeInternal)
        && (Plane.Polygons(a).Any(p => PlaceOf(p.ExteriorRing, b) != Location.Exterior)
            || Plane.Polygons(b).Any(p => PlaceOf(p.ExteriorRing, a) != Location.Exterior)
            || EdgesMeet([.. Plane.Rings(a)], Plane.Rings(b)));

    private static bool EdgesMeet(IReadOnlyCollection<LineString> a, IEnumerable<LineString> b)
    {
        using var edges = new Edges(a);
        return edges.AreMet(b);
    }
}

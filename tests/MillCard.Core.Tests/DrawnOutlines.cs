using CsCheck;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Tests;

/// <summary>Outlines about zero for tests of geometry.</summary>
internal static class DrawnOutlines
{
    /// <summary>A star-shaped outline: simple, mostly not convex; corners at even angles.</summary>
    public static Polygon Star(double[] radii) => Plane.Factory.CreatePolygon(StarRing(radii));

    /// <summary>Its corners, closed.</summary>
    public static Coordinate[] StarRing(double[] radii, double x = 0, double y = 0) =>
        [.. radii.Append(radii[0]).Select((r, i) => new Coordinate(x + r * Math.Cos(2 * Math.PI * (i % radii.Length) / radii.Length),
            y + r * Math.Sin(2 * Math.PI * (i % radii.Length) / radii.Length)))];

    /// <summary>A triangle.</summary>
    public static Polygon Of(Geometry.Triangle t) =>
        Plane.Factory.CreatePolygon([new(t.X0, t.Y0), new(t.X1, t.Y1), new(t.X2, t.Y2), new(t.X0, t.Y0)]);

    /// <summary>The hulls of so many points within a square.</summary>
    public static Gen<Polygon> Convex(double within, int fewest, int most) =>
        from points in Gen.Select(Gen.Double[-within, within], Gen.Double[-within, within]).Array[fewest, most]
        let hull = Shapes.Hull(Plane.Factory.CreateMultiPointFromCoords([.. points.Select(p => new Coordinate(p.Item1, p.Item2))]))
        where hull.Area > 1
        select (Polygon)hull;
}

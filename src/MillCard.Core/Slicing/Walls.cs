using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing;

/// <summary>Lines along the contour, from the outside in.</summary>
public sealed record Walls(IReadOnlyList<Shape> Middles, Shape Inside)
{
    /// <summary>Walls of one layer; the outer edge of the first lies on the contour.</summary>
    /// <param name="region">The cross-section.</param>
    /// <param name="count">Number of walls.</param>
    /// <param name="width">Line width, mm.</param>
    /// <param name="spacing">Distance of neighbouring middles, mm.</param>
    /// <returns>The areas bounded by each wall's middle, and the area in which the middles of fill lines may lie.</returns>
    public static Walls Of(Shape region, int count, double width, double spacing)
    {
        var middles = new List<Shape>(count);
        var area = Plane.Offset(region, -width / 2, 6);
        for (var i = 0; i < count && !area.IsEmpty; i++)
        {
            middles.Add(area);
            area = Plane.Offset(area, -spacing, 6);
        }
        return new Walls(middles, area);
    }

    /// <summary>The rings of one wall as paths.</summary>
    public static IEnumerable<ToolPath> Rings(Shape middle, PathKind kind, double width)
    {
        foreach (var polygon in Plane.Polygons(middle))
        {
            yield return Ring(polygon.ExteriorRing, kind, width);
            foreach (var hole in polygon.InteriorRings) yield return Ring(hole, kind, width);
        }
    }

    private static ToolPath Ring(LineString ring, PathKind kind, double width)
    {
        var c = ring.Coordinates;
        var points = new Point[c.Length - 1];
        for (var i = 0; i < points.Length; i++) points[i] = new Point(c[i].X, c[i].Y);
        return new ToolPath(kind, points, true, width);
    }
}

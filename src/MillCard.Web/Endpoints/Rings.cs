using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Web.Endpoints;

/// <summary>Areas as lists of rings [x, y], rounded to µm, as pages draw them with the even-odd rule.</summary>
internal static class Rings
{
    /// <summary>The rings of an area.</summary>
    /// <param name="area">The area.</param>
    /// <param name="error">How far what is drawn may lie off, mm; 0 keeps every corner.</param>
    public static double[][][] Of(NetTopologySuite.Geometries.Geometry area, double error = 0) =>
        [.. Plane.Rings(area).Select(ring => Ring(error > 0 ? Thinning.Of(ring.Coordinates, error) : ring.Coordinates))
            .Where(ring => ring.Length >= 3)];

    /// <summary>Areas one by one, each as its outline and its holes.</summary>
    public static double[][][][] Polygons(NetTopologySuite.Geometries.Geometry area) => [.. Plane.Polygons(area).Select(p => Of(p))];

    private static double[][] Ring(Coordinate[] ring) =>
        [.. ring.SkipLast(1).Select(c => new[] { Math.Round(c.X, 3), Math.Round(c.Y, 3) })];
}

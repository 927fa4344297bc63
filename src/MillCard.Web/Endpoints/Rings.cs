using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Web.Endpoints;

/// <summary>Areas as lists of rings [x, y], rounded to µm, as pages draw them with the even-odd rule.</summary>
internal static class Rings
{
    public static double[][][] Of(NetTopologySuite.Geometries.Geometry area) =>
        [.. Plane.Rings(area).Select(Ring)];

    /// <summary>Areas one by one, each as its outline and its holes.</summary>
    public static double[][][][] Polygons(NetTopologySuite.Geometries.Geometry area) => [.. Plane.Polygons(area).Select(p => Of(p))];

    private static double[][] Ring(LineString ring) => [.. ring.Coordinates.SkipLast(1).Select(c => new[] { Math.Round(c.X, 3), Math.Round(c.Y, 3) })];
}

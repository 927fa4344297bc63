using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Where rings begin.</summary>
internal static class Seams
{
    /// <summary>The ring so that it begins at its seam.</summary>
    /// <param name="ring">A closed path.</param>
    /// <param name="seam">Which kind.</param>
    /// <param name="guide">The seam of the layer below.</param>
    /// <param name="layer">Number of the layer.</param>
    /// <param name="unwanted">Where none is to lie, as long as the ring has a corner elsewhere.</param>
    public static ToolPath At(ToolPath ring, Seam seam, Point guide, int layer, Shape? unwanted = null)
    {
        var points = ring.Points;
        var free = unwanted is null or { IsEmpty: true } ? null : Array.ConvertAll(points, p => !Holds(unwanted, p));
        if (free is not null && !Array.Exists(free, isFree => isFree)) free = null;
        var at = seam switch
        {
            Seam.Back => Best(points.Length, free, i => points[i].Y + 1e-6 * points[i].X),
            Seam.Sharpest => Best(points.Length, free, i => Turn(ring, i)),
            Seam.Hollow => Best(points.Length, free, i => Angle(ring, i) is var turn and > LeastHollow ? turn : -points[i].To(guide)),
            Seam.Scattered => Scattered(points.Length, free, layer),
            _ => Best(points.Length, free, i => -points[i].To(guide)),
        };
        return ring.From(at);
    }

    private static int Scattered(int corners, bool[]? free, int layer)
    {
        // the golden ratio never comes back to the same place
        var at = (int)(Math.Abs((layer * 0.6180339887 + corners * 0.37) % 1) * corners) % corners;
        while (free is not null && !free[at]) at = (at + 1) % corners;
        return at;
    }

    private static bool Holds(Shape area, Point at) =>
        SimplePointInAreaLocator.Locate(new Coordinate(at.X, at.Y), area) != Location.Exterior;

    /// <summary>The ring so that it begins where an area holds it, as near to the area's middle as it comes; null where the ring does not
    /// pass through the area.</summary>
    public static ToolPath? In(Shape area, ToolPath ring)
    {
        if (area.IsEmpty) return null;
        var middle = Plane.Polygons(area).SelectMany(polygon => Nearest(ring, polygon)).OrderBy(n => n.Off).Select(n => (double?)n.Place)
            .FirstOrDefault();
        return middle is { } place ? ring.Begun(place) : null;
    }

    /// <summary>The place of a ring that lies nearest to the middle of a polygon, where that is within the polygon.</summary>
    private static IEnumerable<(double Place, double Off)> Nearest(ToolPath ring, Polygon polygon)
    {
        // the centroid goes over into that of the next layer, which an interior point need not
        var middle = polygon.Centroid is { } centroid && polygon.Covers(centroid) ? centroid : polygon.InteriorPoint;
        var (best, least, to) = (0.0, double.PositiveInfinity, new Point(middle.X, middle.Y));
        for (var i = 0; i < ring.Points.Length; i++)
        {
            var (a, b) = (ring.Points[i], ring.Points[(i + 1) % ring.Points.Length]);
            var share = a.NearestShare(b, to);
            if (to.To(a.Towards(b, share)) is var off && off < least) (best, least) = (i + share, off);
        }
        var at = ring.At(best).Point;
        if (polygon.Covers(Plane.Factory.CreatePoint(new Coordinate(at.X, at.Y)))) yield return (best, least);
    }

    /// <summary>The seam of the lowest layer, from which the aligned ones go up: its sharpest corner.</summary>
    public static Point First(ToolPath ring) => ring.Points[Best(ring.Points.Length, null, i => Turn(ring, i))];

    private static int Best(int corners, bool[]? free, Func<int, double> score)
    {
        var (best, most) = (0, double.NegativeInfinity);
        for (var i = 0; i < corners; i++)
            if (free?[i] != false && score(i) is var s && s > most + 1e-9) (best, most) = (i, s);
        return best;
    }

    /// <summary>A corner that points inwards by less hides nothing, radians.</summary>
    private const double LeastHollow = 0.5;

    /// <summary>How far the ring turns at a corner, radians; corners that point inwards count double, as they hide the seam.</summary>
    private static double Turn(ToolPath ring, int i)
    {
        var turn = Angle(ring, i);
        return turn > 0 ? 2 * turn : -turn;
    }

    /// <summary>How far the ring turns within a line's width before and behind a point, radians, inwards above 0: corners that point
    /// inwards are rounded, as the wall runs round them at half a line's distance.</summary>
    private static double Angle(ToolPath ring, int i)
    {
        var n = ring.Points.Length;
        var sum = Corner(ring.Points, i);
        foreach (var step in new[] { 1, n - 1 })
            for (var (k, way) = (i, 0.0); ;)
            {
                var next = (k + step) % n;
                way += ring.Points[k].To(ring.Points[next]);
                if (way > ring.Width || next == i) break;
                sum += Corner(ring.Points, k = next);
            }
        return sum;
    }

    private static double Corner(Point[] points, int i)
    {
        var n = points.Length;
        // a way aside and back is no corner
        if (IsTip(points, i) || IsTip(points, i + n - 1)) return 0;
        var next = i + 1;
        while (next < i + n && IsTip(points, next)) next += 2;
        var (a, b, c) = (points[(i + n - 1) % n], points[i], points[next % n]);
        var cross = (b.X - a.X) * (c.Y - b.Y) - (b.Y - a.Y) * (c.X - b.X);
        // the solid lies to the left of the way
        return -Math.Atan2(cross, (b.X - a.X) * (c.X - b.X) + (b.Y - a.Y) * (c.Y - b.Y));
    }

    /// <summary>Whether the ring goes straight back from a point.</summary>
    private static bool IsTip(Point[] points, int i) => points[(i + points.Length - 1) % points.Length] == points[(i + 1) % points.Length];
}

using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;

namespace MillCard.Core.Slicing;

/// <summary>Ways from line to line that stay within a part, so that nothing is dragged over its outside.</summary>
internal sealed class InsideTravel
{
    private const double LongestDetour = 3;
    private const double Always = 8;

    private readonly LinearRing[] _rings;
    private readonly IPreparedGeometry _within;

    /// <param name="region">The layer's cross-section.</param>
    /// <param name="width">Line width, mm.</param>
    public InsideTravel(Shape region, double width)
    {
        _within = PreparedGeometryFactory.Prepare(Plane.Offset(region, -0.2 * width, 2));
        _rings = [.. Plane.Polygons(Plane.Offset(region, -0.45 * width, 2)).SelectMany(p => p.InteriorRings.Prepend(p.ExteriorRing)).Cast<LinearRing>()];
    }

    /// <summary>The corners of a way between two points, without them; null where none is known that is not far longer than the straight one.</summary>
    public Point[]? Between(Point from, Point to)
    {
        if (Inside(from, to)) return [];
        var straight = from.To(to);
        Point[]? best = null;
        var least = Math.Max(Always, LongestDetour * straight);
        foreach (var ring in _rings)
        {
            if (Crossings(ring, from, to) is not { } cut) continue;
            foreach (var way in new[] { Walk(ring, cut.First, cut.Last, 1), Walk(ring, cut.First, cut.Last, -1) })
            {
                var length = from.To(way[0]) + to.To(way[^1]);
                for (var i = 1; i < way.Length; i++) length += way[i - 1].To(way[i]);
                if (length < least && Holds(from, way, to)) (best, least) = (way, length);
            }
        }
        return best;
    }

    private bool Inside(Point a, Point b) => _within.Covers(Plane.Factory.CreateLineString([new Coordinate(a.X, a.Y), new Coordinate(b.X, b.Y)]));

    private bool Holds(Point from, Point[] way, Point to)
    {
        if (!Inside(from, way[0]) || !Inside(way[^1], to)) return false;
        for (var i = 1; i < way.Length; i++) if (!Inside(way[i - 1], way[i])) return false;
        return true;
    }

    /// <summary>Where the straight way first and last meets a ring: number of the edge, and the point.</summary>
    private static ((int Edge, Point At) First, (int Edge, Point At) Last)? Crossings(LinearRing ring, Point a, Point b)
    {
        (int, Point)? first = null, last = null;
        var (least, most) = (double.MaxValue, double.MinValue);
        var c = ring.CoordinateSequence;
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        for (var i = 1; i < c.Count; i++)
        {
            var (x0, y0, x1, y1) = (c.GetX(i - 1), c.GetY(i - 1), c.GetX(i), c.GetY(i));
            var (s0, s1) = (dx * (y0 - a.Y) - dy * (x0 - a.X), dx * (y1 - a.Y) - dy * (x1 - a.X));
            if (s0 < 0 == s1 < 0) continue;
            var u = s0 / (s0 - s1);
            var at = new Point(x0 + u * (x1 - x0), y0 + u * (y1 - y0));
            var t = ((at.X - a.X) * dx + (at.Y - a.Y) * dy) / (dx * dx + dy * dy);
            if (t is < 0 or > 1) continue;
            if (t < least) (least, first) = (t, (i, at));
            if (t > most) (most, last) = (t, (i, at));
        }
        return first is { } f && last is { } l && most > least ? (f, l) : null;
    }

    private static Point[] Walk(LinearRing ring, (int Edge, Point At) first, (int Edge, Point At) last, int direction)
    {
        var way = new List<Point> { first.At };
        var n = ring.NumPoints - 1;
        var c = ring.CoordinateSequence;
        // edge i runs from corner i − 1 to corner i
        for (var edge = first.Edge; edge != last.Edge;)
        {
            var corner = direction > 0 ? edge % n : edge - 1;
            way.Add(new Point(c.GetX(corner), c.GetY(corner)));
            edge += direction;
            if (edge > n) edge = 1;
            if (edge < 1) edge = n;
        }
        way.Add(last.At);
        return [.. way];
    }
}

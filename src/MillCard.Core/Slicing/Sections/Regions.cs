using MillCard.Core.Geometry;
using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Sections;

/// <summary>Areas from traced outlines: closed, nested, correctly oriented.</summary>
public static class Regions
{
    private const double Straight = 0.001;
    private const double LeastArea = 1e-4;
    private const int FarthestLook = 60;

    /// <summary>The area of a cross-section. Outlines that cross each other are resolved by winding number.</summary>
    public static Shape Of(Contours contours) => Of(contours, out _);

    /// <summary>The area of a cross-section, and whether its outlines cross each other.</summary>
    public static Shape Of(Contours contours, out bool crossing)
    {
        crossing = false;
        var shells = new List<(LinearRing Ring, double Area, List<LinearRing> Holes)>();
        var holes = new List<LinearRing>();
        for (var i = 0; i < contours.Count; i++)
        {
            var area = contours.SignedArea(i);
            if (Math.Abs(area) < LeastArea || Ring(contours[i]) is not { } ring) continue;
            if (area > 0) shells.Add((ring, area, []));
            else holes.Add(ring);
        }
        if (shells.Count == 0) return Plane.Empty;
        foreach (var hole in holes)
        {
            var owner = -1;
            for (var i = 0; i < shells.Count; i++)
                if ((owner < 0 || shells[i].Area < shells[owner].Area) && Holds(shells[i].Ring, hole)) owner = i;
            if (owner < 0)
            {
                crossing = true;
                return Crossing(contours);
            }
            shells[owner].Holes.Add(hole);
        }
        var polygons = shells.Select(s => Plane.Factory.CreatePolygon(s.Ring, [.. s.Holes])).ToArray();
        Shape region = polygons.Length == 1 ? polygons[0] : Plane.Factory.CreateMultiPolygon(polygons);
        crossing = !region.IsValid;
        return crossing ? Crossing(contours) : region;
    }

    private static Shape Crossing(Contours contours)
    {
        var segments = new List<DirectedSegment>();
        for (var i = 0; i < contours.Count; i++)
        {
            var ring = contours[i];
            var previous = ring[^1];
            foreach (var point in ring)
            {
                segments.Add(new DirectedSegment(previous.X, previous.Y, point.X, point.Y));
                previous = point;
            }
        }
        return Winding.Resolve(segments);
    }

    private static bool Holds(LinearRing shell, LinearRing hole)
    {
        if (!shell.EnvelopeInternal.Contains(hole.EnvelopeInternal)) return false;
        foreach (var corner in hole.Coordinates)
        {
            var where = PointLocation.LocateInRing(corner, shell.Coordinates);
            if (where != Location.Boundary) return where == Location.Interior;
        }
        return true;
    }

    /// <summary>The outline without points that lie on the straight between their neighbours.</summary>
    private static LinearRing? Ring(ReadOnlySpan<Point> points)
    {
        var kept = new List<Coordinate>(points.Length / 2 + 4);
        var start = Corner(points);
        var n = points.Length;
        var at = 0;
        while (at < n)
        {
            var from = points[(start + at) % n];
            kept.Add(new Coordinate(from.X, from.Y));
            var next = 1;
            while (at + next < n && next < FarthestLook && Passes(points, start + at, next + 1)) next++;
            at += next;
        }
        if (kept.Count < 3) return null;
        kept.Add(kept[0].Copy());
        return Plane.Factory.CreateLinearRing([.. kept]);
    }

    /// <summary>A point where the outline surely turns: the leftmost, lowest one.</summary>
    private static int Corner(ReadOnlySpan<Point> points)
    {
        var best = 0;
        for (var i = 1; i < points.Length; i++)
            if (points[i].X < points[best].X || points[i].X == points[best].X && points[i].Y < points[best].Y) best = i;
        return best;
    }

    private static bool Passes(ReadOnlySpan<Point> points, int from, int count)
    {
        var n = points.Length;
        var (a, b) = (points[from % n], points[(from + count) % n]);
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var length = Math.Sqrt(dx * dx + dy * dy);
        if (length == 0) return false;
        for (var i = 1; i < count; i++)
        {
            var p = points[(from + i) % n];
            if (Math.Abs((p.X - a.X) * dy - (p.Y - a.Y) * dx) > Straight * length) return false;
        }
        return true;
    }
}

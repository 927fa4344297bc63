using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing;

/// <summary>Cuts curves to an area: each straight piece by an even-odd scan of the area's edges.</summary>
internal sealed class Clip
{
    private readonly List<(double X0, double Y0, double X1, double Y1)> _edges = [];
    private readonly List<double> _crossings = [];

    public Clip(Shape area)
    {
        foreach (var polygon in Plane.Polygons(area))
        {
            Add(polygon.ExteriorRing);
            foreach (var hole in polygon.InteriorRings) Add(hole);
        }
    }

    private void Add(LineString ring)
    {
        var c = ring.CoordinateSequence;
        for (var i = 1; i < c.Count; i++) _edges.Add((c.GetX(i - 1), c.GetY(i - 1), c.GetX(i), c.GetY(i)));
    }

    /// <summary>The pieces of a curve within the area.</summary>
    /// <param name="curve">Its corners.</param>
    /// <param name="least">Shorter pieces are dropped, mm.</param>
    public IEnumerable<Point[]> Of(IReadOnlyList<Point> curve, double least = 0.2)
    {
        var open = new List<Point>();
        for (var i = 1; i < curve.Count; i++)
        {
            var (a, b) = (curve[i - 1], curve[i]);
            if (a == b) continue;
            foreach (var (from, to) in Pieces(a, b))
            {
                var start = from <= 0 ? a : Along(a, b, from);
                if (open.Count > 0 && (from > 0 || open[^1] != a))
                {
                    if (Long(open, least)) yield return [.. open];
                    open.Clear();
                }
                if (open.Count == 0) open.Add(start);
                open.Add(to >= 1 ? b : Along(a, b, to));
            }
        }
        if (Long(open, least)) yield return [.. open];
    }

    private static bool Long(List<Point> open, double least)
    {
        var sum = 0.0;
        for (var i = 1; i < open.Count && sum < least; i++) sum += open[i - 1].To(open[i]);
        return open.Count > 1 && sum >= least;
    }

    /// <summary>Shares of a straight piece that lie within, in order.</summary>
    private List<(double From, double To)> Pieces(Point a, Point b)
    {
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        _crossings.Clear();
        foreach (var (x0, y0, x1, y1) in _edges)
        {
            var (s0, s1) = (dx * (y0 - a.Y) - dy * (x0 - a.X), dx * (y1 - a.Y) - dy * (x1 - a.X));
            // every ring is closed, so the straight line is crossed an even number of times
            if (s0 < 0 == s1 < 0) continue;
            var t = s0 / (s0 - s1);
            _crossings.Add(((x0 + t * (x1 - x0) - a.X) * dx + (y0 + t * (y1 - y0) - a.Y) * dy) / (dx * dx + dy * dy));
        }
        _crossings.Sort();
        var pieces = new List<(double, double)>();
        for (var i = 0; i + 1 < _crossings.Count; i += 2)
            if (Math.Max(0, _crossings[i]) is var from && Math.Min(1, _crossings[i + 1]) is var to && to > from) pieces.Add((from, to));
        return pieces;
    }

    private static Point Along(Point a, Point b, double t) => new(a.X + t * (b.X - a.X), a.Y + t * (b.Y - a.Y));
}

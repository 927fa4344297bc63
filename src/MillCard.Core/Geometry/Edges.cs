using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>The edges of areas in strips along X, so that a line meets only those near it.</summary>
public sealed class Edges
{
    private readonly List<(double X0, double Y0, double X1, double Y1)> _edges = [];
    private readonly double _bottom, _height;
    private readonly int[] _starts, _inStrips;

    /// <param name="areas">Any areas.</param>
    public Edges(Shape areas)
    {
        foreach (var polygon in Plane.Polygons(areas))
        {
            Add(polygon.ExteriorRing);
            foreach (var hole in polygon.InteriorRings) Add(hole);
        }
        // as many strips as keep both the edges in one and the strips of a long edge few
        var strips = Math.Max(1, (int)(2 * Math.Sqrt(_edges.Count)));
        var box = areas.EnvelopeInternal;
        (_bottom, _height) = (box.MinY, Math.Max(box.Height / strips, Plane.Touch));
        _starts = new int[strips + 1];
        foreach (var (_, y0, _, y1) in _edges) for (var s = StripOf(Math.Min(y0, y1)); s <= StripOf(Math.Max(y0, y1)); s++) _starts[s + 1]++;
        for (var s = 0; s < strips; s++) _starts[s + 1] += _starts[s];
        _inStrips = new int[_starts[strips]];
        var next = _starts.ToArray();
        for (var e = 0; e < _edges.Count; e++)
            for (var s = StripOf(Math.Min(_edges[e].Y0, _edges[e].Y1)); s <= StripOf(Math.Max(_edges[e].Y0, _edges[e].Y1)); s++) _inStrips[next[s]++] = e;
    }

    private void Add(LineString ring)
    {
        var c = ring.Coordinates;
        for (var i = 1; i < c.Length; i++) _edges.Add((c[i - 1].X, c[i - 1].Y, c[i].X, c[i].Y));
    }

    private int StripOf(double y) => (int)Math.Clamp((y - _bottom) / _height, 0, _starts.Length - 2);

    /// <summary>Whether a straight way passes over an edge. One that only touches an edge from one side does not.</summary>
    public bool AreCrossed(Point from, Point to)
    {
        var (dx, dy) = (to.X - from.X, to.Y - from.Y);
        for (var s = StripOf(Math.Min(from.Y, to.Y)); s <= StripOf(Math.Max(from.Y, to.Y)); s++)
            for (var k = _starts[s]; k < _starts[s + 1]; k++)
            {
                var (x0, y0, x1, y1) = _edges[_inStrips[k]];
                var (s0, s1) = (dx * (y0 - from.Y) - dy * (x0 - from.X), dx * (y1 - from.Y) - dy * (x1 - from.X));
                if (s0 < 0 == s1 < 0) continue;
                var (ex, ey) = (x1 - x0, y1 - y0);
                var (f, t) = (ex * (from.Y - y0) - ey * (from.X - x0), ex * (to.Y - y0) - ey * (to.X - x0));
                if (f < 0 != t < 0) return true;
            }
        return false;
    }
}

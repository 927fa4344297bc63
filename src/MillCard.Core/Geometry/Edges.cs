namespace MillCard.Core.Geometry;

/// <summary>The edges of areas in strips along X, so that a line meets only those near it.</summary>
public sealed class Edges
{
    private readonly (double X0, double Y0, double X1, double Y1)[] _edges;
    private readonly double _bottom, _height;
    private readonly int[] _starts, _inStrips;

    /// <param name="areas">Any areas.</param>
    public Edges(Shape areas)
    {
        var rings = Plane.Polygons(areas).SelectMany(p => p.InteriorRings.Prepend(p.ExteriorRing)).Select(r => r.Coordinates).ToArray();
        _edges = new (double, double, double, double)[rings.Sum(c => c.Length - 1)];
        var count = 0;
        foreach (var c in rings) for (var i = 1; i < c.Length; i++) _edges[count++] = (c[i - 1].X, c[i - 1].Y, c[i].X, c[i].Y);
        // as many strips as keep both the edges in one and the strips of a long edge few
        var strips = Math.Max(1, (int)(2 * Math.Sqrt(count)));
        var box = areas.EnvelopeInternal;
        (_bottom, _height) = (box.MinY, Math.Max(box.Height / strips, Plane.Touch));
        _starts = new int[strips + 1];
        foreach (var (_, y0, _, y1) in _edges) for (var s = StripOf(Math.Min(y0, y1)); s <= StripOf(Math.Max(y0, y1)); s++) _starts[s + 1]++;
        for (var s = 0; s < strips; s++) _starts[s + 1] += _starts[s];
        _inStrips = new int[_starts[strips]];
        var next = _starts.ToArray();
        for (var e = 0; e < count; e++)
            for (var s = StripOf(Math.Min(_edges[e].Y0, _edges[e].Y1)); s <= StripOf(Math.Max(_edges[e].Y0, _edges[e].Y1)); s++) _inStrips[next[s]++] = e;
    }

    private int StripOf(double y) => (int)Math.Clamp((y - _bottom) / _height, 0, _starts.Length - 2);

    /// <summary>Whether a straight way meets an edge; touching it is meeting it.</summary>
    public bool AreMet(double fromX, double fromY, double toX, double toY)
    {
        var (dx, dy) = (toX - fromX, toY - fromY);
        var last = StripOf(Math.Max(fromY, toY));
        for (var strip = StripOf(Math.Min(fromY, toY)); strip <= last; strip++)
            foreach (var e in _inStrips.AsSpan(_starts[strip], _starts[strip + 1] - _starts[strip]))
            {
                ref readonly var edge = ref _edges[e];
                var (s0, s1) = (dx * (edge.Y0 - fromY) - dy * (edge.X0 - fromX), dx * (edge.Y1 - fromY) - dy * (edge.X1 - fromX));
                if (s0 > 0 && s1 > 0 || s0 < 0 && s1 < 0) continue;
                var (ex, ey) = (edge.X1 - edge.X0, edge.Y1 - edge.Y0);
                var (f, t) = (ex * (fromY - edge.Y0) - ey * (fromX - edge.X0), ex * (toY - edge.Y0) - ey * (toX - edge.X0));
                if (f > 0 && t > 0 || f < 0 && t < 0) continue;
                // on one line the sides say nothing; there the pieces meet where their boxes do
                if (s0 == 0 && s1 == 0 && (Math.Max(edge.X0, edge.X1) < Math.Min(fromX, toX) || Math.Min(edge.X0, edge.X1) > Math.Max(fromX, toX) || Math.Max(edge.Y0, edge.Y1) < Math.Min(fromY, toY) || Math.Min(edge.Y0, edge.Y1) > Math.Max(fromY, toY))) continue;
                return true;
            }
        return false;
    }

    /// <summary>Whether a straight way meets an edge; touching it is meeting it.</summary>
    public bool AreMet(Point from, Point to) => AreMet(from.X, from.Y, to.X, to.Y);

    /// <summary>Whether any edge of other areas meets one of these.</summary>
    public bool AreMet(Shape areas)
    {
        foreach (var ring in Plane.Polygons(areas).SelectMany(p => p.InteriorRings.Prepend(p.ExteriorRing)))
        {
            var c = ring.Coordinates;
            for (var i = 1; i < c.Length; i++) if (AreMet(c[i - 1].X, c[i - 1].Y, c[i].X, c[i].Y)) return true;
        }
        return false;
    }
}

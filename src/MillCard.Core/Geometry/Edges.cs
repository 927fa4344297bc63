using System.Buffers;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>The edges of areas in strips along X, so that a line meets only those near it.</summary>
public sealed class Edges : IDisposable
{
    private readonly (double X0, double Y0, double X1, double Y1)[] _edges;
    private readonly double _bottom, _height;
    private readonly int _strips;
    private readonly int[] _starts, _inStrips;

    /// <param name="areas">Any areas.</param>
    public Edges(Shape areas) : this([.. Plane.Rings(areas)])
    {
    }

    /// <param name="outlines">Any outlines.</param>
    public Edges(IReadOnlyCollection<LineString> outlines)
    {
        var (box, rings) = (new Envelope(), outlines.Select(r => r.Coordinates).ToArray());
        foreach (var outline in outlines) box.ExpandToInclude(outline.EnvelopeInternal);
        _edges = ArrayPool<(double, double, double, double)>.Shared.Rent(rings.Sum(c => c.Length - 1));
        var (count, rise) = (0, 0.0);
        foreach (var c in rings)
            for (var i = 1; i < c.Length; i++)
            {
                _edges[count++] = (c[i - 1].X, c[i - 1].Y, c[i].X, c[i].Y);
                rise += Math.Abs(c[i].Y - c[i - 1].Y);
            }
        // as narrow as an edge is high on the average, so that it lies in few of them, however long some are
        _strips = Math.Clamp((int)(count * box.Height / Math.Max(rise, Plane.Touch)), 1, Math.Max(1, count));
        (_bottom, _height) = (box.MinY, Math.Max(box.Height / _strips, Plane.Touch));
        _starts = ArrayPool<int>.Shared.Rent(_strips + 2);
        Array.Clear(_starts);
        for (var e = 0; e < count; e++)
        {
            var (first, last) = StripsOf(_edges[e].Y0, _edges[e].Y1);
            for (var s = first; s <= last; s++) _starts[s + 2]++;
        }
        for (var s = 0; s < _strips; s++) _starts[s + 2] += _starts[s + 1];
        _inStrips = ArrayPool<int>.Shared.Rent(_starts[_strips + 1]);
        // each strip's beginning moves to its end while it is filled, which is where the next one begins
        for (var e = 0; e < count; e++)
        {
            var (first, last) = StripsOf(_edges[e].Y0, _edges[e].Y1);
            for (var s = first; s <= last; s++) _inStrips[_starts[s + 1]++] = e;
        }
    }

    /// <summary>Gives the memory back.</summary>
    public void Dispose()
    {
        ArrayPool<(double, double, double, double)>.Shared.Return(_edges);
        ArrayPool<int>.Shared.Return(_starts);
        ArrayPool<int>.Shared.Return(_inStrips);
    }

    private (int First, int Last) StripsOf(double y0, double y1) => (StripOf(Math.Min(y0, y1)), StripOf(Math.Max(y0, y1)));

    private int StripOf(double y) => (int)Math.Clamp((y - _bottom) / _height, 0, _strips - 1);

    /// <summary>Whether a straight way meets an edge; touching it is meeting it.</summary>
    public bool AreMet(double fromX, double fromY, double toX, double toY)
    {
        var (dx, dy, left, right) = (toX - fromX, toY - fromY, Math.Min(fromX, toX), Math.Max(fromX, toX));
        var (first, last) = StripsOf(fromY, toY);
        for (var strip = first; strip <= last; strip++)
            foreach (var e in _inStrips.AsSpan(_starts[strip], _starts[strip + 1] - _starts[strip]))
            {
                ref readonly var edge = ref _edges[e];
                if (edge.X0 < left && edge.X1 < left || edge.X0 > right && edge.X1 > right) continue;
                var (s0, s1) = (dx * (edge.Y0 - fromY) - dy * (edge.X0 - fromX), dx * (edge.Y1 - fromY) - dy * (edge.X1 - fromX));
                if (s0 > 0 && s1 > 0 || s0 < 0 && s1 < 0) continue;
                var (ex, ey) = (edge.X1 - edge.X0, edge.Y1 - edge.Y0);
                var (f, t) = (ex * (fromY - edge.Y0) - ey * (fromX - edge.X0), ex * (toY - edge.Y0) - ey * (toX - edge.X0));
                if (f > 0 && t > 0 || f < 0 && t < 0) continue;
                // on one line the sides say nothing; there the pieces meet where their boxes do
                if (s0 == 0 && s1 == 0 && (Math.Max(edge.Y0, edge.Y1) < Math.Min(fromY, toY)
                    || Math.Min(edge.Y0, edge.Y1) > Math.Max(fromY, toY))) continue;
                return true;
            }
        return false;
    }

    /// <summary>Whether a straight way meets an edge; touching it is meeting it.</summary>
    public bool AreMet(Point from, Point to) => AreMet(from.X, from.Y, to.X, to.Y);

    /// <summary>Whether any edge of other areas meets one of these.</summary>
    public bool AreMet(Shape areas) => AreMet(Plane.Rings(areas));

    /// <summary>Whether any edge of outlines meets one of these.</summary>
    public bool AreMet(IEnumerable<LineString> outlines)
    {
        foreach (var ring in outlines)
        {
            var c = ring.Coordinates;
            for (var i = 1; i < c.Length; i++) if (AreMet(c[i - 1].X, c[i - 1].Y, c[i].X, c[i].Y)) return true;
        }
        return false;
    }

    /// <summary>Whether a point lies inside, by the edges to its right.</summary>
    public bool Hold(double x, double y)
    {
        var inside = false;
        var strip = StripOf(y);
        foreach (var e in _inStrips.AsSpan(_starts[strip], _starts[strip + 1] - _starts[strip]))
        {
            ref readonly var edge = ref _edges[e];
            if (edge.Y0 <= y == edge.Y1 <= y) continue;
            if (edge.X0 + (y - edge.Y0) / (edge.Y1 - edge.Y0) * (edge.X1 - edge.X0) > x) inside = !inside;
        }
        return inside;
    }

    /// <summary>Whether a point lies inside.</summary>
    public bool Hold(Point at) => Hold(at.X, at.Y);

    /// <summary>Where a straight way crosses edges, as shares of it, in no order; a crossing may come more than once.</summary>
    /// <param name="from">Its beginning.</param>
    /// <param name="to">Its end.</param>
    /// <param name="shares">They are added to it.</param>
    public void Crossings(Point from, Point to, List<double> shares)
    {
        var (dx, dy) = (to.X - from.X, to.Y - from.Y);
        var (first, last) = StripsOf(from.Y, to.Y);
        for (var strip = first; strip <= last; strip++)
            foreach (var e in _inStrips.AsSpan(_starts[strip], _starts[strip + 1] - _starts[strip]))
            {
                ref readonly var edge = ref _edges[e];
                var (s0, s1) = (dx * (edge.Y0 - from.Y) - dy * (edge.X0 - from.X), dx * (edge.Y1 - from.Y) - dy * (edge.X1 - from.X));
                if (s0 < 0 == s1 < 0) continue;
                var u = s0 / (s0 - s1);
                var share = ((edge.X0 + u * (edge.X1 - edge.X0) - from.X) * dx
                    + (edge.Y0 + u * (edge.Y1 - edge.Y0) - from.Y) * dy) / (dx * dx + dy * dy);
                if (share is > 0 and < 1) shares.Add(share);
            }
    }
}

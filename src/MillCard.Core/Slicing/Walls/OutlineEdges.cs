using MillCard.Core.Geometry;
using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Where a disc that touches the outline at one place touches it again.</summary>
/// <param name="Radius">mm; the greatest asked for where it touches nothing else.</param>
/// <param name="Ring">Ring of the other place; −1 where there is none.</param>
/// <param name="Along">Way along that ring to the other place, mm.</param>
/// <param name="Cosine">Cosine of the angle between the two radii.</param>
internal readonly record struct SecondTouch(double Radius, int Ring, double Along, double Cosine);

/// <summary>The edges of one polygon on a grid of squares, its solid to their left.</summary>
internal sealed class OutlineEdges
{
    private readonly Edge[] _edges;
    private readonly double _left, _bottom, _side;
    private readonly int _columns, _rows;
    private readonly Buckets _cells;

    private readonly record struct Edge(double X, double Y, double DirectionX, double DirectionY, double Length, int Ring, double Along);

    /// <param name="polygon">Valid.</param>
    public OutlineEdges(Polygon polygon)
    {
        Rings = [Corners(polygon.ExteriorRing, counterClockwise: true),
            .. polygon.InteriorRings.Select(r => Corners(r, counterClockwise: false))];
        Firsts = new int[Rings.Length];
        _edges = new Edge[Rings.Sum(r => r.Length)];
        var e = 0;
        for (var ring = 0; ring < Rings.Length; ring++)
        {
            var (c, along) = (Rings[ring], 0.0);
            Firsts[ring] = e;
            for (var i = 0; i < c.Length; i++)
            {
                var (a, b) = (c[i], c[(i + 1) % c.Length]);
                var length = a.To(b);
                _edges[e++] = new Edge(a.X, a.Y, (b.X - a.X) / length, (b.Y - a.Y) / length, length, ring, along);
                along += length;
            }
        }
        var box = polygon.EnvelopeInternal;
        (_left, _bottom) = (box.MinX, box.MinY);
        _side = Math.Max(0.3, Math.Sqrt((box.Width + 1) * (box.Height + 1) / (4.0 * _edges.Length + 64)));
        (_columns, _rows) = ((int)(box.Width / _side) + 1, (int)(box.Height / _side) + 1);
        _cells = new(_columns * _rows, _edges.Length, (edge, to) => Pass(_edges[edge], to));
    }

    /// <summary>Corners of every ring, the solid to the left of the way, none of them twice; none where a ring is no larger than a
    /// touch.</summary>
    public Point[][] Rings { get; }

    /// <summary>Number of each ring's first edge; edge i of a ring begins at its corner i.</summary>
    public int[] Firsts { get; }

    private static Point[] Corners(LineString ring, bool counterClockwise)
    {
        var c = ring.Coordinates;
        if (Orientation.IsCCWArea(c) != counterClockwise) Array.Reverse(c = [.. c]);
        var corners = new List<Point>(c.Length);
        foreach (var at in c.AsSpan(1))
            if (new Point(at.X, at.Y) is var corner && (corners.Count == 0 || corners[^1].To(corner) > Plane.Touch)) corners.Add(corner);
        if (corners.Count > 3 && corners[^1].To(corners[0]) <= Plane.Touch) corners.RemoveAt(corners.Count - 1);
        return corners.Count < 3 ? [] : [.. corners];
    }

    private int Column(double x) => (int)Math.Clamp((x - _left) / _side, 0, _columns - 1);
    private int Row(double y) => (int)Math.Clamp((y - _bottom) / _side, 0, _rows - 1);

    /// <summary>The cells that an edge may pass, row by row.</summary>
    private void Pass(in Edge edge, Action<int> to)
    {
        var (endX, endY) = (edge.X + edge.DirectionX * edge.Length, edge.Y + edge.DirectionY * edge.Length);
        var (first, last) = (Row(Math.Min(edge.Y, endY)), Row(Math.Max(edge.Y, endY)));
        for (var row = first; row <= last; row++)
        {
            var (x0, x1) = (edge.X, endX);
            if (first != last)
            {
                // where it enters and leaves the row
                var (low, high) = (_bottom + row * _side - edge.Y, _bottom + (row + 1) * _side - edge.Y);
                var (t0, t1) = (low / edge.DirectionY, high / edge.DirectionY);
                x0 = edge.X + edge.DirectionX * Math.Clamp(Math.Min(t0, t1), 0, edge.Length);
                x1 = edge.X + edge.DirectionX * Math.Clamp(Math.Max(t0, t1), 0, edge.Length);
            }
            var (from, end) = (Column(Math.Min(x0, x1) - Plane.Touch), Column(Math.Max(x0, x1) + Plane.Touch));
            for (var column = from; column <= end; column++) to(row * _columns + column);
        }
    }

    /// <summary>The greatest disc within the outline that touches it at a place, up to a radius.</summary>
    /// <param name="foot">The place.</param>
    /// <param name="normalX">Unit vector from it inwards.</param>
    /// <param name="normalY">Unit vector from it inwards.</param>
    /// <param name="most">Greatest radius, mm.</param>
    /// <param name="on">Edge on which the place lies.</param>
    /// <param name="beside">Another edge on which it lies; −1 for none.</param>
    public SecondTouch Disc(Point foot, double normalX, double normalY, double most, int on, int beside)
    {
        // what is near is looked at first: a disc that is found there needs no wider look
        for (var reach = Math.Min(most, 2 * _side); ; reach = Math.Min(most, 2 * reach))
        {
            var found = new SecondTouch(most, -1, 0, 1);
            var (x, y) = (foot.X + normalX * reach, foot.Y + normalY * reach);
            var (left, right) = (Column(x - reach), Column(x + reach));
            for (int row = Row(y - reach), top = Row(y + reach); row <= top; row++)
                for (var cell = row * _columns + left; cell <= row * _columns + right; cell++)
                    foreach (var e in _cells.In(cell))
                        if (e != on && e != beside) Touch(_edges[e], foot, normalX, normalY, ref found);
            if (found.Radius <= reach || reach >= most) return found;
        }
    }

    /// <summary>A disc with its centre at foot + r·normal touches a line at d0 inside of it where r = d0 / (1 − normal · line's normal),
    /// and a point at v from the foot where r = v² / (2·normal · v).</summary>
    private static void Touch(in Edge edge, Point foot, double normalX, double normalY, ref SecondTouch found)
    {
        var (x, y) = (foot.X - edge.X, foot.Y - edge.Y);
        var (inX, inY) = (-edge.DirectionY, edge.DirectionX);
        var inside = inX * x + inY * y;
        var cosine = inX * normalX + inY * normalY;
        // asked before it is divided: most are greater
        if (inside > 0 && cosine < 1 - 1e-12 && inside < found.Radius * (1 - cosine))
        {
            var r = inside / (1 - cosine);
            var along = (x + r * (normalX - inX)) * edge.DirectionX + (y + r * (normalY - inY)) * edge.DirectionY;
            if (along >= 0 && along <= edge.Length) found = new SecondTouch(r, edge.Ring, edge.Along + along, cosine);
        }
        // every corner is the beginning of one edge
        var ahead = -(x * normalX + y * normalY);
        var square = x * x + y * y;
        if (!(ahead > 1e-9) || square >= found.Radius * 2 * ahead) return;
        var radius = square / (2 * ahead);
        found = new SecondTouch(radius, edge.Ring, edge.Along, 1 + (normalX * x + normalY * y) / radius);
    }
}

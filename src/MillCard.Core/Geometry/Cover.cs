using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;
using NetTopologySuite.Index.Strtree;

namespace MillCard.Core.Geometry;

/// <summary>A triangle of the plane, mm.</summary>
internal readonly record struct Triangle(double X0, double Y0, double X1, double Y1, double X2, double Y2);

/// <summary>Answers quickly for many triangles whether they lie in an area.</summary>
/// <remarks>A grid of cells that lie inside whole tells most of them; the area itself, grown by a slack, the rest.</remarks>
internal sealed class Cover
{
    private const int Side = 384;
    private readonly IndexedPointInAreaLocator? _grown;
    private readonly STRtree<DirectedSegment> _outline = new(16);
    private readonly Envelope _box;
    private readonly bool[] _inside = new bool[Side * Side];
    private readonly double _width, _height, _slack;

    /// <param name="area">Valid areas, or none.</param>
    /// <param name="slack">By how much a triangle may reach over, mm; more than 0.</param>
    public Cover(Shape area, double slack)
    {
        _slack = slack;
        _box = area.EnvelopeInternal;
        if (area.IsEmpty) return;
        var grown = Plane.Offset(area, slack, 1);
        _grown = new IndexedPointInAreaLocator(grown);
        foreach (var ring in Plane.Rings(grown))
            for (var i = 0; i + 1 < ring.NumPoints; i++)
            {
                var (a, b) = (ring.GetCoordinateN(i), ring.GetCoordinateN(i + 1));
                _outline.Insert(new Envelope(a, b), new(a.X, a.Y, b.X, b.Y));
            }
        _outline.Build();
        (_width, _height) = (_box.Width / Side, _box.Height / Side);
        MarkInside(area);
    }

    /// <summary>Whether a triangle lies inside.</summary>
    public bool Holds(in Triangle t)
    {
        if (_grown is null) return false;
        var (left, right) = (Math.Min(t.X0, Math.Min(t.X1, t.X2)), Math.Max(t.X0, Math.Max(t.X1, t.X2)));
        var (front, back) = (Math.Min(t.Y0, Math.Min(t.Y1, t.Y2)), Math.Max(t.Y0, Math.Max(t.Y1, t.Y2)));
        if (left < _box.MinX - 2 * _slack || right > _box.MaxX + 2 * _slack || front < _box.MinY - 2 * _slack
            || back > _box.MaxY + 2 * _slack) return false;
        return AllInside(t, Row(front), Row(back)) || Within(t);
    }

    /// <summary>Whether no outline touches a triangle, and one of its corners lies inside.</summary>
    private bool Within(in Triangle t)
    {
        if (_grown!.Locate(new Coordinate(t.X0, t.Y0)) == Location.Exterior) return false;
        var box = new Envelope(t.X0, t.X1, t.Y0, t.Y1);
        box.ExpandToInclude(t.X2, t.Y2);
        foreach (var segment in _outline.Query(box))
            if (Touch(t, segment)) return false;
        return true;
    }

    /// <summary>Whether no line along an edge of either parts them (separating axes).</summary>
    private static bool Touch(in Triangle t, in DirectedSegment s) =>
        !Parts(t.X0, t.Y0, t.X1, t.Y1, t, s) && !Parts(t.X1, t.Y1, t.X2, t.Y2, t, s) && !Parts(t.X2, t.Y2, t.X0, t.Y0, t, s)
        && !Parts(s.X0, s.Y0, s.X1, s.Y1, t, s);

    private static bool Parts(double x0, double y0, double x1, double y1, in Triangle t, in DirectedSegment s)
    {
        var (dx, dy) = (x1 - x0, y1 - y0);
        double Side(double x, double y) => dx * (y - y0) - dy * (x - x0);
        var (a, b, c) = (Side(t.X0, t.Y0), Side(t.X1, t.Y1), Side(t.X2, t.Y2));
        var (d, e) = (Side(s.X0, s.Y0), Side(s.X1, s.Y1));
        return Math.Min(a, Math.Min(b, c)) > Math.Max(d, e) || Math.Max(a, Math.Max(b, c)) < Math.Min(d, e);
    }

    /// <summary>Whether all cells that a triangle may touch are inside.</summary>
    private bool AllInside(Triangle t, int front, int back)
    {
        for (var row = front; row <= back; row++)
        {
            var (bottom, top) = (_box.MinY + row * _height, _box.MinY + (row + 1) * _height);
            // cells at the border stand for what lies beyond, too
            if (row == 0) bottom = double.MinValue;
            if (row == Side - 1) top = double.MaxValue;
            var (low, high) = (double.MaxValue, double.MinValue);
            Widen(t.X0, t.Y0, t.X1, t.Y1);
            Widen(t.X1, t.Y1, t.X2, t.Y2);
            Widen(t.X2, t.Y2, t.X0, t.Y0);
            if (high < low) continue;
            var (left, right) = (Column(low), Column(high));
            if (_inside.AsSpan(row * Side + left, right - left + 1).Contains(false)) return false;

            void Widen(double ax, double ay, double bx, double by)
            {
                if (Math.Max(ay, by) < bottom || Math.Min(ay, by) > top) return;
                var (l, h) = Between(new(ax, ay), new(bx, by), bottom, top);
                (low, high) = (Math.Min(low, l), Math.Max(high, h));
            }
        }
        return true;
    }

    private int Column(double x) => Math.Clamp((int)((x - _box.MinX) / _width), 0, Side - 1);

    private int Row(double y) => Math.Clamp((int)((y - _box.MinY) / _height), 0, Side - 1);

    /// <summary>Cells that no outline passes and whose middle is inside.</summary>
    private void MarkInside(Shape area)
    {
        var passed = new bool[Side * Side];
        var segments = Plane.Rings(area).SelectMany(ring => ring.Coordinates.Zip(ring.Coordinates.Skip(1)));
        foreach (var (a, b) in segments)
            // all cells of the segment's box, a row at a time
            for (var row = Row(Math.Min(a.Y, b.Y)); row <= Row(Math.Max(a.Y, b.Y)); row++)
            {
                var (low, high) = Between(new(a.X, a.Y), new(b.X, b.Y), _box.MinY + row * _height, _box.MinY + (row + 1) * _height);
                passed.AsSpan(row * Side + Column(low), Column(high) - Column(low) + 1).Fill(true);
            }
        var inside = new IndexedPointInAreaLocator(area);
        for (var row = 0; row < Side; row++)
            for (var column = 0; column < Side; column++)
            {
                var cell = row * Side + column;
                if (passed[cell]) continue;
                // cells between two that are passed lie alike
                _inside[cell] = column > 0 && !passed[cell - 1] ? _inside[cell - 1]
                    : inside.Locate(new(_box.MinX + (column + 0.5) * _width, _box.MinY + (row + 0.5) * _height)) == Location.Interior;
            }
    }

    /// <summary>Where a segment runs between two heights, least and greatest x, a little to the safe side.</summary>
    private (double Low, double High) Between(Point a, Point b, double bottom, double top)
    {
        double At(double y) => a.Y == b.Y ? a.X : a.X + Math.Clamp((y - a.Y) / (b.Y - a.Y), 0, 1) * (b.X - a.X);
        var (p, q) = a.Y == b.Y ? (a.X, b.X) : (At(bottom), At(top));
        var slack = 1e-9 * (1 + _box.Width);
        return (Math.Min(p, q) - slack, Math.Max(p, q) + slack);
    }
}

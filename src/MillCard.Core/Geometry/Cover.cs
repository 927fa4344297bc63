using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>Answers quickly for many triangles whether they lie in an area.</summary>
/// <remarks>A grid of cells that lie inside whole tells most of them; in the other cells that a triangle passes, the outline of the area,
/// grown by a slack, is looked at piece by piece.</remarks>
internal sealed class Cover
{
    private const int Side = 128;

    /// <summary>Cosine of half a turn that all but turns back.</summary>
    private const double Spike = 0.1;

    private readonly IndexedPointInAreaLocator? _area;
    private readonly Envelope _box;
    private readonly bool[] _inside = new bool[Side * Side];
    private readonly SquareRaster _raster;
    private readonly double _slack;
    private readonly DirectedSegment[] _outline = [];
    private readonly Buckets? _pieces;

    /// <param name="area">Valid areas, or none.</param>
    /// <param name="slack">By how much a triangle may reach over, mm; more than 0.</param>
    public Cover(Shape area, double slack)
    {
        _slack = slack;
        _box = area.EnvelopeInternal;
        if (area.IsEmpty) return;
        _raster = SquareRaster.Over(_box.MinX, _box.MinY, _box.MaxX, _box.MaxY, Side);
        _area = new IndexedPointInAreaLocator(area);
        _outline = [.. Plane.DirectedRings(area).SelectMany(Grown)];
        _pieces = new(Side * Side, _outline.Length, (piece, to) => Pass(_outline[piece], to));
        MarkInside(area);
    }

    /// <summary>Whether a triangle lies inside.</summary>
    public bool Holds(in Triangle t)
    {
        if (_area is null) return false;
        if (t.MinX < _box.MinX - 2 * _slack || t.MaxX > _box.MaxX + 2 * _slack || t.MinY < _box.MinY - 2 * _slack
            || t.MaxY > _box.MaxY + 2 * _slack) return false;
        var meetsInside = false;
        for (int row = _raster.Row(t.MinY), last = _raster.Row(t.MaxY); row <= last; row++)
        {
            var (from, to) = Columns(t, row);
            for (var (cell, end) = (row * Side + from, row * Side + to + 1); cell < end; cell++)
            {
                var outside = _inside.AsSpan(cell, end - cell).IndexOf(value: false);
                meetsInside |= outside != 0;
                if (outside < 0) break;
                cell += outside;
                if (IsTouchedIn(cell, t)) return false;
            }
        }
        // none of it lies on the outline: it is inside as a whole, or outside
        return meetsInside || _area.Locate(new Coordinate(t.X0, t.Y0)) != Location.Exterior;
    }

    private bool IsTouchedIn(int cell, in Triangle t)
    {
        foreach (var piece in _pieces!.In(cell))
            if (Touch(t, _outline[piece])) return true;
        return false;
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

    /// <summary>The columns that a triangle may touch in a row; the last before the first where it touches none.</summary>
    private (int From, int To) Columns(in Triangle t, int row)
    {
        var (bottom, top) = _raster.Band(row);
        var (left, right) = t.Between(bottom, top);
        return left > right ? (0, -1) : (_raster.Column(left - Little), _raster.Column(right + Little));
    }

    private double Little => 1e-9 * (1 + _box.Width);

    /// <summary>Cells that no outline passes and whose middle is inside.</summary>
    private void MarkInside(Shape area)
    {
        var passed = new bool[Side * Side];
        foreach (var piece in Plane.Border(area)) Pass(piece, cell => passed[cell] = true);
        for (var row = 0; row < Side; row++)
            for (var column = 0; column < Side; column++)
            {
                var cell = row * Side + column;
                if (passed[cell]) continue;
                // cells between two that are passed lie alike
                _inside[cell] = column > 0 && !passed[cell - 1] ? _inside[cell - 1]
                    : _area!.Locate(new(_raster.X(column) + _raster.Size / 2, _raster.Y(row) + _raster.Size / 2)) == Location.Interior;
            }
    }

    /// <summary>A ring drawn by the slack to its right. Where it is narrow it crosses itself: nearer to the area than the slack nothing is
    /// told to lie inside there, which is safe.</summary>
    private IEnumerable<DirectedSegment> Grown(Coordinate[] ring)
    {
        var points = new List<(double X, double Y)>(3 * ring.Length);
        for (var i = 1; i < ring.Length; i++)
            foreach (var (x, y) in Aside(ring[i - 1], ring[i], ring[i + 1 < ring.Length ? i + 1 : 1]))
                points.Add((ring[i].X + _slack * x, ring[i].Y + _slack * y));
        for (var i = 0; i < points.Count; i++)
        {
            var (from, to) = (points[i], points[(i + 1) % points.Count]);
            yield return new(from.X, from.Y, to.X, to.Y);
        }
    }

    /// <summary>Where the drawn ring passes a corner, in slacks: where both edges meet at an inner one, and round an outer one.</summary>
    private static (double X, double Y)[] Aside(Coordinate before, Coordinate at, Coordinate next)
    {
        var (a, b) = (Right(before, at), Right(at, next));
        var half = Math.Sqrt(Math.Max(0, (1 + a.X * b.X + a.Y * b.Y) / 2));
        if (half < Spike) return [a, (-a.Y, a.X), b];
        var (x, y) = ((a.X + b.X) / 2 / half, (a.Y + b.Y) / 2 / half);
        return a.X * b.Y - a.Y * b.X < 0 ? [(x / half, y / half)] : [a, (x, y), b];
    }

    /// <summary>The way to the right of an edge, of length 1.</summary>
    private static (double X, double Y) Right(Coordinate from, Coordinate to)
    {
        var (dx, dy) = (to.X - from.X, to.Y - from.Y);
        var length = Math.Sqrt(dx * dx + dy * dy);
        return length > 0 ? (dy / length, -dx / length) : (0, 0);
    }

    /// <summary>All cells that a piece of an outline passes.</summary>
    private void Pass(in DirectedSegment s, Action<int> to)
    {
        // a triangle without an inside
        var line = new Triangle(s.X0, s.Y0, s.X1, s.Y1, s.X1, s.Y1);
        for (int row = _raster.Row(Math.Min(s.Y0, s.Y1)), last = _raster.Row(Math.Max(s.Y0, s.Y1)); row <= last; row++)
        {
            var (from, until) = Columns(line, row);
            for (var cell = row * Side + from; cell <= row * Side + until; cell++) to(cell);
        }
    }
}

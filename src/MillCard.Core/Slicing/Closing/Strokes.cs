using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Closing;

/// <summary>Lines of plastic as straight stretches, on a grid of squares.</summary>
internal sealed class Strokes
{
    private const double LeastSide = 0.35;

    private const int CellsEach = 8;

    /// <summary>Squares know the stretches with plastic no farther from them than this, mm; what is farther is found from the squares
    /// around.</summary>
    private const double Beyond = 0.06;

    private const double Rounding = 1e-9;

    private readonly Stroke[] _strokes;
    private readonly Dictionary<int, List<Stroke>> _added = [];
    private readonly double _left, _bottom, _side, _reach;
    private readonly int _columns, _rows, _around;
    private readonly Buckets _cells;
    private int _last;

    /// <param name="paths">The lines.</param>
    /// <param name="reach">How far beside their plastic places may lie from which they are found, mm.</param>
    public Strokes(IReadOnlyList<ToolPath> paths, double reach)
    {
        _reach = reach;
        _strokes = new Stroke[paths.Sum(StretchesOf)];
        for (int number = 0, next = 0; number < paths.Count; number++) next = Put(paths[number], number, next);
        var box = new Envelope();
        foreach (var path in paths)
            foreach (var (x, y) in path.Points) box.ExpandToInclude(x, y);
        (_left, _bottom) = (box.MinX, box.MinY);
        // no more squares than some for every stretch
        _side = Math.Max(LeastSide, Math.Sqrt((box.Width + 1) * (box.Height + 1) / (CellsEach * _strokes.Length + 64.0)));
        _around = (int)Math.Ceiling((reach - Beyond) / _side);
        (_columns, _rows) = ((int)(box.Width / _side) + 1, (int)(box.Height / _side) + 1);
        _cells = new(_columns * _rows, _strokes.Length, (stroke, to) => Pass(_strokes[stroke], to));
    }

    /// <summary>How far a place is from the nearest plastic, mm, less than 0 in it; no more than the reach.</summary>
    public double Free(Point at) => Nearest(at).Free;

    /// <summary>The same, with the place on the nearest line; the place itself where none is near.</summary>
    public (double Free, Point On) Nearest(Point at)
    {
        var (least, on, cell) = (_reach, at, CellOf(at));
        // most are farther than the one that was nearest to the place before, which is found again itself
        if (_strokes.Length > 0) least = Math.Min(least, _strokes[_last].Off(at).Free + Rounding);
        Search(cell);
        if (least > Beyond)
            foreach (var near in Around(cell)) Search(near);
        return (least, on);

        void Search(int there)
        {
            foreach (var number in _cells.In(there)) if (Look(in _strokes[number])) _last = number;
            if (_added.Count > 0 && _added.TryGetValue(there, out var added)) foreach (var stroke in added) Look(stroke);
        }

        bool Look(in Stroke stroke)
        {
            if (stroke.IsFarther(at, least)) return false;
            var (free, share) = stroke.Off(at);
            if (free >= least) return false;
            (least, on) = (free, stroke.At(share).At);
            return true;
        }
    }

    /// <summary>How far a place is beside the nearest line, mm, where corners are as sharp at any distance: the greater of the distances
    /// from both sides; no more than the reach.</summary>
    public double Beside(Point at)
    {
        var (least, beside) = (_reach, _reach);
        foreach (var stroke in Near(at))
        {
            var (free, share) = stroke.Off(at);
            if (free > least + Plane.Touch) continue;
            var side = share is > 0 and < 1 ? free : stroke.FromLine(at);
            beside = free < least - Plane.Touch ? side : Math.Max(beside < _reach ? beside : 0, side);
            least = Math.Min(least, free);
        }
        return beside;
    }

    /// <summary>The stretches near a place, each once, without those that were added.</summary>
    public IEnumerable<Stroke> Near(Point at) =>
        Around(CellOf(at)).SelectMany(cell => _cells.In(cell).ToArray()).Distinct().Order().Select(number => _strokes[number]);

    /// <summary>Those that were added near a place.</summary>
    public IEnumerable<Stroke> AddedNear(Point at) =>
        Around(CellOf(at)).SelectMany(cell => _added.GetValueOrDefault(cell) ?? []).Distinct();

    /// <summary>Adds a stretch.</summary>
    public void Add(Stroke stroke) => Pass(stroke, cell =>
    {
        if (!_added.TryGetValue(cell, out var there)) _added[cell] = there = [];
        there.Add(stroke);
    });

    private static int StretchesOf(ToolPath path) => path.Points.Length - (path.Closed ? 0 : 1);

    /// <summary>Puts a line's stretches among the others; where the next line's begin.</summary>
    private int Put(ToolPath path, int number, int next)
    {
        var (n, p) = (path.Points.Length, path.Points);
        for (var i = 0; i < StretchesOf(path); i++)
            _strokes[next++] = new(p[i], p[(i + 1) % n], Half(i), Half((i + 1) % n), number, i);
        return next;

        double Half(int i) => (path.Widths is { } widths ? widths[i] : path.Width) / 2;
    }

    private int Column(double x) => (int)Math.Clamp((x - _left) / _side, 0, _columns - 1);
    private int Row(double y) => (int)Math.Clamp((y - _bottom) / _side, 0, _rows - 1);
    private int CellOf(Point at) => Row(at.Y) * _columns + Column(at.X);

    /// <summary>A square with those around it.</summary>
    private IEnumerable<int> Around(int cell)
    {
        var (row, column) = Math.DivRem(cell, _columns);
        for (int r = Math.Max(row - _around, 0), top = Math.Min(row + _around, _rows - 1); r <= top; r++)
            for (int c = Math.Max(column - _around, 0), right = Math.Min(column + _around, _columns - 1); c <= right; c++)
                yield return r * _columns + c;
    }

    /// <summary>The squares that know a stretch, row by row.</summary>
    private void Pass(in Stroke stroke, Action<int> to)
    {
        var reach = Math.Max(stroke.HalfFrom, stroke.HalfTo) + Beyond;
        var (a, b) = (stroke.From, stroke.To);
        var (first, last) = (Row(Math.Min(a.Y, b.Y) - reach), Row(Math.Max(a.Y, b.Y) + reach));
        for (var row = first; row <= last; row++)
        {
            var (x0, x1) = (a.X, b.X);
            if (Math.Abs(b.Y - a.Y) > reach)
            {
                // where it comes near the row and where it leaves it
                var (low, high) = (_bottom + row * _side - reach - a.Y, _bottom + (row + 1) * _side + reach - a.Y);
                var (t0, t1) = (Math.Clamp(low / (b.Y - a.Y), 0, 1), Math.Clamp(high / (b.Y - a.Y), 0, 1));
                (x0, x1) = (a.X + t0 * (b.X - a.X), a.X + t1 * (b.X - a.X));
            }
            var (from, end) = (Column(Math.Min(x0, x1) - reach), Column(Math.Max(x0, x1) + reach));
            for (var column = from; column <= end; column++) to(row * _columns + column);
        }
    }
}

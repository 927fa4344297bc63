namespace MillCard.Core.Geometry;

/// <summary>What a border surely encloses, in squares: quickly found however often it crosses itself.</summary>
/// <remarks>From one point to another the winding number changes by at most one for every piece of the border between them. A square whose
/// middle has a greater number than pieces pass through it is therefore covered whole, where all areas wind the same way.</remarks>
internal sealed class CertainCells
{
    /// <summary>Most squares along a side.</summary>
    private const int Finest = 384;
    private const int Coarsest = 64;

    private readonly double _left, _bottom, _cell;
    private readonly int _side;
    private readonly bool[] _sure;
    // how many are sure in the rectangle from the first square up to each
    private readonly int[] _sums;

    /// <param name="border">Closed as a whole, areas to its left, none of them winding the other way.</param>
    /// <param name="stop">Ends the computation.</param>
    public CertainCells(IReadOnlyList<DirectedSegment> border, CancellationToken stop)
    {
        var (right, top) = (double.MinValue, double.MinValue);
        (_left, _bottom) = (double.MaxValue, double.MaxValue);
        foreach (var s in border)
        {
            (_left, right) = (Math.Min(_left, Math.Min(s.X0, s.X1)), Math.Max(right, Math.Max(s.X0, s.X1)));
            (_bottom, top) = (Math.Min(_bottom, Math.Min(s.Y0, s.Y1)), Math.Max(top, Math.Max(s.Y0, s.Y1)));
        }
        // as fine as the pieces of the border are short
        _side = (int)Math.Clamp(4 * Math.Sqrt(border.Count), Coarsest, Finest);
        _cell = Math.Max(Math.Max(right - _left, top - _bottom) / _side, Plane.Touch);
        _sure = WithoutSpecks(Numbers(border, stop));
        _sums = new int[(_side + 1) * (_side + 1)];
        for (var row = 0; row < _side; row++)
            for (var (column, sum) = (0, 0); column < _side; column++)
            {
                sum += _sure[row * _side + column] ? 1 : 0;
                _sums[(row + 1) * (_side + 1) + column + 1] = _sums[row * (_side + 1) + column + 1] + sum;
            }
    }

    /// <summary>Whether a triangle surely lies in what is enclosed.</summary>
    public bool Holds(in Triangle t) => Holds(Math.Min(t.X0, Math.Min(t.X1, t.X2)), Math.Min(t.Y0, Math.Min(t.Y1, t.Y2)),
        Math.Max(t.X0, Math.Max(t.X1, t.X2)), Math.Max(t.Y0, Math.Max(t.Y1, t.Y2)));

    /// <summary>Whether a rectangle surely lies in what is enclosed.</summary>
    public bool Holds(double minX, double minY, double maxX, double maxY)
    {
        var (left, right, low, high) = (Index(minX, _left), Index(maxX, _left) + 1, Index(minY, _bottom), Index(maxY, _bottom) + 1);
        var n = _side + 1;
        return _sums[high * n + right] - _sums[low * n + right] - _sums[high * n + left] + _sums[low * n + left]
            == (high - low) * (right - left);
    }

    /// <summary>The union of the squares.</summary>
    public Shape Area(CancellationToken stop) => Winding.Resolve(Border(), stop);

    /// <summary>The border of the union of the squares, the area to its left.</summary>
    public List<DirectedSegment> Border()
    {
        var edges = new List<DirectedSegment>();
        for (var row = 0; row <= _side; row++)
            for (int column = 0, end; column < _side; column = end)
            {
                var (above, below) = (Is(row, column), Is(row - 1, column));
                for (end = column + 1; end < _side && Is(row, end) == above && Is(row - 1, end) == below;) end++;
                if (above && !below) edges.Add(new(X(column), Y(row), X(end), Y(row)));
                if (below && !above) edges.Add(new(X(end), Y(row), X(column), Y(row)));
            }
        for (var column = 0; column <= _side; column++)
            for (int row = 0, end; row < _side; row = end)
            {
                var (after, before) = (Is(row, column), Is(row, column - 1));
                for (end = row + 1; end < _side && Is(end, column) == after && Is(end, column - 1) == before;) end++;
                if (after && !before) edges.Add(new(X(column), Y(end), X(column), Y(row)));
                if (before && !after) edges.Add(new(X(column), Y(row), X(column), Y(end)));
            }
        return edges;

        double X(int column) => _left + column * _cell;
        double Y(int row) => _bottom + row * _cell;
    }

    private bool Is(int row, int column) => row >= 0 && row < _side && column >= 0 && column < _side && _sure[row * _side + column];

    private int Index(double at, double from) => (int)Math.Clamp((at - from) / _cell, 0, _side - 1);

    /// <summary>The number at the middle of every square less the pieces that pass through it.</summary>
    private int[] Numbers(IReadOnlyList<DirectedSegment> border, CancellationToken stop)
    {
        var surely = new int[_side * _side];
        // by how much the number is greater to the left of a column
        var changes = new int[_side * (_side + 1)];
        for (var i = 0; i < border.Count; i++)
        {
            if (i % 4096 == 0) stop.ThrowIfCancellationRequested();
            Pass(border[i]);
        }
        for (var row = 0; row < _side; row++)
            for (var (column, number) = (_side - 1, 0); column >= 0; column--)
                surely[row * _side + column] += number += changes[row * (_side + 1) + column + 1];
        return surely;

        void Pass(DirectedSegment s)
        {
            var (low, high) = (Math.Min(s.Y0, s.Y1), Math.Max(s.Y0, s.Y1));
            for (int row = Index(low - Plane.Touch, _bottom), last = Index(high + Plane.Touch, _bottom); row <= last; row++)
            {
                var (from, to) = (_bottom + row * _cell, _bottom + (row + 1) * _cell);
                var (x0, x1) = s.Y0 == s.Y1 ? (s.X0, s.X1) : (s.At(from), s.At(to));
                var (first, end) = (Index(Math.Min(x0, x1) - Plane.Touch, _left), Index(Math.Max(x0, x1) + Plane.Touch, _left));
                for (var column = first; column <= end; column++) surely[row * _side + column]--;
                var middle = from + _cell / 2;
                if (s.Y0 <= middle == s.Y1 <= middle) continue;
                // a piece that goes up has its area to the left of it
                var by = s.Y1 > s.Y0 ? 1 : -1;
                var until = (int)Math.Ceiling((s.At(middle) - _left) / _cell - 0.5);
                if (until > 0) changes[row * (_side + 1) + Math.Min(until, _side)] += by;
            }
        }
    }

    /// <summary>The sure squares that lie in a block of nine of them: single ones would only make the outline long.</summary>
    private bool[] WithoutSpecks(int[] surely)
    {
        var kept = new bool[surely.Length];
        for (var row = 1; row + 1 < _side; row++)
            for (var column = 1; column + 1 < _side; column++)
            {
                var at = row * _side + column;
                if (Three(at - _side) && Three(at) && Three(at + _side))
                    foreach (var line in (ReadOnlySpan<int>)[at - _side, at, at + _side]) kept.AsSpan(line - 1, 3).Fill(true);
            }
        return kept;

        bool Three(int middle) => surely[middle - 1] > 0 && surely[middle] > 0 && surely[middle + 1] > 0;
    }
}

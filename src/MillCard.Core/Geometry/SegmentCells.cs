namespace MillCard.Core.Geometry;

/// <summary>Straight pieces by the square cells of a grid that they pass.</summary>
internal sealed class SegmentCells
{
    private const int MostCells = 1 << 21;
    private const int CellsEach = 2;

    private readonly double _left, _bottom;
    private readonly Buckets _pieces;

    /// <param name="segments">At least one.</param>
    /// <param name="stop">Ends the sorting.</param>
    public SegmentCells(IReadOnlyList<DirectedSegment> segments, CancellationToken stop)
    {
        var (left, bottom, right, top, lengths) = (double.MaxValue, double.MaxValue, double.MinValue, double.MinValue, 0.0);
        foreach (var s in segments)
        {
            (left, bottom) = (Math.Min(left, Math.Min(s.X0, s.X1)), Math.Min(bottom, Math.Min(s.Y0, s.Y1)));
            (right, top) = (Math.Max(right, Math.Max(s.X0, s.X1)), Math.Max(top, Math.Max(s.Y0, s.Y1)));
            lengths += Math.Max(Math.Abs(s.X1 - s.X0), Math.Abs(s.Y1 - s.Y0));
        }
        // about as many cells as pieces, but none much smaller than they are long: the work stays that of the pieces
        var (width, depth, most) = (right - left, top - bottom, Math.Min(MostCells, (double)CellsEach * segments.Count));
        Size = Math.Max(Math.Max(Math.Sqrt(width * depth / most), Math.Max(width, depth) / most),
            Math.Max(lengths / segments.Count / 4, Plane.Touch));
        // a margin all round, so that nothing lies on the grid's own border
        (_left, _bottom) = (left - Size / 3, bottom - Size / 3);
        (Columns, Rows) = (2 + (int)(width / Size), 2 + (int)(depth / Size));
        _pieces = new(Count, segments.Count, (piece, to) => Pass(segments[piece], to), stop);
    }

    /// <summary>A cell parted into smaller ones; pieces beside it are in those at its border too.</summary>
    /// <param name="whole">Where it lies.</param>
    /// <param name="cell">The cell.</param>
    /// <param name="segments">Those that pass it.</param>
    /// <param name="side">How many cells along its side.</param>
    public SegmentCells(SegmentCells whole, int cell, IReadOnlyList<DirectedSegment> segments, int side)
    {
        (_left, _bottom) = (whole.LeftOf(cell), whole.BottomOf(cell));
        (Size, Columns, Rows) = (whole.Size / side, side, side);
        _pieces = new(Count, segments.Count, (piece, to) => Pass(segments[piece], to));
    }

    /// <summary>Side of a cell, mm.</summary>
    public double Size { get; }
    public int Columns { get; }
    public int Rows { get; }
    public int Count => Columns * Rows;

    /// <summary>Cells that several pieces pass and that do not lie in what is surely enclosed.</summary>
    public List<int> Open(CertainCells? certain)
    {
        var open = new List<int>();
        for (var cell = 0; cell < Count; cell++)
        {
            var (x, y) = (LeftOf(cell), BottomOf(cell));
            if (In(cell).Length > 1 && certain?.Holds(x, y, x + Size, y + Size) != true) open.Add(cell);
        }
        return open;
    }

    public int CellOf(double x, double y) => Index(y - _bottom, Rows) * Columns + Index(x - _left, Columns);

    /// <summary>Pairs of pieces that share a cell.</summary>
    public long PairsIn(int cell) => (long)In(cell).Length * (In(cell).Length - 1) / 2;

    public ReadOnlySpan<int> In(int cell) => _pieces.In(cell);

    /// <summary>A point of a cell near its middle; beside it, so that pieces in regular places do not run through it.</summary>
    public (double X, double Y) Middle(int cell) =>
        (_left + (cell % Columns + 0.4871237) * Size, _bottom + (cell / Columns + 0.5178641) * Size);

    /// <summary>X of a cell's left side, mm.</summary>
    public double LeftOf(int cell) => _left + cell % Columns * Size;

    /// <summary>Y of a cell's lower side, mm.</summary>
    public double BottomOf(int cell) => _bottom + cell / Columns * Size;

    private int Index(double at, int count) => Math.Clamp((int)(at / Size), 0, count - 1);

    /// <summary>All cells that a piece passes, and those that it all but touches.</summary>
    private void Pass(in DirectedSegment s, Action<int> to)
    {
        var (low, high) = (Math.Min(s.Y0, s.Y1), Math.Max(s.Y0, s.Y1));
        for (int row = Index(low - Plane.Touch - _bottom, Rows), last = Index(high + Plane.Touch - _bottom, Rows); row <= last; row++)
        {
            var (x0, x1) = s.Y0 == s.Y1 ? (s.X0, s.X1) : (s.At(_bottom + row * Size), s.At(_bottom + (row + 1) * Size));
            var first = Index(Math.Min(x0, x1) - Plane.Touch - _left, Columns);
            var end = Index(Math.Max(x0, x1) + Plane.Touch - _left, Columns);
            for (var column = first; column <= end; column++) to(row * Columns + column);
        }
    }
}

namespace MillCard.Core.Geometry;

/// <summary>Winding numbers in a cell that many pieces pass: it is parted into smaller ones, and the number in the middle of each is
/// reckoned from that of the one before.</summary>
internal sealed class CrowdedCell
{
    private readonly List<NodedEdge> _edges;
    private readonly DirectedSegment[] _segments;
    private readonly int[] _pieces, _numbers;
    private readonly SegmentCells _cells;

    /// <param name="edges">All pieces.</param>
    /// <param name="segments">The same, mm.</param>
    /// <param name="whole">The cells that they pass.</param>
    /// <param name="cell">The one that is parted.</param>
    /// <param name="number">The winding number in its middle.</param>
    public CrowdedCell(List<NodedEdge> edges, DirectedSegment[] segments, SegmentCells whole, int cell, int number)
    {
        (_edges, _segments, _pieces) = (edges, segments, whole.In(cell).ToArray());
        // none so small that a piece all but touches many
        var side = (int)Math.Clamp(whole.Size / (2 * Plane.Touch), 1, Math.Sqrt(_pieces.Length));
        _cells = new(whole, cell, Array.ConvertAll(_pieces, k => segments[k]), side);
        _numbers = new int[_cells.Count];
        var middle = whole.Middle(cell);
        var first = _cells.CellOf(middle.X, middle.Y);
        _numbers[first] = number + Across(first, middle, _cells.Middle(first));
        var (columns, row) = (_cells.Columns, first / _cells.Columns);
        for (var c = first - 1; c >= row * columns; c--) Next(c + 1, c);
        for (var c = first + 1; c < (row + 1) * columns; c++) Next(c - 1, c);
        for (var c = row * columns - 1; c >= 0; c--) Next(c + columns, c);
        for (var c = (row + 1) * columns; c < _cells.Count; c++) Next(c - columns, c);
    }

    /// <summary>A place near by, and the number of borders round a place as it is reckoned from there, without one piece.</summary>
    public ((double X, double Y) From, int Number) NumberAt(double x, double y, int without)
    {
        var cell = _cells.CellOf(x, y);
        var from = _cells.Middle(cell);
        return (from, _numbers[cell] + Across(cell, from, (x, y), without));
    }

    /// <summary>The number in a cell from that in the one beside it: through the middle of the side that they share.</summary>
    private void Next(int known, int next)
    {
        var (a, b) = (_cells.Middle(known), _cells.Middle(next));
        var between = a.Y == b.Y ? (Math.Max(_cells.LeftOf(known), _cells.LeftOf(next)), a.Y)
            : (a.X, Math.Max(_cells.BottomOf(known), _cells.BottomOf(next)));
        _numbers[next] = _numbers[known] + Across(known, a, between) + Across(next, between, b);
    }

    private int Across(int cell, (double X, double Y) from, (double X, double Y) to, int without = -1)
    {
        var number = 0;
        foreach (var local in _cells.In(cell))
            if (_pieces[local] is var k && k != without) number += _segments[k].Across(from, to) * _edges[k].Times;
        return number;
    }
}

using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>Squares of a raster that an area surely covers.</summary>
internal sealed class CertainCells
{
    private readonly SquareRaster _raster;
    private readonly bool[] _sure;
    // how many are sure in the rectangle from the first square up to each
    private readonly int[] _sums;

    /// <param name="raster">The squares.</param>
    /// <param name="sure">Which of them are covered whole, row by row. Those in a block of nine are kept: single ones would only make the
    /// outline long.</param>
    public CertainCells(SquareRaster raster, bool[] sure)
    {
        (_raster, _sure) = (raster, WithoutSpecks(sure, raster.Side));
        var side = raster.Side;
        _sums = new int[(side + 1) * (side + 1)];
        for (var row = 0; row < side; row++)
            for (var (column, sum) = (0, 0); column < side; column++)
            {
                sum += _sure[row * side + column] ? 1 : 0;
                _sums[(row + 1) * (side + 1) + column + 1] = _sums[row * (side + 1) + column + 1] + sum;
            }
    }

    /// <summary>Whether a triangle surely lies in them.</summary>
    public bool Holds(in Triangle t)
    {
        if (!Holds(t.X0, t.Y0) || !Holds(t.X1, t.Y1) || !Holds(t.X2, t.Y2)) return false;
        return Holds(t.MinX, t.MinY, t.MaxX, t.MaxY) || HoldsByRows(t, _raster.Row(t.MinY), _raster.Row(t.MaxY));
    }

    /// <summary>Whether a rectangle surely lies in them.</summary>
    public bool Holds(double minX, double minY, double maxX, double maxY) =>
        Hold(_raster.Row(minY), _raster.Row(maxY), _raster.Column(minX), _raster.Column(maxX));

    /// <summary>Rectangles that the squares make, a row at a time.</summary>
    public IEnumerable<Envelope> Rectangles()
    {
        for (var row = 0; row < _raster.Side; row++)
            for (int column = 0, end; column < _raster.Side; column = end + 1)
            {
                for (end = column; Is(row, end);) end++;
                if (end > column) yield return new(_raster.X(column), _raster.X(end), _raster.Y(row), _raster.Y(row + 1));
            }
    }

    /// <summary>The border of the union of the squares, the area to its left.</summary>
    public List<DirectedSegment> Border()
    {
        var (edges, side) = (new List<DirectedSegment>(), _raster.Side);
        for (var row = 0; row <= side; row++)
            for (int column = 0, end; column < side; column = end)
            {
                var (above, below) = (Is(row, column), Is(row - 1, column));
                for (end = column + 1; end < side && Is(row, end) == above && Is(row - 1, end) == below;) end++;
                if (above && !below) edges.Add(new(_raster.X(column), _raster.Y(row), _raster.X(end), _raster.Y(row)));
                if (below && !above) edges.Add(new(_raster.X(end), _raster.Y(row), _raster.X(column), _raster.Y(row)));
            }
        for (var column = 0; column <= side; column++)
            for (int row = 0, end; row < side; row = end)
            {
                var (after, before) = (Is(row, column), Is(row, column - 1));
                for (end = row + 1; end < side && Is(end, column) == after && Is(end, column - 1) == before;) end++;
                if (after && !before) edges.Add(new(_raster.X(column), _raster.Y(end), _raster.X(column), _raster.Y(row)));
                if (before && !after) edges.Add(new(_raster.X(column), _raster.Y(row), _raster.X(column), _raster.Y(end)));
            }
        return edges;
    }

    private bool Is(int row, int column) =>
        row >= 0 && row < _raster.Side && column >= 0 && column < _raster.Side && _sure[row * _raster.Side + column];

    private bool Holds(double x, double y) => _sure[_raster.Row(y) * _raster.Side + _raster.Column(x)];

    private bool Hold(int low, int high, int left, int right)
    {
        var n = _raster.Side + 1;
        return _sums[(high + 1) * n + right + 1] - _sums[low * n + right + 1] - _sums[(high + 1) * n + left] + _sums[low * n + left]
            == (high + 1 - low) * (right + 1 - left);
    }

    private bool HoldsByRows(in Triangle t, int first, int last)
    {
        var banded = new Banded(t);
        for (var row = first; row <= last; row++)
        {
            var (bottom, top) = _raster.Band(row);
            var (left, right) = banded.Between(bottom, top);
            if (left <= right && !Hold(row, row, _raster.Column(left), _raster.Column(right))) return false;
        }
        return true;
    }

    private static bool[] WithoutSpecks(bool[] sure, int side)
    {
        var kept = new bool[sure.Length];
        for (var row = 1; row + 1 < side; row++)
            for (var column = 1; column + 1 < side; column++)
            {
                var at = row * side + column;
                if (Three(at - side) && Three(at) && Three(at + side))
                    foreach (var line in (ReadOnlySpan<int>)[at - side, at, at + side]) kept.AsSpan(line - 1, 3).Fill(true);
            }
        return kept;

        bool Three(int middle) => sure[middle - 1] && sure[middle] && sure[middle + 1];
    }
}

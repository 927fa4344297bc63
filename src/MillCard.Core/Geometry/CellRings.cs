using System.Numerics;

namespace MillCard.Core.Geometry;

/// <summary>The outlines of squares of a raster, found row by row in the time of their pieces.</summary>
internal sealed class CellRings
{
    private const int Word = 64;

    private readonly Func<int, ulong[]> _row;
    private readonly int _side, _most;
    // where each straight piece begins, and the piece that goes on at its end
    private readonly List<(int Column, int Row)> _from = [];
    private readonly List<int> _next = [];
    // by column: the upright piece that is under way below a row, and the one that begins above it
    private readonly int[] _below, _above;

    private CellRings(int side, Func<int, ulong[]> row, int most)
    {
        (_side, _row, _most) = (side, row, most);
        (_below, _above) = (new int[side], new int[side]);
    }

    /// <summary>Corners of every outline, squares to its left; where squares meet at a corner alone, each goes round its own.</summary>
    /// <param name="side">Squares along a side of the raster; those at its own border have to be free.</param>
    /// <param name="row">The squares of a row, a bit each.</param>
    /// <param name="most">Most straight pieces.</param>
    /// <param name="stop">Ends the search.</param>
    /// <returns>Null where there are more.</returns>
    public static List<(int Column, int Row)[]>? Of(int side, Func<int, ulong[]> row, int most, CancellationToken stop)
    {
        var rings = new CellRings(side, row, most);
        return rings.Find(stop) ? rings.Linked() : null;
    }

    private bool Find(CancellationToken stop)
    {
        var above = _row(0);
        for (var row = 1; row < _side; row++)
        {
            if (row % 256 == 0) stop.ThrowIfCancellationRequested();
            if (_from.Count > _most) return false;
            (var below, above) = (above, _row(row));
            BeginUpright(row, above, below);
            Level(row, above, below);
        }
        return true;
    }

    /// <summary>Upright pieces that begin above a row's lower side.</summary>
    private void BeginUpright(int row, ulong[] above, ulong[] below)
    {
        ulong carriedAbove = 0, carriedBelow = 0;
        for (var word = 0; word < above.Length; word++)
        {
            // bit for bit: whether a square differs from the one before it
            var changesAbove = above[word] ^ (above[word] << 1 | carriedAbove);
            var changesBelow = below[word] ^ (below[word] << 1 | carriedBelow);
            (carriedAbove, carriedBelow) = (above[word] >> (Word - 1), below[word] >> (Word - 1));
            var goesOn = changesAbove & changesBelow & ~(above[word] ^ below[word]);
            for (var begins = changesAbove & ~goesOn; begins != 0; begins &= begins - 1)
            {
                var column = word * Word + BitOperations.TrailingZeroCount(begins);
                // squares to its right are to its left on its way down: where it begins is seen when it ends
                _above[column] = Is(above, column) ? Add(column, -1) : Add(column, row);
            }
        }
    }

    /// <summary>Level pieces along a row's lower side, and what they join.</summary>
    private void Level(int row, ulong[] above, ulong[] below)
    {
        var before = (Piece: -1, End: -1);
        for (var (column, end) = (0, 0); Differs(above, below, column) is >= 0 and var from; column = end)
        {
            var isAbove = Is(above, from);
            for (end = from + 1; Is(above, end) == isAbove && Is(below, end) != isAbove;) end++;
            var piece = Add(isAbove ? from : end, row);
            if (before.End != from) Corner(before.Piece, -1, before.End, row, above, below);
            Corner(before.End == from ? before.Piece : -1, piece, from, row, above, below);
            before = (piece, end);
        }
        Corner(before.Piece, -1, before.End, row, above, below);
    }

    /// <summary>Joins the pieces at a corner: left and right of it, above and below.</summary>
    private void Corner(int left, int right, int column, int row, ulong[] above, ulong[] below)
    {
        if (left < 0 && right < 0) return;
        var (upper, lower) = (Is(above, column) != Is(above, column - 1), Is(below, column) != Is(below, column - 1));
        // of four, those at a square that is covered belong together
        var rising = Is(above, column);
        var (withUpper, withLower) = rising ? (right, left) : (left, right);
        if (left < 0 || right < 0) withUpper = withLower = Math.Max(left, right);
        if (upper)
        {
            // down to the corner where squares lie to the right of it
            if (rising) _next[_above[column]] = withUpper;
            else _next[withUpper] = _above[column];
        }
        if (lower)
        {
            if (Is(below, column))
            {
                _from[_below[column]] = (column, row);
                _next[withLower] = _below[column];
            }
            else _next[_below[column]] = withLower;
        }
        if (upper) _below[column] = _above[column];
    }

    private int Add(int column, int row)
    {
        _from.Add((column, row));
        _next.Add(-1);
        return _from.Count - 1;
    }

    /// <summary>The first column from one on where two rows differ; below 0 for none.</summary>
    private static int Differs(ulong[] one, ulong[] other, int from)
    {
        for (var word = from / Word; word < one.Length; word++)
        {
            var differ = one[word] ^ other[word];
            if (word == from / Word) differ &= ulong.MaxValue << from;
            if (differ != 0) return word * Word + BitOperations.TrailingZeroCount(differ);
        }
        return -1;
    }

    private static bool Is(ulong[] row, int column) => column / Word < row.Length && (row[column / Word] >> column & 1) != 0;

    private List<(int Column, int Row)[]> Linked()
    {
        var rings = new List<(int, int)[]>();
        var ring = new List<(int, int)>();
        for (var first = 0; first < _next.Count; first++)
        {
            for (var piece = first; _next[piece] >= 0; ring.Add(_from[piece])) (piece, _next[piece]) = (_next[piece], -1);
            if (ring.Count > 0) rings.Add([.. ring]);
            ring.Clear();
        }
        return rings;
    }
}

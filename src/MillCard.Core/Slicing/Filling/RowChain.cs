namespace MillCard.Core.Slicing.Filling;

/// <summary>Pieces of neighbouring rows that are laid one after the other, to and fro.</summary>
internal sealed class RowChain(RowPiece first)
{
    private readonly List<RowPiece> _pieces = [first];
    /// <summary>The side on which the way ends, 1 or -1.</summary>
    private int _side = 1;

    /// <summary>The last piece.</summary>
    public RowPiece Last => _pieces[^1];

    /// <summary>Whether the way may end on a side: while there is one piece it may be gone either way.</summary>
    public bool MayEndOn(int side) => _pieces.Count == 1 || side == _side;

    /// <summary>Goes on with a piece of the next row.</summary>
    /// <param name="piece">The piece.</param>
    /// <param name="side">The side on which it is joined to the last.</param>
    public void Join(RowPiece piece, int side)
    {
        _pieces.Add(piece);
        _side = -side;
    }

    /// <summary>The corners of the whole way.</summary>
    public IEnumerable<Along> Way()
    {
        var side = _pieces.Count % 2 == 0 ? _side : -_side;
        foreach (var piece in _pieces)
        {
            yield return piece.At(side);
            yield return piece.At(-side);
            side = -side;
        }
    }
}

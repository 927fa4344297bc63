namespace MillCard.Core.Slicing.Filling;

/// <summary>A piece of a row of a hatch.</summary>
/// <param name="From">Where it begins, along the rows, mm.</param>
/// <param name="To">Where it ends.</param>
/// <param name="V">Where it lies across the rows, mm.</param>
internal readonly record struct RowPiece(double From, double To, double V)
{
    /// <summary>The end on a side.</summary>
    /// <param name="side">1 for where it ends, -1 for where it begins.</param>
    public Along At(int side) => new(side > 0 ? To : From, V);

    /// <summary>Whether a piece of a neighbouring row lies beside it.</summary>
    public bool IsBeside(RowPiece other) => From < other.To && To > other.From;
}

namespace MillCard.Core.Slicing.Filling;

/// <summary>A piece of a row of a hatch, with how it is led on at its ends.</summary>
/// <param name="from">Where it begins, along the rows, mm.</param>
/// <param name="to">Where it ends.</param>
/// <param name="v">Where it lies across the rows, mm.</param>
internal sealed class RowPiece(double from, double to, double v)
{
    private Along? _ledBeyondFrom, _ledBeyondTo;

    /// <summary>A corner on the way to it from the piece of the row below that it is joined to.</summary>
    public Along? Corner { get; set; }
    /// <summary>Whether a piece of the row below lies beside it.</summary>
    public bool HasBelow { get; set; }
    /// <summary>Whether a piece of the row above lies beside it.</summary>
    public bool HasAbove { get; set; }

    /// <summary>The end on a side.</summary>
    /// <param name="side">1 for where it ends, -1 for where it begins.</param>
    public Along At(int side) => new(side > 0 ? to : from, v);

    /// <summary>Leads it beyond an end.</summary>
    public void Lead(int side, Along beyond)
    {
        if (side > 0) _ledBeyondTo = beyond;
        else _ledBeyondFrom = beyond;
    }

    /// <summary>Whether a piece of a neighbouring row lies beside it.</summary>
    public bool IsBeside(RowPiece other) => At(-1).U < other.At(1).U && At(1).U > other.At(-1).U;

    /// <summary>The corners of the way along it.</summary>
    /// <param name="side">The side on which it begins, 1 or -1.</param>
    public IEnumerable<Along> Way(int side) => [.. Ends(side).Reverse(), .. Ends(-side)];

    /// <summary>The way to one of its ends and beyond.</summary>
    private Along[] Ends(int side)
    {
        var end = At(side);
        if ((side > 0 ? _ledBeyondTo : _ledBeyondFrom) is not { } led) return [end];
        // straight there, so that nothing is laid twice
        return [end with { U = end.U - side * Math.Min(end.To(led), (to - from) / 2) }, led];
    }
}

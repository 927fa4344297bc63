namespace MillCard.Core.Geometry;

/// <summary>Numbers of things by the cells that they pass, in one list.</summary>
internal sealed class Buckets
{
    private readonly int[] _starts, _within = [];

    /// <param name="cells">How many cells there are.</param>
    /// <param name="things">How many things there are.</param>
    /// <param name="pass">Calls back with every cell that a thing passes; asked twice.</param>
    /// <param name="stop">Ends the sorting.</param>
    public Buckets(int cells, int things, Action<int, Action<int>> pass, CancellationToken stop = default)
    {
        _starts = new int[cells + 2];
        var thing = 0;
        // each cell's beginning moves to its end while it is filled, which is where the next one begins
        Action<int> count = cell => _starts[cell + 2]++, put = cell => _within[_starts[cell + 1]++] = thing;
        for (; thing < things; thing++) pass(thing, count);
        stop.ThrowIfCancellationRequested();
        for (var cell = 0; cell < cells; cell++) _starts[cell + 2] += _starts[cell + 1];
        _within = new int[_starts[cells + 1]];
        for (thing = 0; thing < things; thing++) pass(thing, put);
    }

    /// <summary>The things that pass a cell.</summary>
    public ReadOnlySpan<int> In(int cell) => _within.AsSpan(_starts[cell].._starts[cell + 1]);
}

using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Writing;

/// <summary>A way that is laid at one flow.</summary>
/// <param name="Volume">mm³.</param>
/// <param name="Flow">As quickly as it is meant to be laid, mm³/s.</param>
internal readonly record struct FlowOfMove(double Volume, double Flow);

/// <summary>Flows that rise and fall no more quickly than a slope, and nowhere go beyond what is meant.</summary>
/// <remarks>Flow over volume is what speed is over way: at a constant slope S the square of the flow changes by 2·S·V. So the junctions
/// of moves are settled from the last to the first and from the first to the last, as a planner settles speeds at corners.</remarks>
internal sealed class SmoothFlow
{
    /// <summary>A ramp is laid in steps of at most so much, mm³/s: finer than what a drive tells apart, few moves.</summary>
    private const double Step = 0.5;

    private readonly IReadOnlyList<FlowOfMove> _moves;
    private readonly double[] _at;
    private readonly double _slope;

    /// <param name="moves">In their order; one at least.</param>
    /// <param name="slope">mm³/s in a second.</param>
    public SmoothFlow(IReadOnlyList<FlowOfMove> moves, double slope)
    {
        (_moves, _slope) = (moves, slope);
        _at = new double[moves.Count + 1];
        for (var i = moves.Count; i >= 0; i--)
        {
            // both ends are free
            _at[i] = Math.Min(moves[Math.Max(0, i - 1)].Flow, moves[Math.Min(i, moves.Count - 1)].Flow);
            if (i < moves.Count) _at[i] = Math.Min(_at[i], Reached(_at[i + 1], moves[i].Volume));
        }
        for (var i = 0; i < moves.Count; i++) _at[i + 1] = Math.Min(_at[i + 1], Reached(_at[i], moves[i].Volume));
    }

    /// <summary>What is laid of a move at one flow after the other: shares of it, which make 1, and flows, mm³/s.</summary>
    public IEnumerable<(double Share, double Flow)> PiecesOf(int move)
    {
        var (volume, top) = _moves[move];
        var (from, to) = (_at[move], _at[move + 1]);
        if (volume <= 0)
        {
            yield return (1, Math.Min(from, to));
            yield break;
        }
        // where rising and falling meet, if that is below what is meant
        top = Math.Min(top, Math.Sqrt(_slope * volume + (from * from + to * to) / 2));
        var (rising, falling) = (VolumeOf(from, top), VolumeOf(to, top));
        foreach (var piece in Ramp(from, top, rising)) yield return (piece.Volume / volume, piece.Flow);
        if (volume - rising - falling is var rest && rest > 1e-9 * volume) yield return (rest / volume, top);
        foreach (var piece in Ramp(to, top, falling).Reverse()) yield return (piece.Volume / volume, piece.Flow);
    }

    private IEnumerable<(double Volume, double Flow)> Ramp(double low, double high, double volume)
    {
        if (volume <= 0) yield break;
        var count = (int)Math.Ceiling((high - low) / Step);
        for (var i = 0; i < count; i++)
        {
            var (from, to) = (low + (high - low) * i / count, low + (high - low) * (i + 1) / count);
            yield return (VolumeOf(from, to), (from + to) / 2);
        }
    }

    private double VolumeOf(double low, double high) => Math.Max(0, (high * high - low * low) / (2 * _slope));

    [Formula("Flow that may rise only so fast", "q = √(q₀² + 2·σ·V)",
        "Constant rise over time, as of a speed over a way.",
        Where = "q₀ flow at its beginning, σ most rise, V volume laid meanwhile")]
    private double Reached(double from, double volume) => Math.Sqrt(from * from + 2 * _slope * volume);
}

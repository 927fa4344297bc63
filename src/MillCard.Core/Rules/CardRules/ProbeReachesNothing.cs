using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A probe so far from the nozzle that it reaches no point of the bed.</summary>
public sealed class ProbeReachesNothing : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("probe-reaches-nothing", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Head.Probe is not { Kind: not (null or ProbeKind.None) } probe || card.Motion.Layout == MotionLayout.Delta) yield break;
        if (Sizes.Of(card.Envelope.Bed) is not var (width, depth) || card.Envelope.Origin is not { } origin) yield break;
        if (Misses(card.Motion.Axes.X, probe.X, origin.X, width) is { } x) yield return Off("x", x);
        if (Misses(card.Motion.Axes.Y, probe.Y, origin.Y, depth) is { } y) yield return Off("y", y);
    }

    private Finding Off(string axis, double by) => Id.At(JsonPointer.Root / "head" / "probe" / axis,
        $"The probe misses the bed by {by:0.#} mm along {axis.ToUpperInvariant()} wherever the head stands.",
        "It finds no point of the bed.");

    /// <summary>How far the probe stays from the bed at best; null where it reaches it.</summary>
    private static double? Misses(Axis? axis, double? offset, double zero, double size)
    {
        if (offset is not { } by) return null;
        var (min, max) = ((axis?.Min ?? -zero) + zero + by, (axis?.Max ?? size - zero) + zero + by);
        var gap = Math.Max(-max, min - size);
        return gap > 0 ? gap : null;
    }
}

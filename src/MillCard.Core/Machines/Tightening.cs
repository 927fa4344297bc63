using MillCard.Core.Documents;

namespace MillCard.Core.Machines;

/// <summary>A card as one trial may use it.</summary>
public static class Tightening
{
    /// <summary>The card with the trial's limits on top of its own: the lower height, the wider margin, all keep-outs.</summary>
    public static Card Tightened(this Card card, TrialLimits? limits)
    {
        if (limits is null) return card;
        var use = card.Envelope.Use ?? new UseLimits();
        return card with
        {
            Envelope = card.Envelope with
            {
                Use = use with { Height = Least(use.Height, limits.Height), Margin = Math.Max(use.Margin ?? 0, limits.Margin ?? 0) },
                KeepOuts = [.. card.Envelope.KeepOuts, .. limits.KeepOuts],
            },
        };
    }

    private static double? Least(double? a, double? b) => a is { } one && b is { } other ? Math.Min(one, other) : a ?? b;
}

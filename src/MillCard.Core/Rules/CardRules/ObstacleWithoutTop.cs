using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>An obstacle whose height nobody knows.</summary>
public sealed class ObstacleWithoutTop : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("obstacle-without-top", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card) =>
        from pair in card.Envelope.KeepOuts.Select((keepOut, index) => (keepOut, index))
        where pair.keepOut is { Kind: KeepOutKind.Obstacle, Top: null }
        select Id.At(JsonPointer.KeepOut(pair.index) / "top",
            $"The top of {pair.keepOut.Name} is not known; it is taken as endlessly high.",
            "The border that the head needs round an obstacle depends on its height.");
}

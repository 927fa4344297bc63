using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>An obstacle that is higher than the machine.</summary>
public sealed class ObstacleAboveMachine : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("obstacle-above-machine", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Envelope.Height is not { } height) yield break;
        for (var i = 0; i < card.Envelope.KeepOuts.Count; i++)
            if (card.Envelope.KeepOuts[i] is { Kind: KeepOutKind.Obstacle, Top: { } top } keepOut && top > height)
                yield return Id.At(JsonPointer.KeepOut(i) / "top",
                        $"{keepOut.Name} is {top:0.##} mm high; the machine prints {height:0.##} mm high.",
                        "Nothing ever passes over it, or the figure is a slip.")
                    .Cure(Invariant($"As high as the machine, {height:0.##}"),
                        Edit.Fact(JsonPointer.KeepOut(i) / "top", height));
    }
}

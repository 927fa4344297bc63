using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Motion;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A delta whose travel goes beyond what its arms reach.</summary>
public sealed class DeltaBeyondArms : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("delta-beyond-arms", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (DeltaGeometry.Of(card) is not { } delta || card.Motion.Axes.X?.Max is not { } reached || reached <= delta.ReachRadius + 0.05)
            yield break;
        yield return Id.At("/motion/axes/x/max", $"The card reaches a radius of {reached:0.#} mm; arms of {delta.Arm:0.#} on "
            + $"towers at {delta.Radius:0.#} reach {delta.ReachRadius:0.#}.",
            $"Beyond it an arm would stand flatter than {DeltaGeometry.LeastAngle:0}°, or not reach at all.");
    }
}

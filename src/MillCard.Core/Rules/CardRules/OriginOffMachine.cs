using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>The machine's zero so far from the bed that no axis counts from there.</summary>
public sealed class OriginOffMachine : ICardRule
{
    private const double Far = 150;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("origin-off-machine", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (Sizes.Of(card.Envelope.Bed) is not var (width, depth) || card.Envelope.Origin is not { } origin) yield break;
        var (offX, offY) = (Off(origin.X, width), Off(origin.Y, depth));
        var beside = Math.Max(offX, offY);
        if (beside <= Far) yield break;
        yield return Id.At(offX > offY ? "/envelope/origin/x" : "/envelope/origin/y",
                $"The machine's zero lies {beside:0.#} mm beside the bed.",
                "The origin is measured in the bed's frame: from its front left corner. Every place would be computed wrong.")
            .Cure("Zero at the front left corner", Edit.Fact("/envelope/origin/x", 0), Edit.Fact("/envelope/origin/y", 0));
    }

    private static double Off(double place, double size) => Math.Max(0, Math.Max(-place, place - size));
}

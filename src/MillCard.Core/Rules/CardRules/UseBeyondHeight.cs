using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A limit of use above what the machine can reach.</summary>
public sealed class UseBeyondHeight : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("use-beyond-height", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Envelope is { Height: { } height, Use.Height: { } use } && use > height)
            yield return Id.At("/envelope/use/height", $"The usable height is {use:0.##} mm, but the machine reaches {height:0.##}.",
                "A limit of use only ever tightens; the machine's own figure counts.");
    }
}

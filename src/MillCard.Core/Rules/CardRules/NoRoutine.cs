using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A card without a start or an end routine.</summary>
public sealed class NoRoutine : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("no-routine", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (string.IsNullOrWhiteSpace(card.Routines.Start))
            yield return Id.At("/routines/start", "There is no start routine.",
                "Nothing homes the machine or heats it: a print would not begin as it should.");
        if (string.IsNullOrWhiteSpace(card.Routines.End))
            yield return Id.At("/routines/end", "There is no end routine.", "Nothing switches the heaters off when the print is done.");
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A rule that looks at a card, complete or not.</summary>
public interface ICardRule
{
    /// <summary>Its name and severity.</summary>
    RuleId Id { get; }

    /// <summary>What it finds.</summary>
    IEnumerable<Finding> Look(Card card);
}

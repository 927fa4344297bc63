using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Rules;

namespace MillCard.Core.Routines.Previews;

/// <summary>A card looked at as a whole: its facts by the rules, its routines by writing them out.</summary>
public static class CardCheck
{
    /// <summary>All findings, worst first; accepted ones carry the reason.</summary>
    public static IReadOnlyList<Finding> Of(Card card, CancellationToken stop) => RuleBook.Check(card, WrittenOut.FailuresOf(card, stop));
}

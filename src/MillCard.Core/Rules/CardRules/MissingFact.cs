using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A fact that bites and is not there yet: a draft lacks it.</summary>
public sealed class MissingFact : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("missing-fact", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card) =>
        from error in SchemaCheck.Of(DocumentSchema.Of(typeof(Card)), JsonSerializer.SerializeToElement(card, DocumentJson.Options))
        select Id.At(error.Pointer, error.Message, "Nothing that bites is filled in silence; without it nothing can be sliced.");
}

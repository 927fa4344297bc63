using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>An idle nozzle on the same carriage that hangs lower than the one that prints.</summary>
public sealed class IdleNozzleLower : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("idle-nozzle-lower", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        var nozzles = card.Head.Nozzles ?? [];
        if (nozzles.Count < 2 || card.Head.Carriages.Count == 2 || card.Head.Changer == true) yield break;
        var lowest = nozzles.MinBy(n => n.Offset?.Z ?? 0)!;
        for (var i = 0; i < nozzles.Count; i++)
            if ((nozzles[i].Offset?.Z ?? 0) - (lowest.Offset?.Z ?? 0) is var higher and > 0)
                yield return Id.At(JsonPointer.Nozzle(i) / "offset" / "z",
                    $"While {nozzles[i].Id} prints, {lowest.Id} hangs {higher:0.###} mm lower.",
                    "The idle nozzle drags through what is printed, unless something lifts it.");
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A body or a beam of the head that hangs as low as the nozzle's tip, or lower.</summary>
public sealed class BodyBelowTip : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("body-below-tip", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        for (var i = 0; i < card.Head.Bodies.Count; i++)
        {
            var body = card.Head.Bodies[i];
            var nozzle = (card.Head.Nozzles ?? []).FirstOrDefault(n => n.Id == body.On)
                ?? (card.Head.Nozzles is [var first, ..] ? first : null);
            var above = body.Underside - (nozzle?.Offset?.Z ?? 0);
            if (above <= 0) yield return Low(JsonPointer.Body(i) / "underside", body.Name, above, nozzle?.Id);
        }
        for (var i = 0; i < card.Head.Beams.Count; i++)
            if (card.Head.Beams[i].Underside <= 0)
                yield return Low(JsonPointer.Beam(i) / "underside", "The beam", card.Head.Beams[i].Underside, null);
    }

    private Finding Low(string pointer, string name, double above, string? nozzle)
    {
        var tip = nozzle is null ? "the nozzle" : $"nozzle {nozzle}";
        var below = -above;
        var where = below > 0 ? Sentence.Of($"{below:0.##} mm below") : Sentence.Of($"level with");
        return Id.At(pointer, $"{name} hangs {where} the tip of {tip}.",
            "It would touch the bed before the nozzle does, and drag over everything that is printed.");
    }
}

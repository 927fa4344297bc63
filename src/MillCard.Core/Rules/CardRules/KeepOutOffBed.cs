using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A keep-out that does not touch the bed.</summary>
public sealed class KeepOutOffBed : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("keep-out-off-bed", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Envelope.Bed is not (RectangleBed { Width: not null, Depth: not null } or EllipseBed
            {
                Width: not null,
                Depth: not null
            })) yield break;
        var bed = Shapes.Of(card.Envelope.Bed);
        for (var i = 0; i < card.Envelope.KeepOuts.Count; i++)
        {
            var keepOut = card.Envelope.KeepOuts[i];
            if (BadOutline.Broken(keepOut.Outline)) continue;
            var away = bed.Distance(Shapes.Of(keepOut.Outline, Side.Outside));
            if (away > 0) yield return Id.At(JsonPointer.KeepOut(i) / "outline", $"{keepOut.Name} lies {away:0.0} mm off the bed.",
                "Coordinates of keep-outs count from the bed's front-left corner, not from the machine's zero.");
        }
    }
}

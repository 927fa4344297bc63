using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;

namespace MillCard.Core.Rules.CardRules;

/// <summary>An outline that crosses itself or has no area, or a beam whose faces are swapped.</summary>
public sealed class BadOutline : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("bad-outline", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Envelope.Bed is PolygonBed bed && Broken(new PolygonOutline { Points = bed.Points }))
            yield return Say("/envelope/bed/points", "The bed");
        for (var i = 0; i < card.Envelope.KeepOuts.Count; i++)
            if (Broken(card.Envelope.KeepOuts[i].Outline))
                yield return Say(JsonPointer.KeepOut(i) / "outline", card.Envelope.KeepOuts[i].Name);
        for (var i = 0; i < card.Head.Beams.Count; i++)
            if (card.Head.Beams[i] is var beam && beam.Far <= beam.Near)
                yield return Id.At(JsonPointer.Beam(i) / "far",
                    $"The beam's far face at {beam.Far:0.##} lies no further than its near one at {beam.Near:0.##}.",
                    "What is inside and what is outside cannot be told.");
        for (var i = 0; i < card.Head.Bodies.Count; i++)
            if (Broken(card.Head.Bodies[i].Outline)) yield return Say(JsonPointer.Body(i) / "outline", card.Head.Bodies[i].Name);
    }

    /// <summary>Whether an outline cannot stand for an area.</summary>
    internal static bool Broken(Outline outline)
    {
        if (outline is not PolygonOutline polygon) return false;
        try { Shapes.Of(polygon, Side.Outside); return false; }
        catch (OutlineException) { return true; }
    }

    private Finding Say(string pointer, string name) =>
        Id.At(pointer, $"{name}'s outline crosses itself, has no area, or has a corner that is not two numbers.",
        "What is inside and what is outside cannot be told.");
}

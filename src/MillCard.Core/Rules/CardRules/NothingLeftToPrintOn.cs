using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.CardRules;

/// <summary>Margins or a keep-out that leave no place on the bed.</summary>
public sealed class NothingLeftToPrintOn : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("nothing-left-to-print-on", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (Sizes.Of(card.Envelope.Bed) is not var (width, depth) || card.Envelope.KeepOuts.Any(k => BadOutline.Broken(k.Outline)))
            yield break;
        Machine? machine;
        try { machine = Machine.OfDraft(card); }
        catch (OutlineException) { yield break; }
        if (machine is null) yield break;
        if (machine.Usable.IsEmpty)
        {
            var pointer = card.Envelope.Use?.Edges is null ? "/envelope/use/margin" : "/envelope/use/edges";
            yield return Id.At(pointer,
                $"The margins leave nothing of the bed of {width:0.#} × {depth:0.#} mm.",
                    "Nothing can be printed.")
                .Cure("No margins", card.Envelope.Use?.Edges is null
                    ? [Edit.Fact("/envelope/use/margin", 0)]
                    : [Edit.Fact("/envelope/use/edges/left", 0), Edit.Fact("/envelope/use/edges/right", 0),
                        Edit.Fact("/envelope/use/edges/front", 0),
                        Edit.Fact("/envelope/use/edges/back", 0), Edit.Fact("/envelope/use/margin", 0)]);
            yield break;
        }
        for (var i = 0; i < machine.KeepOuts.Count; i++)
            if (machine.KeepOuts[i] is var region && region.KeepOut.Kind != KeepOutKind.BadSurface && region.Outline.Covers(machine.Usable))
                yield return Id.At(JsonPointer.KeepOut(i) / "outline", $"{region.KeepOut.Name} covers all of the usable bed.",
                    "Nothing can be printed.").Cure("Remove it", Edit.Fact(JsonPointer.KeepOut(i), null));
    }
}

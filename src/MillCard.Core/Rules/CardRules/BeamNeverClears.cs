using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A beam that hits the bed, or an obstacle wherever the nozzle prints.</summary>
public sealed class BeamNeverClears : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("beam-never-clears", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (Sizes.Of(card.Envelope.Bed) is not var (width, depth)) yield break;
        for (var i = 0; i < card.Head.Beams.Count; i++)
        {
            var beam = card.Head.Beams[i];
            if (beam.Underside <= 0)
            {
                yield return Id.At(JsonPointer.Beam(i) / "underside",
                    $"The beam along {beam.Along} hangs at the height of the nozzle's tip.", "It would drag over every layer.")
                    .Cure("1 mm above the tip", Edit.Fact(JsonPointer.Beam(i) / "underside", 1));
                continue;
            }
            for (var k = 0; k < card.Envelope.KeepOuts.Count; k++)
                if (card.Envelope.KeepOuts[k] is { Kind: KeepOutKind.Obstacle, Top: { } top } obstacle && top > beam.Underside
                    && !BadOutline.Broken(obstacle.Outline) && Everywhere(beam, obstacle, beam.Along == BeamAxis.X ? depth : width))
                    yield return Id.At(JsonPointer.Beam(i),
                        $"Wherever the nozzle stands on the bed, the beam along {beam.Along}, {beam.Underside:0.##} mm up, "
                            + $"hits {obstacle.Name}, {top:0.##} mm high.",
                        "Nothing can be printed.")
                        .Cure(Invariant($"The beam hangs {top:0.##} mm up"),
                            Edit.Fact(JsonPointer.Beam(i) / "underside", top));
        }
    }

    /// <summary>Whether the strip meets an obstacle from one end of the bed to the other.</summary>
    private static bool Everywhere(Beam beam, KeepOut obstacle, double size)
    {
        var box = Shapes.Of(obstacle.Outline, Side.Outside).EnvelopeInternal;
        var (low, high) = beam.Along == BeamAxis.X ? (box.MinY, box.MaxY) : (box.MinX, box.MaxX);
        var (near, far) = (Math.Min(beam.Near, beam.Far), Math.Max(beam.Near, beam.Far));
        return low - far <= 0 && high - near >= size;
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>Offsets of further nozzles that are applied twice, or by nobody.</summary>
public sealed class OffsetsApplied : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("offsets-applied", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if ((card.Head.Nozzles ?? []).Skip(1).All(n => n.Offset is null or { X: 0, Y: 0, Z: 0 })) yield break;
        var use = card.Head.Offsets;
        if (use is { Firmware: true, Gcode: true })
            yield return Id.At("/head/offsets", "The nozzles' offsets are applied twice: by the firmware and in the G-code.",
                "The second nozzle prints beside its place by its offset, and may hit things.");
        else if (use?.Firmware != true && use?.Gcode != true)
            yield return Id.At("/head/offsets", $"Nobody applies the nozzles' "
                + $"offsets{(use is null ? ": the card does not say whether the firmware or the G-code does" : "")}.",
                "The second nozzle prints beside its place by its offset.");
    }
}

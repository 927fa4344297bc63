using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A filament diameter that is neither 1.75 nor 2.85 mm.</summary>
public sealed class UncommonFilamentDiameter : ICardRule
{
    private static readonly double[] Common = [1.75, 2.85];

    /// <inheritdoc/>
    public RuleId Id { get; } = new("uncommon-filament-diameter", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card) =>
        from pair in (card.Head.Nozzles ?? []).Select((nozzle, index) => (nozzle, index))
        where pair.nozzle.FilamentDiameter is { } d && !Common.Contains(d)
        let diameter = pair.nozzle.FilamentDiameter!.Value
        let nearest = Common.MinBy(c => Math.Abs(c - diameter))
        let share = 100 * nearest * nearest / (diameter * diameter)
        select Id.At(JsonPointer.Nozzle(pair.index) / "filamentDiameter",
            $"Filament of {diameter:0.##} mm is uncommon; with {nearest:0.00} mm in the feed, {share:0.0} % of the plastic would come out.",
            "1.75 and 2.85 mm are sold. This figure sets how much plastic every line gets.");
}

using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Heat;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A nozzle's rating that its own heat figures say it never reaches.</summary>
public sealed class RatingBeyondHeater : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("rating-beyond-heater", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        var nozzles = card.Head.Nozzles ?? [];
        for (var i = 0; i < nozzles.Count; i++)
        {
            if (nozzles[i] is not { MaxTemperature: { } rated, Heater: { } facts }) continue;
            // what was ever reached is a figure only where somebody has stated it, or a log tells where it ends
            if (facts.Best is null && Heaters.FitOf(facts) is not { Tells: true }) continue;
            var model = Heaters.Nozzle(card, nozzles[i]);
            if (model.Reaches(rated)) continue;
            var least = Math.Floor(model.Reachable);
            yield return Id.At(JsonPointer.Nozzle(i) / "maxTemperature",
                    $"Nozzle {nozzles[i].Id} is rated for {rated:0} °C; its heat figures end at {model.Reachable:0} °C.",
                    "A filament that wants more would match, and its print wait for ever.")
                .Cure(Invariant($"Rated for {least:0} °C"),
                    Edit.Fact(JsonPointer.Nozzle(i) / "maxTemperature", least));
        }
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Heat;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A heat-up log too short to tell where the heater ends, and a rating that the heater does not reach.</summary>
public sealed class HeatLogCannotTell : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("heat-log", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        foreach (var (pointer, name, facts) in Of(card))
        {
            if (Heaters.FitOf(facts) is not { } fit) continue;
            if (!fit.Tells)
                yield return Id.At(pointer / "log",
                    $"The log of the {name} covers {fit.Covers:0.#} time constants; it cannot tell where the {name} ends.",
                    $"Let it heat for {HeatFit.LongEnough * fit.Model.TimeConstant / 60:0} minutes and note on.");
            else if (facts!.Max is { } max && !fit.Model.Reaches(max))
                yield return Id.At(pointer / "max",
                    $"The {name} is rated to {max:0} °C and ends at {fit.Model.Reachable:0.#} in a room of {fit.Model.Room:0}.",
                    "A wait for more never ends.");
        }
    }

    private static IEnumerable<(JsonPointer Pointer, string Name, HeaterFacts? Facts)> Of(Card card)
    {
        yield return (JsonPointer.Root / "heat" / "bed", "bed", card.Heat.Bed);
        yield return (JsonPointer.Root / "heat" / "chamber", "chamber", card.Heat.Chamber);
        for (var i = 0; i < (card.Head.Nozzles?.Count ?? 0); i++)
            yield return (JsonPointer.Nozzle(i) / "heater", $"nozzle {card.Head.Nozzles![i].Id}", card.Head.Nozzles[i].Heater);
    }
}

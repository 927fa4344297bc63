using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>Two carriages whose facts do not go together.</summary>
public sealed class CarriagesIncomplete : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("carriages-incomplete", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        var (carriages, modes) = (card.Head.Carriages, card.Modes);
        if (carriages.Count == 1) yield return Id.At("/head/carriages",
            "One carriage is listed; two share a beam, and a machine with one lists none.", Why);
        if (modes.Count > 0 && carriages.Count != 2) yield return Id.At("/modes", "The card has modes but not two carriages.", Why);
        if (carriages.Count != 2) yield break;
        if (card.Head.LeastDistance is null) yield return Id.At("/head/leastDistance", "How near the two nozzles can come is missing.",
            "Without it the carriages can be sent into each other.");
        for (var i = 0; i < 2; i++)
        {
            var (carriage, number) = (carriages[i], i + 1);
            if (carriage.Max <= carriage.Min)
                yield return Id.At(JsonPointer.Carriage(i) / "max",
                    $"Carriage {number} ends at {carriage.Max:0.##}, before it begins at {carriage.Min:0.##}.", Why);
            else if (carriage.Park < carriage.Min || carriage.Park > carriage.Max)
                yield return Id.At(JsonPointer.Carriage(i) / "park",
                    $"Carriage {number} parks at {carriage.Park:0.##}, beyond its travel of {carriage.Min:0.##} to {carriage.Max:0.##}.",
                    Why);
        }
        if (carriages[1].Park - carriages[0].Park is var apart && apart < (card.Head.LeastDistance ?? 0))
            yield return Id.At("/head/carriages/0/park",
                $"Parked, the nozzles stand {apart:0.##} mm apart; they come no nearer than {card.Head.LeastDistance:0.##}.",
                "The first carriage listed is the left one.");
        for (var i = 0; i < modes.Count; i++)
            if (modes.Take(i).Any(m => m.Kind == modes[i].Kind))
                yield return Id.At(JsonPointer.Mode(i) / "kind", $"The mode {ModeNames.Of(modes[i].Kind)} is there twice.", Why);
    }

    private const string Why = "Reach and regions of the modes cannot be told from it.";
}

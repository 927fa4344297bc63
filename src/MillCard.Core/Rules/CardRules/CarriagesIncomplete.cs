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
            if (carriages[i].Max <= carriages[i].Min)
                yield return Id.At(JsonPointer.Carriage(i) / "max",
                $"Carriage {i + 1} ends at {carriages[i].Max:0.##}, before it begins at {carriages[i].Min:0.##}.", Why);
            else if (carriages[i].Park < carriages[i].Min || carriages[i].Park > carriages[i].Max)
                yield return Id.At(JsonPointer.Carriage(i) / "park",
                $"Carriage {i + 1} parks at {carriages[i].Park:0.##}, beyond its travel of {carriages[i].Min:0.##} to "
                    + $"{carriages[i].Max:0.##}.", Why);
        }
        if (carriages[1].Park - carriages[0].Park < (card.Head.LeastDistance ?? 0))
            yield return Id.At("/head/carriages/0/park", $"Parked, the nozzles stand "
                + $"{carriages[1].Park - carriages[0].Park:0.##} mm apart; they come no nearer than {card.Head.LeastDistance:0.##}.",
                "The first carriage listed is the left one.");
        for (var i = 0; i < modes.Count; i++)
            if (modes.Take(i).Any(m => m.Kind == modes[i].Kind))
                yield return Id.At(JsonPointer.Mode(i) / "kind", $"The mode {ModeNames.Of(modes[i].Kind)} is there twice.", Why);
    }

    private const string Why = "Reach and regions of the modes cannot be told from it.";
}

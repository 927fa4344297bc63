using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A fact of the head that names a nozzle or a fan that the card does not have, or an id that is there twice.</summary>
public sealed class UnknownNameOnHead : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("unknown-name-on-head", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        var head = card.Head;
        var nozzles = (head.Nozzles ?? []).Select(n => n.Id).ToArray();
        var fans = head.Fans.Select(f => f.Id).ToArray();
        foreach (var twice in nozzles.GroupBy(id => id).Where(g => g.Count() > 1))
            yield return Say("/head/nozzles", $"Two nozzles are called {twice.Key}.");
        foreach (var twice in fans.GroupBy(id => id).Where(g => g.Count() > 1))
            yield return Say("/head/fans", $"Two fans are called {twice.Key}.");
        for (var i = 0; i < nozzles.Length; i++)
            foreach (var fan in head.Nozzles![i].Fans.Except(fans))
                yield return Say(JsonPointer.Nozzle(i) / "fans", $"Nozzle {nozzles[i]} is cooled by fan {fan}, which is not on the card.");
        for (var i = 0; i < head.Carriages.Count; i++)
            if (!nozzles.Contains(head.Carriages[i].Nozzle))
                yield return Say(JsonPointer.Carriage(i) / "nozzle",
                $"Carriage {i + 1} carries nozzle {head.Carriages[i].Nozzle}, which is not on the card.");
        for (var i = 0; i < head.Bodies.Count; i++)
            if (head.Bodies[i].On is { } on && !nozzles.Contains(on))
                yield return Say(JsonPointer.Body(i) / "on", $"{head.Bodies[i].Name} hangs beside nozzle {on}, which is not on the card.");
    }

    private Finding Say(string pointer, Sentence message) =>
        Id.At(pointer, message, "What the computation takes for it is not what hangs on the machine.");
}

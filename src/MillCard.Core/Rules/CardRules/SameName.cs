using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>Two keep-outs, bodies, nozzles or fans with one name.</summary>
public sealed class SameName : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("same-name", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card) =>
    [
        .. Of(card.Envelope.KeepOuts.Select(k => k.Name), "/envelope/keepOuts", "name", "keep-outs"),
        .. Of(card.Head.Bodies.Select(b => b.Name), "/head/bodies", "name", "bodies"),
        .. Of((card.Head.Nozzles ?? []).Select(n => n.Id), "/head/nozzles", "id", "nozzles"),
        .. Of(card.Head.Fans.Select(f => f.Id), "/head/fans", "id", "fans"),
    ];

    private IEnumerable<Finding> Of(IEnumerable<string> names, JsonPointer list, string member, string what)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var all = names.ToArray();
        for (var i = 0; i < all.Length; i++)
        {
            if (string.IsNullOrWhiteSpace(all[i]) || seen.Add(all[i].Trim())) continue;
            var free = Enumerable.Range(2, all.Length + 1).Select(n => $"{all[i].Trim()} {n}")
                .First(n => !all.Contains(n, StringComparer.OrdinalIgnoreCase));
            yield return Id.At(list / i / member, $"Two {what} are called {all[i]}.",
                "Findings and settings that name one may mean the other.")
                .Cure($"Call it {free}", Edit.Fact(list / i / member, free));
        }
    }
}

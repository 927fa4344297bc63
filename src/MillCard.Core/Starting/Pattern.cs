using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.Core.Rules;

namespace MillCard.Core.Starting;

/// <summary>A read-only starting card of a generic class of machine. A pattern is one JSON file in this folder.</summary>
/// <param name="Id">Its name in addresses.</param>
/// <param name="Version">Goes up when its figures change.</param>
/// <param name="Name">What the class is called.</param>
/// <param name="About">One sentence.</param>
/// <param name="Card">The starting card; it has no name.</param>
public sealed record Pattern(string Id, int Version, string Name, string About, Card Card)
{
    private static readonly string[] NotFacts = ["/schema", "/name", "/maker", "/notes", "/routines", "/sources", "/accepted"];
    private static readonly Lazy<IReadOnlyList<Pattern>> Loaded = new(Load);

    /// <summary>All patterns, small to large.</summary>
    public static IReadOnlyList<Pattern> All => Loaded.Value;

    /// <summary>What the rack shows of it.</summary>
    public CardSummary Summary => CardSummary.Of(Card);

    /// <summary>A card to be made from the pattern: it remembers pattern and version, and every figure is assumed until its owner confirms
    /// it.</summary>
    public Card Start()
    {
        var facts = new Dictionary<string, FactSource>();
        foreach (var pointer in Leaves(JsonSerializer.SerializeToNode(Card, DocumentJson.Options), ""))
            if (!NotFacts.Any(n => pointer.StartsWith(n, StringComparison.Ordinal)))
                facts[pointer] = new FactSource { Source = SourceKind.Assumed };
        return Card with { Pattern = new PatternOrigin { Id = Id, Version = Version }, Sources = facts };
    }

    private static IEnumerable<string> Leaves(JsonNode? node, JsonPointer at) => node switch
    {
        // a point is one fact
        JsonObject { Count: <= 3 } point when point.ContainsKey("x") && point.ContainsKey("y") => [at],
        JsonObject members => members.SelectMany(m => Leaves(m.Value, at / m.Key)),
        JsonArray items => items.SelectMany((item, i) => Leaves(item, at / i)),
        null => [],
        _ => [at],
    };

    private static IReadOnlyList<Pattern> Load()
    {
        var assembly = Assembly.GetExecutingAssembly();
        return [.. assembly.GetManifestResourceNames().Where(n => n.StartsWith("patterns/", StringComparison.Ordinal)).Select(name =>
        {
            using var stream = assembly.GetManifestResourceStream(name)!;
            return JsonSerializer.Deserialize<Pattern>(stream, DocumentJson.Options)!;
        }).OrderBy(p => p.Summary.Height * Geometry.Shapes.Of(p.Card.Envelope.Bed!).Area)];
    }
}

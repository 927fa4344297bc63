using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.Core.Packets;
using MillCard.Core.Rules;

namespace MillCard.Core.Patterns;

/// <summary>A version of a read-only starting card.</summary>
/// <param name="Source">Id of the source that it comes from.</param>
/// <param name="LocalId">Its id within the source.</param>
/// <param name="Version">Goes up when its figures change.</param>
/// <param name="Name">What it is called.</param>
/// <param name="About">One sentence.</param>
/// <param name="Card">The starting card; it has no name.</param>
public sealed record Pattern(string Source, string LocalId, int Version, string Name, string About, Card Card)
{
    /// <summary>Id of the source that comes with the application.</summary>
    public const string OwnSource = "mill-card";

    private static readonly string[] NotFacts = ["/schema", "/name", "/maker", "/notes", "/routines", "/sources", "/accepted"];
    private static readonly Lazy<PublishedSource> Shipped = new(Load);
    private static readonly Lazy<IReadOnlyList<Pattern>> Newest = new(() => [.. Own.Patterns.GroupBy(p => p.LocalId)
        .Select(g => g.MaxBy(p => p.Version)!).OrderBy(p => p.Summary.Height * Geometry.Shapes.Of(p.Card.Envelope.Bed!).Area)]);

    /// <summary>What its source is called.</summary>
    public string SourceName { get; init; } = "";
    /// <summary>What is new in this version.</summary>
    public string Note { get; init; } = "";
    /// <summary>When this version was made; null where nobody said.</summary>
    public DateTimeOffset? At { get; init; }
    /// <summary>Checksum of the card's file.</summary>
    public string Sha256 { get; init; } = "";

    /// <summary>The source that comes with the application.</summary>
    public static PublishedSource Own => Shipped.Value;

    /// <summary>The newest versions of all patterns that come with the application, small to large.</summary>
    public static IReadOnlyList<Pattern> All => Newest.Value;

    /// <summary>Its id in cards and in addresses: those of other sources have the source's in front.</summary>
    public string Id => IdOf(Source, LocalId);

    /// <summary>What the rack shows of it.</summary>
    public CardSummary Summary => CardSummary.Of(Card);

    /// <summary>The id of a pattern in cards and in addresses.</summary>
    public static string IdOf(string source, string localId) => source == OwnSource ? localId : $"{source}:{localId}";

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

    private static PublishedSource Load()
    {
        const string Folder = "patterns/";
        var assembly = Assembly.GetExecutingAssembly();
        return PublishedSource.Of(assembly.GetManifestResourceNames().Where(n => n.StartsWith(Folder, StringComparison.Ordinal))
            .Select(name => new DroppedFile(name.Replace('\\', '/'), BytesOf(assembly, name))), Folder, CancellationToken.None);
    }

    private static byte[] BytesOf(Assembly assembly, string name)
    {
        using var stream = assembly.GetManifestResourceStream(name)!;
        var bytes = new byte[stream.Length];
        stream.ReadExactly(bytes);
        return bytes;
    }
}

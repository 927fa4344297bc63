using System.Collections;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;

namespace MillCard.Core.Packets;

/// <summary>A document as it was read from outside.</summary>
/// <param name="Kind">Its kind, such as "card".</param>
/// <param name="Version">The version of its schema.</param>
/// <param name="Document">The document; null where it cannot be taken.</param>
/// <param name="Why">Why it cannot be taken; empty where it can.</param>
/// <param name="Unknown">Pointers of members that this version does not know; they are kept.</param>
public sealed record ExchangedDocument(string Kind, int Version, IDocument? Document, string Why, IReadOnlyList<string> Unknown);

/// <summary>Reads documents of every kind by the schema that they name.</summary>
public static class Exchange
{
    /// <summary>Most bytes of a document.</summary>
    public const int MostBytes = 4 << 20;

    private const int MostUnknown = 20;

    private static readonly Dictionary<string, (int Version, Func<JsonElement, Outcome> Read)> Kinds = new()
    {
        [Card.Kind] = (VersionOf(Card.SchemaName), Read<Card>),
        [Filament.Kind] = (VersionOf(Filament.SchemaName), Read<Filament>),
        [Recipe.Kind] = (VersionOf(Recipe.SchemaName), Read<Recipe>),
        [Trial.Kind] = (VersionOf(Trial.SchemaName), Read<Trial>),
    };

    private sealed record Outcome(IDocument? Document, IReadOnlyList<FieldError> Errors);

    /// <summary>A document from JSON; null where its schema is none of ours. A newer schema is read as far as it is understood.</summary>
    public static ExchangedDocument? Of(JsonElement json)
    {
        if (json.ValueKind != JsonValueKind.Object || !json.TryGetProperty("schema", out var schema)
            || schema.ValueKind != JsonValueKind.String || schema.GetString() is not { } name) return null;
        if (name.Split('/') is not ["mill-card", var kind, _] || !Kinds.TryGetValue(kind, out var known)) return null;
        var version = VersionOf(name);
        if (version < 1) return null;
        var asKnown = version > known.Version ? WithSchema(json, $"mill-card/{kind}/{known.Version}") : json;
        var (document, errors) = known.Read(asKnown);
        var newer = version > known.Version ? "It was written by a newer Mill Card, and not all of it is understood: " : "";
        var why = errors.Count == 0 ? "" : newer + errors[0].Message;
        return new ExchangedDocument(kind, version, document, why, document is null ? [] : [.. UnknownIn(document, "").Take(MostUnknown)]);
    }

    /// <summary>Bytes as JSON; null where they are none, or hold a text that nothing can keep.</summary>
    public static JsonElement? Parsed(ReadOnlyMemory<byte> bytes)
    {
        try
        {
            if (bytes.Span.StartsWith("\uFEFF"u8)) bytes = bytes[3..];
            using var json = JsonDocument.Parse(bytes, new JsonDocumentOptions { MaxDepth = DocumentJson.MaxDepth + 1 });
            return TextCheck.Of(bytes.Span) is null ? json.RootElement.Clone() : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    /// <summary>A document as JSON, the way it is stored.</summary>
    public static string JsonOf(IDocument document) => JsonSerializer.Serialize(document, document.GetType(), DocumentJson.Options);

    /// <summary>The document under another name.</summary>
    public static IDocument Named(IDocument document, string name) => document switch
    {
        Card card => card with { Name = name },
        Filament filament => filament with { Name = name },
        Recipe recipe => recipe with { Name = name },
        Trial trial => trial with { Name = name },
        _ => document,
    };

    /// <summary>What a trial refers to: its card, filaments and recipe.</summary>
    public static IEnumerable<(string What, Guid Id)> References(Trial trial) =>
        new[] { ("card", trial.Card), ("filament", trial.Filament), ("recipe", trial.Recipe), ("second filament", trial.SecondFilament) }
        .Where(r => r.Item2 is not null).Select(r => (r.Item1, r.Item2!.Value))
        .Concat(trial.Loaded.Select(l => ($"filament of nozzle {l.Key}", l.Value)));

    /// <summary>The trial with other references in their place.</summary>
    public static Trial Referring(Trial trial, Func<Guid, Guid> to) => trial with
    {
        Card = trial.Card is { } card ? to(card) : null,
        Filament = trial.Filament is { } filament ? to(filament) : null,
        Recipe = trial.Recipe is { } recipe ? to(recipe) : null,
        SecondFilament = trial.SecondFilament is { } second ? to(second) : null,
        Loaded = trial.Loaded.ToDictionary(l => l.Key, l => to(l.Value)),
    };

    /// <summary>The files that a trial names by their checksums, with what they are of.</summary>
    public static IEnumerable<(string Name, string Hash)> FilesOf(Trial trial) =>
        trial.Parts.Select(p => (p.Name, p.File)).Concat(trial.Zones.OfType<MeshZone>().Select(z => (z.Name, z.File)));

    /// <summary>Whether the version of a schema is newer than what is known here.</summary>
    public static bool IsNewer(ExchangedDocument document) => document.Version > Kinds[document.Kind].Version;

    private static int VersionOf(string schema) =>
        int.TryParse(schema.Split('/')[^1], NumberStyles.None, CultureInfo.InvariantCulture, out var version) ? version : 0;

    private static Outcome Read<T>(JsonElement json) where T : class, IDocument
    {
        var reading = DocumentReader.Read<T>(json, draft: true);
        return new Outcome(reading.Document, reading.Errors);
    }

    private static JsonElement WithSchema(JsonElement json, string schema)
    {
        var changed = JsonObject.Create(json)!;
        changed["schema"] = schema;
        return JsonSerializer.SerializeToElement(changed);
    }

    private static IEnumerable<string> UnknownIn(object? value, JsonPointer at) => value switch
    {
        null or string => [],
        OpenRecord record => (record.Unknown?.Keys.Select(name => (string)(at / name)) ?? [])
            .Concat(record.GetType().GetProperties().Where(p => p.Name != nameof(OpenRecord.Unknown) && p.GetIndexParameters().Length == 0
                && p.SetMethod is not null).SelectMany(p => UnknownIn(p.GetValue(record),
                    at / JsonNamingPolicy.CamelCase.ConvertName(p.Name)))),
        IDictionary map => map.Keys.Cast<object>().SelectMany(key => UnknownIn(map[key], at / (string)key)),
        IEnumerable list => list.Cast<object?>().SelectMany((one, i) => UnknownIn(one, at / i)),
        _ => [],
    };
}

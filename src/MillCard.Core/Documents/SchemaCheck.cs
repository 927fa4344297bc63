using MillCard.Core.Wording;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using static MillCard.Core.Documents.FieldProblem;

namespace MillCard.Core.Documents;

/// <summary>Holds a JSON document against its schema and says in sentences what breaks it.</summary>
/// <remarks>Covers the keywords that <see cref="DocumentSchema"/> writes; it is not a general validator.</remarks>
public sealed class SchemaCheck
{
    private const int MostErrors = 50;
    private const int LongestEcho = 80;
    private readonly JsonNode _root;
    private readonly List<FieldError> _errors = [];

    private SchemaCheck(JsonNode root) => _root = root;

    /// <summary>All that breaks the schema, at most 50 errors; none where the document holds.</summary>
    public static IReadOnlyList<FieldError> Of(JsonNode schema, JsonElement document)
    {
        var check = new SchemaCheck(schema);
        check.Look(schema, document, "");
        return check._errors;
    }

    private void Look(JsonNode? node, JsonElement value, JsonPointer at)
    {
        if (node is not JsonObject schema || _errors.Count >= MostErrors) return;
        if (schema["$ref"] is JsonNode reference) { Look(Resolve((string)reference!), value, at); return; }
        if (schema["const"] is JsonNode constant && !Same(constant, value))
        { Refuse(schema, at, NoChoice, $"must be \"{constant}\"", constant.ToString()); return; }
        if (schema["enum"] is JsonArray words) { Word(schema, words, value, at); return; }
        if (schema["type"] is JsonNode type && !Fits(type, value)) { Kind(schema, type, value, at); return; }
        switch (value.ValueKind)
        {
            case JsonValueKind.Number: Number(schema, value, at); break;
            case JsonValueKind.String: Length(schema, value, at); break;
            case JsonValueKind.Array: Items(schema, value, at); break;
            case JsonValueKind.Object: Members(schema, value, at); break;
        }
    }

    private JsonNode? Resolve(string reference)
    {
        JsonNode? node = _root;
        foreach (var step in reference.TrimStart('#').Split('/', StringSplitOptions.RemoveEmptyEntries))
            node = node is JsonArray list ? list[int.Parse(step, CultureInfo.InvariantCulture)]
                : node?[step.Replace("~1", "/").Replace("~0", "~")];
        return node;
    }

    private void Members(JsonObject schema, JsonElement value, JsonPointer at)
    {
        if (schema["maxProperties"] is JsonNode most && value.GetPropertyCount() > (int)most)
            Refuse(schema, at, TooMany, $"has {value.GetPropertyCount()} entries; at most {most} are taken", most.ToString());
        if (schema["anyOf"] is JsonArray kinds && Choose(schema, kinds, value, at) is JsonObject chosen) Members(chosen, value, at);
        foreach (var name in (schema["required"] as JsonArray ?? []).Select(n => (string)n!))
        {
            if (value.TryGetProperty(name, out _)) continue;
            Refuse(schema["properties"]?[name] as JsonObject ?? [], at / name, Missing, $"is missing", "required", name);
        }
        foreach (var member in value.EnumerateObject())
        {
            var inner = schema["properties"]?[member.Name] ?? (schema["properties"] is null ? schema["additionalProperties"] : null);
            Look(inner, member.Value, at / member.Name);
        }
    }

    private JsonObject? Choose(JsonObject schema, JsonArray kinds, JsonElement value, JsonPointer at)
    {
        var known = new List<string>();
        string? discriminator = null;
        foreach (var kind in kinds.OfType<JsonObject>())
        {
            foreach (var (name, property) in kind["properties"] as JsonObject ?? [])
            {
                if (property?["const"] is not JsonNode constant) continue;
                discriminator = name;
                known.Add((string)constant!);
                if (value.TryGetProperty(name, out var said) && Same(constant, said)) return kind;
            }
        }
        if (discriminator is not null && value.TryGetProperty(discriminator, out _))
            Refuse(schema, at / discriminator, NoChoice, $"must be one of {string.Join(", ", known)}", string.Join(", ", known),
                discriminator);
        else if (discriminator is not null)
            Refuse([], at / discriminator, Missing, $"is missing; it is one of {string.Join(", ", known)}", string.Join(", ", known),
                discriminator);
        return null;
    }

    private void Items(JsonObject schema, JsonElement value, JsonPointer at)
    {
        var count = value.GetArrayLength();
        if (schema["maxItems"] is JsonNode most && count > (int)most)
        { Refuse(schema, at, TooMany, $"has {count} entries; at most {(int)most} are taken", most.ToString()); return; }
        if (schema["minItems"] is JsonNode fewest && count < (int)fewest)
            Refuse(schema, at, TooFew, $"has {count} entries; at least {fewest} are needed", fewest.ToString());
        var index = 0;
        foreach (var item in value.EnumerateArray()) Look(schema["items"], item, at / index++);
    }

    private void Number(JsonObject schema, JsonElement value, JsonPointer at)
    {
        var number = value.GetDouble();
        var above = (double?)schema["exclusiveMinimum"];
        var least = (double?)schema["minimum"];
        var most = (double?)schema["maximum"];
        if (double.IsFinite(number) && !(number <= above) && !(number < least) && !(number > most)) return;
        var low = Sentence.When(above is not null, $"above {above:0.###}") ?? Sentence.When(least is not null, $"at least {least:0.###}");
        var high = Sentence.When(most is not null, $"at most {most:0.###}");
        var and = low is not null && high is not null ? " and " : "";
        var limit = low is null && high is null ? Sentence.Of($"a number") : Sentence.Of($"{low}{and}{high}");
        var (unit, sent) = ((string?)schema["x-unit"] is { Length: > 0 } u ? $" {u}" : "", Short(value.GetRawText()));
        Refuse(schema, at, OutOfRange, $"must be {limit}{unit}; {sent} is not", $"{(limit.Values is null ? "" : limit.Text)}{unit}");
    }

    /// <summary>What was sent, as a sentence can hold it.</summary>
    private static string Short(string text) => text.Length <= LongestEcho ? text : $"{text[..(LongestEcho - 1)]}…";

    private void Length(JsonObject schema, JsonElement value, JsonPointer at)
    {
        var length = value.GetString()!.Length;
        if (schema["maxLength"] is JsonNode most && length > (int)most)
            Refuse(schema, at, TooLong, $"has {length} characters; at most {most} are taken", most.ToString());
        if (schema["minLength"] is JsonNode fewest && length < (int)fewest) Refuse(schema, at, Missing, $"is empty", $"at least {fewest}");
    }

    private void Word(JsonObject schema, JsonArray words, JsonElement value, JsonPointer at)
    {
        if (words.Any(word => word is null ? value.ValueKind == JsonValueKind.Null : Same(word, value))) return;
        var list = string.Join(", ", words.OfType<JsonNode>().Select(w => w.ToString()));
        Refuse(schema, at, NoChoice, $"must be one of {list}", list);
    }

    private void Kind(JsonObject schema, JsonNode type, JsonElement value, JsonPointer at)
    {
        if (value.ValueKind == JsonValueKind.Null) { Refuse(schema, at, Missing, $"is missing", "required"); return; }
        var wanted = (type as JsonArray)?.Select(t => (string)t!) ?? [(string)type!];
        var names = string.Join(" or ", wanted.Where(t => t != "null").Select(Article));
        Refuse(schema, at, WrongKind, $"must be {names}", names);
    }

    private void Refuse(JsonObject schema, JsonPointer at, FieldProblem code, Sentence problem, string limit, string? name = null)
    {
        if (_errors.Count >= MostErrors) return;
        var label = (string?)schema["title"] ?? name ?? Short(at.Last);
        if (label.Length == 0) label = "the document";
        _errors.Add(new FieldError(at, code, $"{char.ToUpperInvariant(label[0])}{label[1..]} {problem}.", limit));
    }

    private static bool Fits(JsonNode type, JsonElement value) =>
        type is JsonArray types ? types.Any(t => Fits((string)t!, value)) : Fits((string)type!, value);

    private static bool Fits(string type, JsonElement value) => value.ValueKind switch
    {
        JsonValueKind.Object => type == "object",
        JsonValueKind.Array => type == "array",
        JsonValueKind.String => type == "string",
        JsonValueKind.Number => type == "number" || (type == "integer" && value.TryGetInt32(out _)),
        JsonValueKind.True or JsonValueKind.False => type == "boolean",
        _ => type == "null",
    };

    private static string Article(string type) => type switch
    {
        "integer" => "a whole number",
        "number" => "a number",
        "string" => "text",
        "boolean" => "yes or no (true or false)",
        "array" => "a list",
        _ => "an object",
    };

    private static bool Same(JsonNode constant, JsonElement value) =>
        value.ValueKind == JsonValueKind.String && value.ValueEquals(constant.ToString());
}

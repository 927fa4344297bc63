using System.Text.Json;
using System.Text.Json.Nodes;

namespace MillCard.Core.Documents;

/// <summary>Departures from a recipe: values by JSON pointers, for one part or one zone.</summary>
public static class Departures
{
    /// <summary>The recipe with the departures laid over it, or why they cannot be.</summary>
    /// <param name="recipe">The recipe.</param>
    /// <param name="settings">Values by pointer.</param>
    /// <param name="of">What departs.</param>
    /// <param name="at">Pointer of the settings, for errors.</param>
    public static Reading<Recipe> Apply(Recipe recipe, IReadOnlyDictionary<string, JsonElement> settings, Departs of,
        JsonPointer at = default)
    {
        if (settings.Count == 0) return new Reading<Recipe>(recipe, []);
        var node = JsonSerializer.SerializeToNode(recipe, DocumentJson.Options)!;
        foreach (var (setting, value) in settings)
        {
            if (!JsonPointer.TryParse(setting, out var pointer) || !MayDepart(pointer, of))
                return Refused(at / setting, $"{setting} cannot differ here; it belongs to the whole print.");
            // only what the record knows: a name nobody reads would be a setting without effect
            if (Below(pointer).Length == 0 || !Set(node, pointer, value))
                return Refused(at / setting, $"A recipe has no setting {setting}.");
        }
        var reading = DocumentReader.Read<Recipe>(JsonSerializer.SerializeToElement(node, DocumentJson.Options));
        if (reading.Document is { } own && reading.Errors.Count == 0) return reading with { Document = InMm(own, settings) };
        return new Reading<Recipe>(null, [.. reading.Errors.Select(e => e with { Pointer = at / e.Pointer })]);
    }

    /// <summary>A height in mm goes before one in rungs that it departs from.</summary>
    private static Recipe InMm(Recipe own, IReadOnlyDictionary<string, JsonElement> settings) =>
        settings.ContainsKey("/layers/others") && !settings.ContainsKey("/layers/rungs")
            ? own with { Layers = own.Layers with { Rungs = null } } : own;

    /// <summary>The settings at or below a place.</summary>
    private static Leaf[] Below(JsonPointer place) =>
        [.. Leaves.Of<Recipe>().Where(leaf => JsonPointer.Parse(leaf.Pointer).IsWithin(place))];

    /// <summary>Whether a setting, or every setting below a member, may be departed from; what is none goes by what it would be
    /// below.</summary>
    private static bool MayDepart(JsonPointer pointer, Departs of) => Below(pointer) is { Length: > 0 } meant
        ? meant.All(leaf => leaf.Departs >= of)
        : pointer.Parent is { } parent && parent != JsonPointer.Root && MayDepart(parent, of);

    private static Reading<Recipe> Refused(string pointer, string message) =>
        new(null, [new FieldError(pointer, FieldProblem.NotTaken, message)]);

    private static bool Set(JsonNode root, JsonPointer pointer, JsonElement value)
    {
        var holder = pointer.Parent is { } parent ? parent.Steps.Aggregate((JsonNode?)root, (node, step) => node?[step]) : null;
        if (holder is not JsonObject members) return false;
        members[pointer.Last] = JsonNode.Parse(value.GetRawText());
        return true;
    }
}

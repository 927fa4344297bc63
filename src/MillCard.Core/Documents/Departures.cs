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
        foreach (var (pointer, value) in settings)
        {
            if (!MayDepart(pointer, of))
                return Refused(at / pointer, $"{pointer} cannot differ here; it belongs to the whole print.");
            if (!Set(node, pointer, value)) return Refused(at / pointer, $"A recipe has no setting {pointer}.");
        }
        var reading = DocumentReader.Read<Recipe>(JsonSerializer.SerializeToElement(node, DocumentJson.Options));
        if (reading.Errors.Count == 0) return reading;
        return new Reading<Recipe>(null, [.. reading.Errors.Select(e => e with { Pointer = at / e.Pointer })]);
    }

    /// <summary>Whether a setting, or every setting below a member, may be departed from.</summary>
    private static bool MayDepart(JsonPointer pointer, Departs of)
    {
        var meant = Leaves.Of<Recipe>().Where(leaf => JsonPointer.Parse(leaf.Pointer).IsWithin(pointer)).ToArray();
        return meant.Length > 0 ? meant.All(leaf => leaf.Departs >= of) : pointer.Parent is { } parent && parent != JsonPointer.Root
            && MayDepart(parent, of);
    }

    private static Reading<Recipe> Refused(string pointer, string message) => new(null, [new FieldError(pointer, message)]);

    private static bool Set(JsonNode root, string pointer, JsonElement value)
    {
        var steps = JsonPointer.Parse(pointer).Steps.ToArray();
        if (steps.Length == 0) return false;
        JsonNode? node = root;
        var type = typeof(Recipe);
        foreach (var step in steps)
        {
            // only what the record knows: a name nobody reads would be a setting without effect
            if (type.GetProperties().FirstOrDefault(p => JsonNamingPolicy.CamelCase.ConvertName(p.Name) == step) is not { } property)
                return false;
            type = property.PropertyType;
        }
        foreach (var step in steps[..^1]) node = node?[step];
        if (node is not JsonObject parent) return false;
        parent[steps[^1]] = JsonNode.Parse(value.GetRawText());
        return true;
    }
}

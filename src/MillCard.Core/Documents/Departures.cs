using System.Text.Json;
using System.Text.Json.Nodes;

namespace MillCard.Core.Documents;

/// <summary>Departures from a recipe: values by JSON pointers, for one part or one zone.</summary>
public static class Departures
{
    /// <summary>What one part may have of its own; the rest belongs to the whole print.</summary>
    public static IReadOnlyList<string> OfParts { get; } =
        ["/walls", "/wall", "/topLayers", "/bottomLayers", "/top", "/bridges", "/infill", "/supports", "/brim", "/compensation", "/widths",
            "/speeds/outerWall", "/speeds/innerWall", "/speeds/solid", "/speeds/infill", "/speeds/top", "/speeds/bridge", "/speeds/thin",
            "/speeds/support", "/speeds/interface"];

    /// <summary>What a zone may have of its own.</summary>
    public static IReadOnlyList<string> OfZones { get; } =
        ["/walls", "/topLayers", "/bottomLayers", "/top", "/bridges", "/infill", "/widths", "/speeds/outerWall", "/speeds/innerWall",
            "/speeds/solid", "/speeds/infill", "/speeds/top", "/speeds/bridge", "/speeds/thin"];

    /// <summary>The recipe with the departures laid over it, or why they cannot be.</summary>
    /// <param name="recipe">The recipe.</param>
    /// <param name="settings">Values by pointer.</param>
    /// <param name="allowed">Pointers that may be departed from, with all below them.</param>
    /// <param name="at">Pointer of the settings, for errors.</param>
    public static Reading<Recipe> Apply(Recipe recipe, IReadOnlyDictionary<string, JsonElement> settings, IReadOnlyList<string> allowed,
        string at = "")
    {
        if (settings.Count == 0) return new Reading<Recipe>(recipe, []);
        var node = JsonSerializer.SerializeToNode(recipe, DocumentJson.Options)!;
        foreach (var (pointer, value) in settings)
        {
            if (!allowed.Any(a => pointer == a || pointer.StartsWith($"{a}/", StringComparison.Ordinal)))
                return Refused($"{at}/{JsonPointer.Escape(pointer)}", $"{pointer} cannot differ here; it belongs to the whole print.");
            if (!Set(node, pointer, value)) return Refused($"{at}/{JsonPointer.Escape(pointer)}", $"A recipe has no setting {pointer}.");
        }
        var reading = DocumentReader.Read<Recipe>(JsonSerializer.SerializeToElement(node, DocumentJson.Options));
        if (reading.Errors.Count == 0) return reading;
        return new Reading<Recipe>(null, [.. reading.Errors.Select(e => e with { Pointer = $"{at}/{JsonPointer.Escape(e.Pointer)}" })]);
    }

    private static Reading<Recipe> Refused(string pointer, string message) => new(null, [new FieldError(pointer, message)]);

    private static bool Set(JsonNode root, string pointer, JsonElement value)
    {
        var steps = pointer.Split('/').Skip(1).ToArray();
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

using System.Text.Json;

namespace MillCard.Core.Proofs;

/// <summary>Where two JSON documents differ.</summary>
public static class Differences
{
    private const int Most = 200;

    /// <summary>Pointers (RFC 6901) of all values that are not the same, members that one of them lacks included; at most 200.</summary>
    public static IReadOnlyList<string> Of(JsonElement before, JsonElement after)
    {
        var found = new List<string>();
        Look(before, after, "", found);
        return found;
    }

    private static void Look(JsonElement a, JsonElement b, string at, List<string> found)
    {
        if (found.Count >= Most) return;
        if (a.ValueKind == JsonValueKind.Object && b.ValueKind == JsonValueKind.Object)
        {
            foreach (var name in a.EnumerateObject().Select(m => m.Name).Union(b.EnumerateObject().Select(m => m.Name)))
            {
                var step = $"{at}/{name.Replace("~", "~0", StringComparison.Ordinal).Replace("/", "~1", StringComparison.Ordinal)}";
                var (left, right) = (Member(a, name), Member(b, name));
                // a member without a value is as good as none
                if (left is { } x && right is { } y) Look(x, y, step, found);
                else if ((left ?? right) is { } one && !Empty(one)) found.Add(step);
            }
            return;
        }
        if (a.ValueKind == JsonValueKind.Array && b.ValueKind == JsonValueKind.Array && a.GetArrayLength() == b.GetArrayLength())
        {
            for (var i = 0; i < a.GetArrayLength(); i++) Look(a[i], b[i], $"{at}/{i}", found);
            return;
        }
        if (a.ValueKind == JsonValueKind.Number && b.ValueKind == JsonValueKind.Number ? a.GetDouble() != b.GetDouble() : !JsonElement.DeepEquals(a, b)) found.Add(at);
    }

    private static JsonElement? Member(JsonElement of, string name) => of.TryGetProperty(name, out var value) ? value : null;

    private static bool Empty(JsonElement value) => value.ValueKind == JsonValueKind.Null
        || value.ValueKind == JsonValueKind.Array && value.GetArrayLength() == 0
        || value.ValueKind == JsonValueKind.Object && value.EnumerateObject().All(m => Empty(m.Value));
}

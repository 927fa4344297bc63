using System.Text.Json;
using MillCard.Core.Documents;

namespace MillCard.Core.Records;

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

    private static void Look(JsonElement a, JsonElement b, JsonPointer at, List<string> found)
    {
        if (found.Count >= Most) return;
        if (a.ValueKind == JsonValueKind.Object && b.ValueKind == JsonValueKind.Object)
        {
            foreach (var name in a.EnumerateObject().Select(m => m.Name).Union(b.EnumerateObject().Select(m => m.Name)))
            {
                var step = at / name;
                var (before, after) = (Member(a, name), Member(b, name));
                // a member without a value is as good as none
                if (before is { } x && after is { } y) Look(x, y, step, found);
                else if ((before ?? after) is { } one && !Empty(one) && !IsGivenId(name, a, b)) found.Add(step);
            }
            return;
        }
        if (a.ValueKind == JsonValueKind.Array && b.ValueKind == JsonValueKind.Array && ById(a) is { } left && ById(b) is { } right)
        {
            Members(left, right, at, found);
            return;
        }
        if (a.ValueKind == JsonValueKind.Array && b.ValueKind == JsonValueKind.Array && a.GetArrayLength() == b.GetArrayLength())
        {
            for (var i = 0; i < a.GetArrayLength(); i++) Look(a[i], b[i], at / i, found);
            return;
        }
        if (a.ValueKind == JsonValueKind.Number && b.ValueKind == JsonValueKind.Number ? a.GetDouble() != b.GetDouble()
            : !JsonElement.DeepEquals(a, b)) found.Add(at);
    }

    /// <summary>Lists whose members have ids: a member is the same wherever it stands; where the order of those on both sides differs, the
    /// list does.</summary>
    private static void Members(IReadOnlyList<(string Id, JsonElement Value)> before, IReadOnlyList<(string Id, JsonElement Value)> after,
        JsonPointer at, List<string> found)
    {
        var places = after.Select((m, i) => (m.Id, i)).ToDictionary(m => m.Id, m => m.i, StringComparer.Ordinal);
        var (last, moved) = (-1, false);
        for (var i = 0; i < before.Count && found.Count < Most; i++)
        {
            if (!places.Remove(before[i].Id, out var place))
            {
                found.Add(at / i);
                continue;
            }
            moved |= place < last;
            last = place;
            Look(before[i].Value, after[place].Value, at / place, found);
        }
        found.AddRange(places.Values.Order().Select(place => (string)(at / place)));
        if (moved) found.Add(at);
    }

    /// <summary>The members of a list by their ids; null where one has none, or two have the same.</summary>
    private static (string Id, JsonElement Value)[]? ById(JsonElement list)
    {
        var members = new List<(string, JsonElement)>();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var member in list.EnumerateArray())
        {
            if (member.ValueKind != JsonValueKind.Object || Member(member, "id") is not { ValueKind: JsonValueKind.String } id
                || !seen.Add(id.GetString()!)) return null;
            members.Add((id.GetString()!, member));
        }
        return [.. members];
    }

    /// <summary>A document kept before members had ids differs in them by nothing that anybody changed.</summary>
    private static bool IsGivenId(string name, JsonElement a, JsonElement b) =>
        name == "id" && a.ValueKind == JsonValueKind.Object && b.ValueKind == JsonValueKind.Object
            && (Member(a, "id") is null || Member(b, "id") is null);

    private static JsonElement? Member(JsonElement of, string name) => of.TryGetProperty(name, out var value) ? value : null;

    private static bool Empty(JsonElement value) => value.ValueKind == JsonValueKind.Null
        || value.ValueKind == JsonValueKind.Array && value.GetArrayLength() == 0
        || value.ValueKind == JsonValueKind.Object && value.EnumerateObject().All(m => Empty(m.Value));
}

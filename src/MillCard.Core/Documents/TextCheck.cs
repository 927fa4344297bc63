using System.Text.Json;
using System.Text.Unicode;

namespace MillCard.Core.Documents;

/// <summary>Looks for texts that no database and no XML can hold: half of a surrogate pair, the character NUL, bytes that are not
/// UTF-8.</summary>
public static class TextCheck
{
    /// <summary>The first such text; null where there is none.</summary>
    /// <param name="json">UTF-8 JSON that parses.</param>
    public static FieldError? Of(ReadOnlySpan<byte> json)
    {
        if (!Utf8.IsValid(json)) return new FieldError("", FieldProblem.Unreadable, "This is not text in UTF-8.");
        // nothing but an escape can write what is looked for
        if (json.IndexOf("\\u"u8) < 0) return null;
        var reader = new Utf8JsonReader(json, new JsonReaderOptions { MaxDepth = DocumentJson.MaxDepth });
        var path = new List<string>();
        var indexes = new List<int>();
        while (reader.Read())
        {
            switch (reader.TokenType)
            {
                case JsonTokenType.StartObject or JsonTokenType.StartArray:
                    Count(path, indexes);
                    path.Add("");
                    indexes.Add(reader.TokenType == JsonTokenType.StartArray ? 0 : -1);
                    break;
                case JsonTokenType.EndObject or JsonTokenType.EndArray:
                    path.RemoveAt(path.Count - 1);
                    indexes.RemoveAt(indexes.Count - 1);
                    break;
                case JsonTokenType.PropertyName:
                    if (Said(ref reader) is not { } name) return Refused(path, "The name of a member here");
                    path[^1] = name;
                    break;
                case JsonTokenType.String:
                    Count(path, indexes);
                    if (Said(ref reader) is null) return Refused(path, "This text");
                    break;
                default:
                    Count(path, indexes);
                    break;
            }
        }
        return null;
    }

    private static void Count(List<string> path, List<int> indexes)
    {
        if (path.Count > 0 && indexes[^1] >= 0) path[^1] = Invariant($"{indexes[^1]++}");
    }

    /// <summary>A text; null where it holds what cannot be stored.</summary>
    private static string? Said(ref Utf8JsonReader reader)
    {
        try
        {
            return reader.GetString() is { } text && !text.Contains('\0', StringComparison.Ordinal) ? text : null;
        }
        catch (InvalidOperationException)
        {
            return null;
        }
    }

    private static FieldError Refused(List<string> path, string what)
    {
        var pointer = path.Where(s => s.Length > 0).Aggregate(JsonPointer.Root, (at, step) => at / step);
        return new FieldError(pointer, FieldProblem.Unreadable,
            $"{what} holds half a character or the character NUL; it cannot be stored.");
    }
}

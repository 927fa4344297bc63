using System.Text.Json;

namespace MillCard.Core.Documents;

/// <summary>What reading a document gave: the document, or why it is refused.</summary>
/// <param name="Document">The document; null where it is refused.</param>
/// <param name="Errors">Why it is refused, by field; empty where it is not.</param>
public sealed record Reading<T>(T? Document, IReadOnlyList<FieldError> Errors) where T : class;

/// <summary>Reads documents: checks them against their schema first, so that an error names its field.</summary>
public static class DocumentReader
{
    /// <summary>Reads a document from JSON text.</summary>
    /// <param name="json">UTF-8 text; the caller bounds its size.</param>
    /// <param name="draft">Whether needed facts may still be missing.</param>
    public static Reading<T> Read<T>(ReadOnlyMemory<byte> json, bool draft = false) where T : class
    {
        try
        {
            using var parsed = JsonDocument.Parse(json, new JsonDocumentOptions { MaxDepth = DocumentJson.MaxDepth });
            if (TextCheck.Of(json.Span) is { } unfit) return new Reading<T>(null, [unfit]);
            return Read<T>(parsed.RootElement, draft);
        }
        catch (JsonException broken)
        {
            return new Reading<T>(null, [new FieldError("", FieldProblem.Unreadable, $"This is not JSON: {Place(broken)}.")]);
        }
    }

    /// <summary>Reads a document from parsed JSON.</summary>
    /// <param name="json">The document.</param>
    /// <param name="draft">Whether needed facts may still be missing.</param>
    public static Reading<T> Read<T>(JsonElement json, bool draft = false) where T : class
    {
        var errors = SchemaCheck.Of(DocumentSchema.Of(typeof(T), draft), json);
        if (errors.Count > 0) return new Reading<T>(null, errors);
        try
        {
            return new Reading<T>(json.Deserialize<T>(DocumentJson.Options), []);
        }
        catch (JsonException broken)
        {
            return new Reading<T>(null,
                [new FieldError(Pointer(broken.Path), FieldProblem.Unreadable, $"This value cannot be read: {Place(broken)}.")]);
        }
    }

    private static string Place(JsonException broken) =>
        broken.LineNumber is { } line ? $"line {line + 1}, byte {(broken.BytePositionInLine ?? 0) + 1}" : "its form is broken";

    private static string Pointer(string? path) =>
        path is null or "$" ? "" : path[1..].Replace("[", "/", StringComparison.Ordinal).Replace("]", "", StringComparison.Ordinal)
            .Replace('.', '/');
}

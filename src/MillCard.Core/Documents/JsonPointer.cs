using System.Globalization;
using System.Text.Json;

namespace MillCard.Core.Documents;

/// <summary>A place in a document, after RFC 6901. Built by steps, so that a name can never be taken for two; read as text where it
/// is handed on.</summary>
public readonly record struct JsonPointer
{
    private readonly string? _text;

    // the whole document is one value, however it was written
    private JsonPointer(string text) => _text = text.Length > 0 ? text : null;

    /// <summary>The whole document.</summary>
    public static JsonPointer Root => default;

    /// <summary>A nozzle of a card.</summary>
    public static JsonPointer Nozzle(int index) => Parse("/head/nozzles") / index;
    /// <summary>A body on a card's head.</summary>
    public static JsonPointer Body(int index) => Parse("/head/bodies") / index;
    /// <summary>A beam of a card.</summary>
    public static JsonPointer Beam(int index) => Parse("/head/beams") / index;
    /// <summary>A carriage of a card.</summary>
    public static JsonPointer Carriage(int index) => Parse("/head/carriages") / index;
    /// <summary>A keep-out of a card.</summary>
    public static JsonPointer KeepOut(int index) => Parse("/envelope/keepOuts") / index;
    /// <summary>An axis of a card by its member's name: x, y, z, e.</summary>
    public static JsonPointer Axis(string member) => Parse("/motion/axes") / member;
    /// <summary>A mode of a card.</summary>
    public static JsonPointer Mode(int index) => Parse("/modes") / index;
    /// <summary>A routine of a card by its member's name.</summary>
    public static JsonPointer Routine(string member) => Parse("/routines") / member;

    /// <summary>A pointer that was written down.</summary>
    /// <exception cref="FormatException">It is not empty and does not begin with a slash.</exception>
    public static JsonPointer Parse(string text) => TryParse(text, out var pointer) ? pointer
        : throw new FormatException($"{text} is no JSON pointer: it has to begin with a slash.");

    /// <summary>A pointer that somebody sent: it may be none.</summary>
    public static bool TryParse(string text, out JsonPointer pointer)
    {
        var holds = text.Length == 0 || text[0] == '/';
        pointer = holds ? new(text) : default;
        return holds;
    }

    /// <summary>The member of this name below.</summary>
    public static JsonPointer operator /(JsonPointer at, string name) => new($"{at}/{Escape(name)}");

    /// <summary>The entry at this place below.</summary>
    public static JsonPointer operator /(JsonPointer at, int index) => new(Invariant($"{at}/{index}"));

    /// <summary>A pointer within what stands here.</summary>
    public static JsonPointer operator +(JsonPointer at, JsonPointer inner) => new($"{at}{inner}");

    /// <summary>A pointer that stands in the code.</summary>
    public static implicit operator JsonPointer(string text) => Parse(text);

    /// <summary>As text.</summary>
    public static implicit operator string(JsonPointer pointer) => pointer.ToString();

    /// <summary>Its steps, as the document names them.</summary>
    public IEnumerable<string> Steps => ToString().Split('/').Skip(1).Select(step =>
        step.Replace("~1", "/", StringComparison.Ordinal).Replace("~0", "~", StringComparison.Ordinal));

    /// <summary>What holds it; null for the whole document.</summary>
    public JsonPointer? Parent => ToString().LastIndexOf('/') is >= 0 and var cut ? new(ToString()[..cut]) : null;

    /// <summary>Its last step; empty for the whole document.</summary>
    public string Last => Steps.LastOrDefault() ?? "";

    /// <summary>Whether it is a place or lies below it.</summary>
    public bool IsWithin(JsonPointer place) => ToString() is var text && (text == place.ToString()
        || text.StartsWith($"{place}/", StringComparison.Ordinal));

    /// <summary>What stands there; null where nothing does, or null itself.</summary>
    public JsonElement? In(JsonElement document)
    {
        foreach (var step in Steps)
        {
            if (document.ValueKind == JsonValueKind.Array
                && int.TryParse(step, NumberStyles.None, CultureInfo.InvariantCulture, out var index)
                && index < document.GetArrayLength()) document = document[index];
            else if (document.ValueKind != JsonValueKind.Object || !document.TryGetProperty(step, out document)) return null;
        }
        return document.ValueKind == JsonValueKind.Null ? null : document;
    }

    /// <inheritdoc/>
    public override string ToString() => _text ?? "";

    private static string Escape(string name) =>
        name.Replace("~", "~0", StringComparison.Ordinal).Replace("/", "~1", StringComparison.Ordinal);
}

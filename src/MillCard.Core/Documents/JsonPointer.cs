namespace MillCard.Core.Documents;

/// <summary>Steps of a JSON pointer, after RFC 6901.</summary>
public static class JsonPointer
{
    /// <summary>A member's name as a step of a pointer.</summary>
    public static string Escape(string name) =>
        name.Replace("~", "~0", StringComparison.Ordinal).Replace("/", "~1", StringComparison.Ordinal);
}

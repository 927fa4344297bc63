using System.Text;

namespace MillCard.Core.Gcode;

/// <summary>An extended command: a name and <c>KEY=value</c> pairs.</summary>
/// <param name="Name">As written.</param>
/// <param name="Parameters">By name in capitals; a value in quotes stands without them.</param>
public sealed record ExtendedCommand(string Name, IReadOnlyDictionary<string, string> Parameters)
{
    /// <summary>Whether a line begins with a name rather than with a letter and a number.</summary>
    public static bool Begins(ReadOnlySpan<byte> line)
    {
        line = line.TrimStart(" \t"u8);
        if (line.Length < 2) return false;
        if (line[0] == '_') return true;
        if (!IsLetter(line[0])) return false;
        if (IsLetter(line[1]) || line[1] == '_') return true;
        for (var i = 1; i < line.Length && line[i] is not ((byte)' ' or (byte)'\t' or (byte)';' or (byte)'*'); i++)
            if (line[i] == '_') return true;
        return false;
    }

    /// <summary>Reads a line that begins with a name.</summary>
    public static ExtendedCommand Of(ReadOnlySpan<byte> line)
    {
        var text = Encoding.UTF8.GetString(line).Trim();
        var comment = text.IndexOf(';');
        if (comment >= 0) text = text[..comment].TrimEnd();
        var blank = text.IndexOfAny([' ', '\t']);
        return new ExtendedCommand(blank < 0 ? text : text[..blank], blank < 0 ? new Dictionary<string, string>() : Pairs(text[blank..]));
    }

    /// <summary>A line as an extended command; null where it begins with a letter and a number.</summary>
    public static ExtendedCommand? OfText(string line) => Encoding.UTF8.GetBytes(line) is var bytes && Begins(bytes) ? Of(bytes) : null;

    /// <summary>A parameter as a number; NaN where it is missing or none.</summary>
    public double Number(string name) =>
        Parameters.TryGetValue(name, out var text)
            && double.TryParse(text, System.Globalization.CultureInfo.InvariantCulture, out var value) && double.IsFinite(value)
            ? Math.Clamp(value, -Words.Largest, Words.Largest)
            : double.NaN;

    /// <summary>A parameter as a text; null where it is missing.</summary>
    public string? Text(string name) => Parameters.GetValueOrDefault(name);

    private static Dictionary<string, string> Pairs(string rest)
    {
        var pairs = new Dictionary<string, string>();
        var at = 0;
        while (at < rest.Length)
        {
            var equals = rest.IndexOf('=', at);
            if (equals < 0) break;
            var name = rest[at..equals].Trim();
            at = equals + 1;
            var quote = at < rest.Length && rest[at] is '"' or '\'' && at < rest.Length ? rest[at] : '\0';
            var end = quote == '\0' ? rest.IndexOfAny([' ', '\t'], at) : rest.IndexOf(quote, at + 1);
            if (end < 0) end = rest.Length;
            if (name.Length > 0) pairs[name.ToUpperInvariant()] = quote == '\0' ? rest[at..end] : rest[Math.Min(at + 1, end)..end];
            at = quote == '\0' ? end : end + 1;
        }
        return pairs;
    }

    private static bool IsLetter(byte c) => (c & 0xDF) is >= 'A' and <= 'Z';
}

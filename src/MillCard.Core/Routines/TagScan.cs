namespace MillCard.Core.Routines;

/// <summary>A first look at a template, before its parser: bounds what could exhaust the parser, and finds places.</summary>
internal static class TagScan
{
    private const int LongestTag = 600;
    private const int DeepestNesting = 100;
    private static readonly string[] Opening = ["if", "unless", "for", "case", "comment", "raw", "tablerow", "ifchanged", "block"];

    /// <summary>What is too long or too deep; null where nothing is.</summary>
    public static RoutineProblem? TooMuch(string text)
    {
        var depth = 0;
        foreach (var (start, end) in Tags(text))
        {
            if (end - start > LongestTag) return At(text, start, $"This tag is longer than {LongestTag} characters.");
            if (text[start + 1] != '%') continue;
            var name = text[(start + 2)..end].TrimStart('-', ' ', '\t', '\r', '\n').Split([' ', '\t', '\r', '\n', '%', '-'], 2)[0];
            if (Opening.Contains(name) && ++depth > DeepestNesting)
                return At(text, start, $"Tags are nested deeper than {DeepestNesting}.");
            if (name.StartsWith("end", StringComparison.Ordinal)) depth--;
        }
        return null;
    }

    /// <summary>Where a name first stands within a tag.</summary>
    public static RoutineProblem Find(string text, string name, string message)
    {
        foreach (var (start, end) in Tags(text))
        {
            for (var at = text.IndexOf(name, start, end - start, StringComparison.Ordinal); at >= 0
                && at < end; at = text.IndexOf(name, at + 1, end - at - 1, StringComparison.Ordinal))
            {
                var after = at + name.Length;
                if (!IsName(text[at - 1]) && (after >= text.Length || !IsName(text[after]))) return At(text, at, message);
            }
        }
        return new RoutineProblem(1, 1, message);
    }

    /// <summary>A problem at a position.</summary>
    public static RoutineProblem At(string text, int position, string message)
    {
        var line = text.AsSpan(0, position).Count('\n') + 1;
        return new RoutineProblem(line, position - text.LastIndexOf('\n', Math.Max(0, position - 1), Math.Max(0, position)), message);
    }

    private static bool IsName(char c) => char.IsAsciiLetterOrDigit(c) || c is '_' or '.';

    /// <summary>Where tags begin and end.</summary>
    internal static IEnumerable<(int Start, int End)> Tags(string text)
    {
        var at = 0;
        while (at < text.Length - 1)
        {
            at = text.IndexOf('{', at);
            if (at < 0 || at + 1 >= text.Length) yield break;
            if (text[at + 1] is not ('{' or '%')) { at++; continue; }
            var close = text.IndexOf(text[at + 1] == '{' ? "}}" : "%}", at + 2, StringComparison.Ordinal);
            var end = close < 0 ? text.Length : close + 2;
            yield return (at, end);
            at = end;
        }
    }
}

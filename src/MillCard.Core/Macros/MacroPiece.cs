namespace MillCard.Core.Macros;

/// <summary>Kinds of pieces of a macro's template.</summary>
internal enum MacroPieceKind
{
    /// <summary>Text as it is.</summary>
    Text,
    /// <summary>An expression whose value is written.</summary>
    Output,
    /// <summary>A tag: a condition, a loop, a variable.</summary>
    Tag,
}

/// <summary>A piece of a macro's template.</summary>
internal sealed record MacroPiece(MacroPieceKind Kind, string Text)
{
    /// <summary>Takes a template apart; comments of the template are left out.</summary>
    public static IReadOnlyList<MacroPiece> Of(string template)
    {
        var pieces = new List<MacroPiece>();
        var at = 0;
        while (at < template.Length)
        {
            var brace = template.IndexOf('{', at);
            if (brace < 0) break;
            if (brace > at) pieces.Add(new(MacroPieceKind.Text, template[at..brace]));
            var next = brace + 1 < template.Length ? template[brace + 1] : '\0';
            var (closing, skip) = next switch { '%' => ("%}", 2), '#' => ("#}", 2), _ => ("}", 1) };
            var close = template.IndexOf(closing, brace + skip, StringComparison.Ordinal);
            if (close < 0) return pieces;
            var inner = template[(brace + skip)..close];
            // an expression may hold braces of its own in a text
            if (next == '%') pieces.Add(new(MacroPieceKind.Tag, inner.Trim('-').Trim()));
            else if (next != '#') pieces.Add(new(MacroPieceKind.Output, inner.Trim()));
            at = close + closing.Length;
        }
        if (at < template.Length) pieces.Add(new(MacroPieceKind.Text, template[at..]));
        return pieces;
    }
}

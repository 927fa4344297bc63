using System.Globalization;
using System.Runtime.CompilerServices;

namespace MillCard.Core.Wording;

/// <summary>Texts with numbers as a printer's owner and G-code write them, whatever the computer's language: a full stop, no groups of
/// thousands.</summary>
public static class Texts
{
    /// <summary>An interpolated text, its numbers written so.</summary>
    public static string Invariant(ref InvariantText text) => text.Take();
}

/// <summary>Puts an interpolated text together for <see cref="Texts.Invariant"/>.</summary>
/// <param name="literal">Characters of the text that stand as they are.</param>
/// <param name="values">Values between them.</param>
[InterpolatedStringHandler]
public ref struct InvariantText(int literal, int values)
{
    private DefaultInterpolatedStringHandler _text = new(literal, values, CultureInfo.InvariantCulture);

    /// <summary>Adds what stands as it is.</summary>
    public void AppendLiteral(string text) => _text.AppendLiteral(text);
    /// <summary>Adds a value.</summary>
    public void AppendFormatted<T>(T value) => _text.AppendFormatted(value);
    /// <summary>Adds a value in a format.</summary>
    public void AppendFormatted<T>(T value, string? format) => _text.AppendFormatted(value, format);
    /// <summary>The text; once.</summary>
    internal string Take() => _text.ToStringAndClear();
}

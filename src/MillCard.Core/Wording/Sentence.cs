using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.RegularExpressions;

namespace MillCard.Core.Wording;

/// <summary>
/// A sentence and the values in it. An interpolated text becomes one by itself: every value of it that has a name where it stands
/// (<c>{now}</c>, <c>{wait.Target:0}</c>) is kept under the last part of that name, so that a script need not read the sentence.
/// Numbers are written as <see cref="Texts.Invariant"/> writes them, and kept as they are.
/// </summary>
/// <param name="literal">Characters of the text that stand as they are.</param>
/// <param name="holes">Values between them.</param>
[InterpolatedStringHandler]
public sealed partial class Sentence(int literal, int holes)
{
    private readonly StringBuilder _text = new(literal + 8 * holes);
    private readonly SortedDictionary<string, object> _values = new(StringComparer.Ordinal);

    /// <summary>The text.</summary>
    public string Text => _text.ToString();

    /// <summary>Numbers (double) and texts by their names, in the order of these; null where it has none.</summary>
    public IReadOnlyDictionary<string, object>? Values => _values.Count > 0 ? _values : null;

    /// <summary>All values as one text: sentences about the same have the same.</summary>
    internal string Key => KeyOf(Values);

    /// <summary>Values as one text.</summary>
    internal static string KeyOf(IReadOnlyDictionary<string, object>? values) => values is null ? "" : string.Join('\n', values);

    /// <summary>An interpolated text as a sentence, where its type does not say so.</summary>
    public static Sentence Of(Sentence sentence) => sentence;

    /// <summary>What is said only where it is so; nothing otherwise.</summary>
    public static Sentence? When(bool so, Sentence sentence) => so ? sentence : null;

    /// <summary>Adds what stands as it is.</summary>
    public void AppendLiteral(string text) => _text.Append(text);

    /// <summary>Adds a value, and keeps it where it has a name.</summary>
    /// <param name="value">The value.</param>
    /// <param name="format">How it is written.</param>
    /// <param name="expression">What it is called where it stands.</param>
    public void AppendFormatted<T>(T value, string? format = null, [CallerArgumentExpression(nameof(value))] string expression = "")
    {
        var said = value is IFormattable number ? number.ToString(format, CultureInfo.InvariantCulture) : value?.ToString() ?? "";
        _text.Append(said);
        if (NameOf(expression) is not { } name) return;
        // JSON has no numbers for what is endless or not known
        _values[name] = value is double or float or int or long && Convert.ToDouble(value, CultureInfo.InvariantCulture) is var exact
            && double.IsFinite(exact) ? exact : said;
    }

    /// <summary>Adds a sentence within this one; its values are this one's too.</summary>
    public void AppendFormatted(Sentence? inner)
    {
        if (inner is null) return;
        _text.Append(inner._text);
        foreach (var (name, value) in inner._values) _values[name] = value;
    }

    /// <summary>The last part of a chain of names, with a small letter first; null where the expression is none. A place is told as it is
    /// counted (<c>{line + 1}</c>), a member of a list as the list's.</summary>
    private static string? NameOf(string expression) =>
        Chain().Match(expression) is { Success: true } chain && chain.Groups["name"].Value is { } name
            ? char.ToLowerInvariant(name[0]) + name[1..]
            : null;

    [GeneratedRegex(@"^([\w.!?]|\[\w+\])*?\b_?(?<name>[A-Za-z]\w*)[!?]?(\[\w+\])?[!?]?( \+ 1)?$")]
    private static partial Regex Chain();
}

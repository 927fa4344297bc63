using System.Globalization;
using System.Text.RegularExpressions;

namespace MillCard.Core.Routines.Carrying;

/// <summary>Figures of words in other units; what is written as an expression stays one.</summary>
internal static class CarriedFigures
{
    /// <summary>A line with another figure in a word.</summary>
    public static string Value(string letter, string code, double value) =>
        Regex.Replace(code, $@"(?<=\s){letter}\s*[\d.]+", Invariant($"{letter}{value}"));

    /// <summary>What a speed in one unit is multiplied by to count in another.</summary>
    public static double Factor(string from, string to) => (from == "mm/min" ? 1 / 60.0 : 1) * (to == "mm/min" ? 60 : 1);

    /// <summary>A command with all its words times a factor, but for J, which is no speed.</summary>
    public static string Scaled(string word, CarriedWords words, double factor) =>
        string.Join(' ', words.All.Select(w => w.Key + (w.Value.Length == 0 || w.Key == "J" ? w.Value : Times(w.Value, factor)))
            .Prepend(word));

    /// <summary>A number times a factor; an expression gets a filter.</summary>
    public static string Times(string value, double factor)
    {
        if (factor == 1) return value;
        if (Number(value) is { } number) return Invariant($"{Math.Round(number * factor, 5)}");
        return value.Replace("}}", factor > 1
            ? Invariant($"| times: {factor} }}}}")
            : Invariant($"| divided_by: {Math.Round(1 / factor, 5)} }}}}"), StringComparison.Ordinal);
    }

    /// <summary>What a word says where it is no expression.</summary>
    public static double? Number(string value) => double.TryParse(value, CultureInfo.InvariantCulture, out var number) ? number : null;

    /// <summary>The smaller of two; the first where that cannot be told.</summary>
    public static string? Least(string? a, string? b)
    {
        if (a is null || b is null) return a ?? b;
        return Number(a) is { } x && Number(b) is { } y && y < x ? b : a;
    }
}

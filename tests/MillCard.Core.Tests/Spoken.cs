using System.Globalization;
using System.Text.RegularExpressions;
using MillCard.Core.Findings;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>The numbers that a sentence speaks, read back from its text.</summary>
internal static partial class Spoken
{
    /// <summary>These findings, of which every number that they speak is among their values.</summary>
    public static Finding[] AllKept(IEnumerable<Finding> findings)
    {
        Finding[] all = [.. findings];
        AllKept(all.Select(f => (f.Rule, f.Message, f.Values)));
        return all;
    }

    /// <summary>The same of reasons.</summary>
    public static void AllKept(Matching.Match match) => AllKept(match.Reasons.Select(r => (r.Code, r.Message, r.Values)));

    private static void AllKept(IEnumerable<(string Code, string Message, IReadOnlyDictionary<string, object>? Values)> said)
    {
        var lost = said.SelectMany(s => NotKept(s.Message, s.Values).Select(number => $"{s.Code}: {number} of \"{s.Message}\""));
        Assert.True(!lost.Any(), string.Join('\n', lost));
    }

    /// <summary>Numbers of the sentence that none of its values comes to when it is rounded as they are.</summary>
    public static IEnumerable<string> NotKept(string message, IReadOnlyDictionary<string, object>? values)
    {
        var texts = (values?.Values.OfType<string>() ?? []).Where(t => t.Length > 0).OrderByDescending(t => t.Length);
        var rest = texts.Aggregate(message, (left, text) => left.Replace(text, ""));
        return Number().Matches(rest).Select(m => m.Value)
            .Where(said => values?.Values.OfType<double>().Any(value => Rounds(value, said)) != true);
    }

    private static bool Rounds(double value, string said)
    {
        var digits = said.Contains('.') ? said.Length - said.IndexOf('.') - 1 : 0;
        return Math.Abs(value - double.Parse(said, CultureInfo.InvariantCulture)) <= 0.5000001 * Math.Pow(10, -digits);
    }

    /// <summary>A number that is no part of a word such as G91 or T-1.</summary>
    [GeneratedRegex(@"(?<![\w.-])-?\d+(\.\d+)?(?![\w/])")]
    private static partial Regex Number();
}

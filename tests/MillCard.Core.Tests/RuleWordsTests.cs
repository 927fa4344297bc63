using System.Globalization;
using MillCard.Core.Findings;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What rules say of their cases and what their remedies write, word for word, and what all other rules find in them: every line
/// of <c>rule-words.txt</c> and <c>rule-finds.txt</c> was read and held to be right. With WORDS=write they are written anew.</summary>
public sealed class RuleWordsTests
{
    [Fact]
    public void Rules_say_what_was_read_and_remedies_write_it() => Read("rule-words.txt", [.. Cards(), .. Programs()]);

    [Fact]
    public void Nothing_but_what_was_read_is_found_in_any_of_their_cases() =>
        Read("rule-finds.txt", [.. FoundInCards(), .. FoundInPrograms()]);

    private static void Read(string name, string[] now)
    {
        var file = Path.Combine(DemoParts.Root, "tests", "MillCard.Core.Tests", name);
        if (Environment.GetEnvironmentVariable("WORDS") == "write") File.WriteAllLines(file, now);
        Assert.Equal(File.ReadAllLines(file), now);
    }

    private static IEnumerable<string> FoundInCards() => CardRuleTests.Pairs.Select(p => p.Data).SelectMany(pair =>
        new[] { pair.Item3, pair.Item4 }.Select(card => Found($"{pair.Item1} {pair.Item2}", RuleBook.Check(card))));

    private static IEnumerable<string> FoundInPrograms() => RuleTests.Cases.Concat(RuleTests.Bounds).Select(p => p.Data).SelectMany(bound =>
        new[] { bound.Item3, bound.Item5 }.Select(program =>
            Found(bound.Item1, RuleTests.Find(program, RuleTests.Machines[bound.Item2]))));

    private static string Found(string of, IEnumerable<Finding> findings) =>
        $"{of}: {string.Join(", ", findings.Select(f => $"{f.Rule} {f.Pointer}{f.Line}").Order(StringComparer.Ordinal))}";

    private static IEnumerable<string> Cards() => CardRuleTests.Pairs.Select(p => p.Data).SelectMany(pair =>
    {
        var (rule, pointer, bad, _) = pair;
        return RuleBook.Check(bad).Where(f => f.Rule == rule && f.Pointer == pointer).SelectMany(f => Words(f, pointer));
    });

    private static IEnumerable<string> Programs() => RuleTests.Cases.Concat(RuleTests.Bounds).Select(p => p.Data).SelectMany(bound =>
    {
        var (rule, machine, program, line, _) = bound;
        return RuleTests.Find(program, RuleTests.Machines[machine]).Where(f => f.Rule == rule && f.Line == line)
            .SelectMany(f => Words(f, $"{line.ToString(CultureInfo.InvariantCulture)}: {program.Split('\n')[line - 1]}"));
    });

    private static IEnumerable<string> Words(Finding finding, string at) =>
        [$"{finding.Rule} ({finding.Severity}) {at}", $"  {finding.Message}", $"  {finding.Why}",
            .. (finding.Remedy?.Edits ?? []).Select(edit => $"  {finding.Remedy!.Label} > {Edited(edit)}")];

    private static string Edited(Edit edit) => edit.How == EditKind.SetFact
        ? $"{edit.Pointer} = {edit.Value?.ToJsonString() ?? "gone"}"
        : FormattableString.Invariant($"{edit.How} {edit.Line} {edit.Text?.Replace("\n", " ⏎ ", StringComparison.Ordinal)}").TrimEnd();
}

using System.Globalization;
using System.Text;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Rules;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What rules say of their cases and what their remedies write, word for word: every line of <c>rule-words.txt</c> was read and
/// held to be right. With WORDS=write it is written anew.</summary>
public sealed class RuleWordsTests
{
    private static string File => Path.Combine(DemoParts.Root, "tests", "MillCard.Core.Tests", "rule-words.txt");

    [Fact]
    public void Rules_say_what_was_read_and_remedies_write_it()
    {
        string[] now = [.. Cards(), .. Programs()];
        if (Environment.GetEnvironmentVariable("WORDS") == "write") System.IO.File.WriteAllLines(File, now);
        Assert.Equal(System.IO.File.ReadAllLines(File), now);
    }

    private static IEnumerable<string> Cards() => CardRuleTests.Pairs.Select(p => p.Data).SelectMany(pair =>
    {
        var (rule, pointer, bad, _) = pair;
        return RuleBook.Check(bad).Where(f => f.Rule == rule && f.Pointer == pointer).SelectMany(f => Words(f, pointer));
    });

    private static IEnumerable<string> Programs() => RuleTests.Cases.Concat(RuleTests.Bounds).Select(p => p.Data).SelectMany(bound =>
    {
        var (rule, name, program, line, _) = bound;
        var machine = RuleTests.Machines[name].Machine();
        return RuleBook.Check(SimulatedMachine.Run(machine, Encoding.UTF8.GetBytes(program)), machine)
            .Where(f => f.Rule == rule && f.Line == line)
            .SelectMany(f => Words(f, $"{line.ToString(CultureInfo.InvariantCulture)}: {program.Split('\n')[line - 1]}"));
    });

    private static IEnumerable<string> Words(Finding finding, string at) =>
        [$"{finding.Rule} ({finding.Severity}) {at}", $"  {finding.Message}",
            .. (finding.Remedy?.Edits ?? []).Select(edit => $"  {finding.Remedy!.Label} > {Edited(edit)}")];

    private static string Edited(Edit edit) => edit.How == EditKind.SetFact
        ? $"{edit.Pointer} = {edit.Value?.ToJsonString() ?? "gone"}"
        : FormattableString.Invariant($"{edit.How} {edit.Line} {edit.Text?.Replace("\n", " ⏎ ", StringComparison.Ordinal)}").TrimEnd();
}

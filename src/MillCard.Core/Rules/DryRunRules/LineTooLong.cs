using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A line longer than the firmware's buffer.</summary>
public sealed class LineTooLong : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("line-too-long", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.Flavour.LongestLine is not { } most) yield break;
        var (first, longest, count) = (-1, 0, 0);
        for (var i = 0; i < run.Text.Count; i++)
        {
            var line = run.Text.Line(i);
            if (line.Length <= most) continue;
            var comment = line.IndexOf((byte)';');
            var length = comment < 0 ? line.Length : line[..comment].TrimEnd((byte)' ').Length;
            if (length <= most) continue;
            if (first < 0) first = i;
            longest = Math.Max(longest, length);
            count++;
        }
        if (first >= 0)
            yield return Id.OnLine(first, $"A line is {longest} bytes long; the usual buffer of {run.Flavour.Name} takes "
                + $"{most}.{Sentence.When(count > 1, $" {count} lines are longer.")}",
                "The rest of the line is lost or read as another command.");
    }
}

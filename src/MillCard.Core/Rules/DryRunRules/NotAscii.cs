using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A command with letters outside ASCII.</summary>
public sealed class NotAscii : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("not-ascii", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (System.Text.Ascii.IsValid(run.Text.Bytes.Span)) yield break;
        for (var i = 0; i < run.Text.Count; i++)
        {
            var line = run.Text.Line(i);
            if (System.Text.Ascii.IsValid(line)) continue;
            var comment = line.IndexOf((byte)';');
            if (comment >= 0 && System.Text.Ascii.IsValid(line[..comment])) continue;
            yield return Id.OnLine(i, $"This line has letters outside ASCII: \"{run.Text.Text(i).Trim()}\".",
                "Displays show other letters, and some firmwares stop reading.");
            yield break;
        }
    }
}

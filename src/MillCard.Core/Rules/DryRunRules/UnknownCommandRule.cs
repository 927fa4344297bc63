using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A line that the dialect does not know.</summary>
public sealed class UnknownCommandRule : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("unknown-command", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine) =>
        from same in run.Unknown.Where(u => !UnknownMacro.IsName(run, u)).GroupBy(u => u.Text.Trim().Split(' ', ';')[0])
        let lines = same.Count()
        let more = Sentence.When(lines > 1, $" It stands on {lines} lines.")
        let inside = same.First().Macro is { } macro ? $" It stands in {macro}." : ""
        select Id.OnLine(same.First().Line, $"{run.Flavour.Name} does not know \"{same.Key}\".{more}{inside}", run.Flavour.HaltsOnUnknown
            ? "The print stops there." : "The firmware skips the line or stops with a message.") with
        {
            Severity = run.Flavour.HaltsOnUnknown ? Severity.Stop : Severity.Caution,
        };
}

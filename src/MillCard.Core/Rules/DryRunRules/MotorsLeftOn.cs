using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The motors still hold when the program ends.</summary>
public sealed class MotorsLeftOn : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("motors-left-on", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.End.MotorsOn && run.Extents is not null)
            yield return Id.OnLine(run.LastLine, "The motors are left on.", "They stay warm, and nothing can be moved by hand.")
                .Cure("Switch them off at the end", Edit.After(run.LastLine, run.Flavour.Spell("motors-off") ?? "M84"));
    }
}

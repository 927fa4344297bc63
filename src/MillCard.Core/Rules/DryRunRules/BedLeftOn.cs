using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The bed is still heated when the program ends.</summary>
public sealed class BedLeftOn : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("bed-left-on", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.End.BedTarget > 0)
            yield return Id.OnLine(run.LastLine, $"The bed is still asked for {run.End.BedTarget:0} °C at the end.",
                "The part does not come loose, and the heater runs until somebody comes.")
                .Cure("Switch it off at the end", Edit.After(run.LastLine, run.Flavour.Spell("bed-set", ("value", 0)) ?? "M140 S0"));
    }
}

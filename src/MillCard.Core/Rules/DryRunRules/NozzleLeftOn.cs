using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The nozzle is still heated when the program ends.</summary>
public sealed class NozzleLeftOn : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("nozzle-left-on", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.End.NozzleTarget > 0)
            yield return Id.OnLine(run.LastLine, $"The nozzle is still asked for {run.End.NozzleTarget:0} °C at the end.",
                "It drips, chars what is in it, and is a danger when nobody is there.")
                .Cure("Switch it off at the end", Edit.After(run.LastLine, run.Flavour.Spell("nozzle-set", ("value", 0)) ?? "M104 S0"));
    }
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A macro that calls itself, at once or by way of others: the firmware refuses it.</summary>
public sealed class MacroCallsItself : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("macro-calls-itself", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine) =>
        from call in run.Recursions.DistinctBy(r => (r.Line, r.Macro))
        let cure = run.Flavour.Extended ? " A macro that replaces a command reaches it by the name in rename_existing." : ""
        select Id.OnLine(call.Line, $"{call.Macro} calls itself.", $"The firmware refuses it, and the print stops there.{cure}");
}

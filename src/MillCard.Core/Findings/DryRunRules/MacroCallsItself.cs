using MillCard.Core.DryRun;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>A macro that calls itself, at once or by way of others: the firmware refuses it.</summary>
public sealed class MacroCallsItself : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("macro-calls-itself", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine) =>
        from call in run.Recursions.DistinctBy(r => (r.Line, r.Macro))
        select Id.OnLine(call.Line, $"{call.Macro} calls itself.", "The firmware refuses a macro that is called within itself, and the print stops there. A macro that replaces a command reaches it by the name in rename_existing.");
}

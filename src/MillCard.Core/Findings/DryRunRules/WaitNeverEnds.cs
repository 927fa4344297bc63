using MillCard.Core.DryRun;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>A wait for a temperature that the heater never reaches: the print would never start.</summary>
public sealed class WaitNeverEnds : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("wait-never-ends", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var wait in run.Waits.Where(w => double.IsInfinity(w.Seconds)))
        {
            var model = (wait.Heater == Heater.Nozzle ? run.Nozzles[wait.Tool] : run.Bed!).Model;
            var name = wait.Heater == Heater.Nozzle ? "nozzle" : "bed";
            yield return wait.Target > model.Room
                ? Id.OnLine(wait.Line, $"This {name} ends at {model.Reachable:0} °C; the wait is for {wait.Target:0} °C.", "The print would never start.")
                : Id.OnLine(wait.Line, $"The wait is for {wait.Target:0} °C, and the room is at {model.Room:0} °C.", "It never gets that cold: the print would wait for ever.");
        }
    }
}

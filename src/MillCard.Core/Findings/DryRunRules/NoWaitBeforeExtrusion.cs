using MillCard.Core.DryRun;
using MillCard.Core.Heat;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>Extrusion begins before the nozzle has the temperature that was asked for, and nothing waits for it.</summary>
public sealed class NoWaitBeforeExtrusion : IDryRunRule
{
    private const double Tolerance = 10;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("no-wait-before-extrusion", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.FirstExtrusion < 0) yield break;
        if (run.HeatSteps.LastOrDefault(s => s.Heater == Heater.Nozzle && s.Line < run.FirstExtrusion) is not { } step)
        {
            yield return Id.OnLine(run.FirstExtrusion, "Filament is fed and the nozzle was never heated.", Why);
            yield break;
        }
        if (step.Target <= 0 || run.Waits.Any(w => w.Heater == Heater.Nozzle && w.Line >= step.Line && w.Line < run.FirstExtrusion)) yield break;
        var now = run.Nozzle.At(run.Starts[run.FirstExtrusion]);
        if (step.Target - now > Tolerance + HeatModel.WaitTolerance)
            yield return Id.OnLine(run.FirstExtrusion, $"Filament is fed at {now:0} °C on the way to {step.Target:0} °C; nothing waits for the nozzle.", Why);
    }

    private const string Why = "The first lines come out thin or not at all, and do not stick.";
}

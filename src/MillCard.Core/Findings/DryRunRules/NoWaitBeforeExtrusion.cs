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
        for (var tool = 0; tool < run.FirstExtrusions.Length; tool++)
        {
            var first = run.FirstExtrusions[tool];
            // fed to the wrong nozzle: a rule of its own
            if (first < 0 || run.Nozzles[tool].TargetAt(run.Starts[first]) <= 0 && run.Nozzles.Any(n => n.TargetAt(run.Starts[first]) > 0)) continue;
            var name = run.FirstExtrusions.Length > 1 ? $"nozzle {machine.Nozzles[tool].Id}" : "the nozzle";
            if (run.HeatSteps.LastOrDefault(s => s.Heater == Heater.Nozzle && s.Tool == tool && s.Line < first) is not { } step)
            {
                yield return Id.OnLine(first, $"Filament is fed and {name} was never heated.", Why);
                continue;
            }
            if (step.Target <= 0 || run.Waits.Any(w => w.Heater == Heater.Nozzle && w.Tool == tool && w.Line >= step.Line && w.Line < first)) continue;
            var now = run.Nozzles[tool].At(run.Starts[first]);
            if (step.Target - now > Tolerance + HeatModel.WaitTolerance)
                yield return Id.OnLine(first, $"Filament is fed at {now:0} °C on the way to {step.Target:0} °C; nothing waits for {name}.", Why)
                    .Cure("Wait before it", Edit.Before(first, run.Flavour.Spell("nozzle-wait", ("value", "{{ heat.nozzle }}"))!));
        }
    }

    private const string Why = "The first lines come out thin or not at all, and do not stick.";
}

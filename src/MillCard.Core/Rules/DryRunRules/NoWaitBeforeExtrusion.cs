using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Extrusion begins before the nozzle has the temperature that was asked for, and nothing waits for it.</summary>
public sealed class NoWaitBeforeExtrusion : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("no-wait-before-extrusion", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        for (var tool = 0; tool < run.FirstExtrusions.Length; tool++)
        {
            if (run.FirstExtrusions[tool] is not { Comes: true } first) continue;
            var time = run.TimeOf(first);
            // fed to the wrong nozzle: a rule of its own
            if (run.Nozzles[tool].TargetAt(time) <= 0 && run.Nozzles.Any(n => n.TargetAt(time) > 0)) continue;
            var name = NameOf(machine, tool);
            if (Waits.StepBefore(run, Heater.Nozzle, tool, first) is not { } step)
            {
                yield return Id.OnLine(first.Line, $"Filament is fed and {name} was never heated.", Why);
                continue;
            }
            if (step.Target <= 0 || Waits.IsWaitedFor(run, step, first)) continue;
            var now = run.Nozzles[tool].At(time);
            if (step.Target - now > Waits.Tolerance)
                yield return Id.OnLine(first.Line,
                    $"Filament is fed at {now:0} °C on the way to {step.Target:0} °C; nothing waits for {name}.", Why)
                    .Cure("Wait before it", Edit.Before(first.Line, run.Flavour.Spell("nozzle-wait", ("value", "{{ heat.nozzle }}"))!));
        }
    }

    /// <summary>How a nozzle is called in a sentence.</summary>
    internal static string NameOf(Machine machine, int tool) => machine.Nozzles.Count > 1 ? $"nozzle {machine.Nozzles[tool].Id}"
        : "the nozzle";

    private const string Why = "The first lines come out thin or not at all, and do not stick.";
}

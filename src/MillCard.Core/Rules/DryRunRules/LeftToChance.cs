using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Heat;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Nothing waits for the nozzle, and it is warm in time only because something else takes long enough by the model.</summary>
public sealed class LeftToChance : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("left-to-chance", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        for (var tool = 0; tool < run.FirstExtrusions.Length; tool++)
        {
            if (run.FirstExtrusions[tool] is not { Comes: true } first) continue;
            if (Waits.StepBefore(run, Heater.Nozzle, tool, first) is not { Target: > 0 } step) continue;
            if (Waits.IsWaitedFor(run, step, first)) continue;
            var (begin, time) = (run.TimeOf(step.Begin), run.TimeOf(first));
            var (trace, warm) = (run.Nozzles[tool], step.Target - Waits.Tolerance);
            if (trace.At(begin) >= warm || trace.At(time) < warm) continue;
            var margin = time - WarmFrom(trace, begin, time, warm);
            var name = NoWaitBeforeExtrusion.NameOf(machine, tool);
            yield return Id.OnLine(first.Line,
                    $"Nothing waits for {name}: by the model it is near {step.Target:0} °C {margin:0} s before filament is fed.",
                    "It is left to chance: a warmer room, a bed that is warm already, and the first lines come out of a cold nozzle.")
                .Cure("Wait before it", Edit.Before(first.Line, run.Flavour.Spell("nozzle-wait", ("value", "{{ heat.nozzle }}"))!));
        }
    }

    /// <summary>When a heater that is colder at first and warm enough at last becomes warm enough, s: its target may be set in several
    /// steps.</summary>
    private static double WarmFrom(HeaterTrace trace, double cold, double hot, double warm)
    {
        while (hot - cold > 0.01)
        {
            var middle = (cold + hot) / 2;
            if (trace.At(middle) >= warm) hot = middle;
            else cold = middle;
        }
        return hot;
    }
}

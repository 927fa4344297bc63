using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Printing begins on a bed that is still far from the temperature that was asked for, and nothing waits for it.</summary>
public sealed class BedStillCold : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("bed-still-cold", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.FirstExtrusion is not { Comes: true } first || run.Bed is not { } bed) yield break;
        if (Waits.StepBefore(run, Heater.Bed, 0, first) is not { Target: > 0 } step) yield break;
        if (Waits.IsWaitedFor(run, step, first)) yield break;
        var now = bed.At(run.TimeOf(first));
        if (step.Target - now > Waits.Tolerance)
            yield return Id.OnLine(first.Line,
                $"Filament is laid on a bed of {now:0} °C on the way to {step.Target:0} °C; nothing waits for the bed.",
                    "The first layer does not stick, or comes off when the bed grows.")
                .Cure("Wait before it", Edit.Before(first.Line, run.Flavour.Spell("bed-wait", ("value", "{{ heat.bed }}"))!));
    }
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The nozzle begins to warm only after the bed is warm.</summary>
public sealed class SerialHeating : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("serial-heating", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.Waits.FirstOrDefault(w => w.Heater == Heater.Bed && double.IsFinite(w.Seconds) && w.Seconds > Short) is not { } bed)
            yield break;
        if (run.Nozzles.Any(n => n.TargetAt(bed.At) > 0)) yield break;
        if (run.Waits.FirstOrDefault(w => w.Heater == Heater.Nozzle && w.Begin >= bed.Begin && double.IsFinite(w.Seconds)
            && w.Seconds > Short) is not { } nozzle) yield break;
        var minutes = Math.Min(bed.Seconds, nozzle.Seconds) / 60;
        yield return Id.OnLine(bed.Line, $"The nozzle begins to warm after the wait for the bed: {minutes:0.#} min are lost.",
            "Both can warm together; the nozzle at standby, so that it does not ooze.")
            .Cure(bed.InMacro ? null : "Warm the nozzle to standby first",
                Edit.Before(bed.Line, run.Flavour.Spell("nozzle-set", ("value", "{{ heat.standby }}"))!));
    }

    private const double Short = 20;
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A target above what the heater is rated for.</summary>
public sealed class TargetOverRating : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("target-over-rating", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var heater in new[] { Heater.Nozzle, Heater.Bed })
        {
            double? Rating(HeatStep step) => heater == Heater.Bed
                ? machine.Card.Heat.Bed?.Max
                : machine.Nozzles.ElementAtOrDefault(step.Tool)?.MaxTemperature;
            var step = run.HeatSteps.FirstOrDefault(s => s.Heater == heater && s.Target > Rating(s));
            if (step is not null && Rating(step) is { } rating)
                yield return Id.OnLine(step.Line, $"The {(heater == Heater.Nozzle ? "nozzle" : "bed")} is sent to "
                    + $"{step.Target:0} °C; it is rated for {rating:0} °C.",
                    "The firmware halts, or parts of the heater are damaged.");
            if (heater == Heater.Bed && machine.Card.Envelope.Heated == false
                && run.HeatSteps.FirstOrDefault(s => s.Heater == heater && s.Target > 0) is { } cold)
                yield return Id.OnLine(cold.Line, $"The bed is sent to {cold.Target:0} °C, but this bed has no heater.",
                    "A firmware without a bed heater halts or waits for ever.");
        }
    }
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Heat;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A wait that returns at once because the heater is hotter.</summary>
public sealed class WaitDoesNotWait : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("wait-does-not-wait", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        for (var i = 0; i < run.Waits.Count; i++)
        {
            var wait = run.Waits[i];
            if (!wait.Hotter || wait.Target <= 0) continue;
            var now = run.TraceOf(wait.Heater, wait.Tool)?.At(wait.At) ?? 0;
            if (now <= wait.Target + HeatModel.WaitTolerance) continue;
            yield return Id.OnLine(wait.Line, $"This wait for {wait.Target:0} °C does not wait: the "
                + $"{HeaterWords.NameOf(wait.Heater)} is at {now:0} °C.",
                "With S the wait is over at once when it is hotter; the print starts too hot.")
                .Cure(run.Flavour.ReadsWaitR && !wait.InMacro ? "Wait both ways" : null, Edit.Replace(wait.Line, Waits.Cooling(run, wait)));
        }
    }
}

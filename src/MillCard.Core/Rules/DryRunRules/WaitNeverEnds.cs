using System.Text.RegularExpressions;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Heat;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A wait for a temperature that the heater never reaches: the print would never start.</summary>
public sealed partial class WaitNeverEnds : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("wait-never-ends", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var wait in run.Waits.Where(w => double.IsInfinity(w.Seconds)))
        {
            var model = run.TraceOf(wait.Heater, wait.Tool)!.Model;
            var name = HeaterWords.NameOf(wait.Heater);
            yield return wait.Target > model.Room
                ? Id.OnLine(wait.Line, $"This {name} ends at {model.Reachable:0} °C; the wait is for {wait.Target:0} °C.",
                    "The print would never start.")
                    .Cure(wait.InMacro ? null : $"Ask for {Safe(model):0} °C",
                        Edit.Replace(wait.Line, Digits()
                        .Replace(run.Text.Text(wait.Line), m => Invariant($"{m.Groups["letter"].Value}{Safe(model):0}"), 1)))
                : Id.OnLine(wait.Line, $"The wait is for {wait.Target:0} °C, and the room is at {model.Room:0} °C.",
                    "It never gets that cold: the print would wait for ever.");
        }
    }

    private static double Safe(HeatModel model) => Math.Floor(model.Reachable - 3);

    [GeneratedRegex(@"(?<letter>(?<=\s)[SR])\s*\d+(\.\d+)?")]
    private static partial Regex Digits();
}

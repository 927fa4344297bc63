using System.Text.RegularExpressions;
using MillCard.Core.DryRun;
using MillCard.Core.Heat;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>What waits for what, and waits written another way.</summary>
internal static partial class Waits
{
    /// <summary>What is nearer than this to its target is warm, °C.</summary>
    public const double Tolerance = 10 + HeatModel.WaitTolerance;

    /// <summary>The target that holds at a moment.</summary>
    public static HeatStep? StepBefore(DryRunReport run, Heater heater, int tool, Moment moment) =>
        run.HeatSteps.LastOrDefault(s => s.Heater == heater && s.Tool == tool && s.Begin <= moment);

    /// <summary>Whether a wait stands between a target and a moment that brings the heater near it.</summary>
    public static bool IsWaitedFor(DryRunReport run, HeatStep step, Moment moment) => run.Waits.Any(w =>
        w.Heater == step.Heater && w.Tool == step.Tool && w.Begin >= step.Begin && w.Begin <= moment
            && w.Target >= step.Target - Tolerance);

    /// <summary>The line of a wait with R in place of S.</summary>
    public static string Cooling(DryRunReport run, Wait wait) => Target().Replace(run.Text.Text(wait.Line), "R", 1);

    [GeneratedRegex(@"(?<=\s)S(?=[\s\d{])")]
    private static partial Regex Target();
}

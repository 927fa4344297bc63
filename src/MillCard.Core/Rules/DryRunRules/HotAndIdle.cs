using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Heat;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The nozzle stands hot before anything is fed: probing, homing, waiting for the bed.</summary>
/// <remarks>Counted is the time above the filament's ooze temperature, without the nozzle's own waits for more heat.</remarks>
public sealed class HotAndIdle : IDryRunRule
{
    /// <summary>Longer than this it oozes, s. Common practice, no source.</summary>
    private const double Long = 20;
    private const double Step = 0.25;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("hot-and-idle", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.Starts.Length == 0) yield break;
        for (var tool = 0; tool < run.Nozzles.Count; tool++)
        {
            // one that never feeds is idle to the end where nothing is printed at all, and of no account beside one that does
            var never = run.FirstExtrusion.Comes ? 0 : run.TotalSeconds;
            var until = run.FirstExtrusions[tool].Comes ? run.TimeOf(run.FirstExtrusions[tool]) : never;
            var (hot, since, oozes) = Idle(run, tool, until);
            if (hot <= Long) continue;
            var line = run.LineAt(since);
            yield return Id.OnLine(line, $"The nozzle stands above {oozes:0} °C, where filament oozes, for {Said(hot)} before it is fed.",
                "It drips, and what stays in it chars. Warm it to standby first, and to full heat just before the first line.");
        }
    }

    private static Sentence Said(double seconds)
    {
        if (seconds < 90) return Sentence.Of($"{seconds:0} s");
        var minutes = seconds / 60;
        return Sentence.Of($"{minutes:0.#} min");
    }

    /// <summary>Seconds above the ooze temperature before a time, and since when.</summary>
    private static (double Seconds, double Since, double Oozes) Idle(DryRunReport run, int tool, double until)
    {
        var oozes = run.OozesFrom(tool, until);
        var waits = run.Waits.Where(w => w.Heater == Heater.Nozzle && w.Tool == tool && !w.Hotter && double.IsFinite(w.Seconds)).ToArray();
        var (sum, since) = (0.0, until);
        var step = Math.Max(Step, until / 20_000);
        var printing = run.FirstExtrusion.Comes ? run.TimeOf(run.FirstExtrusion) : double.PositiveInfinity;
        for (var time = 0.0; time < until; time += step)
        {
            // a nozzle that warms while another one prints is not idle, it comes in time
            if (time > printing && run.Nozzles[tool].At(time) < run.Nozzles[tool].TargetAt(time) - HeatModel.WaitTolerance) continue;
            if (run.Nozzles[tool].At(time) < oozes || waits.Any(w => time >= w.At && time < w.At + w.Seconds)) continue;
            sum += Math.Min(step, until - time);
            since = Math.Min(since, time);
        }
        return (sum, since, oozes);
    }
}

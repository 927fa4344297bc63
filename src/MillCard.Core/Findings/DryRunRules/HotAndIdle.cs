using MillCard.Core.DryRun;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>The nozzle stands hot for minutes before anything is fed.</summary>
public sealed class HotAndIdle : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("hot-and-idle", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var first = run.FirstExtrusion < 0 ? run.Starts.Length : run.FirstExtrusion;
        for (var tool = 0; tool < run.Nozzles.Count; tool++)
        {
            var hot = 0.0;
            var line = -1;
            for (var i = 0; i < first; i++)
            {
                if (run.Seconds[i] <= 0) continue;
                // a line is counted from the moment within it at which plastic begins to melt
                var (from, to) = (run.Starts[i], run.Starts[i] + run.Seconds[i]);
                if (run.Nozzles[tool].At(to) < ColdExtrusion.Least) { hot = 0; continue; }
                var share = run.Nozzles[tool].At(from) >= ColdExtrusion.Least ? run.Seconds[i] : HotPart(run, tool, from, to);
                if (share > Long / 4 && line < 0) line = i;
                hot += share;
            }
            if (hot > Long)
                yield return Id.OnLine(Math.Max(0, line), $"The nozzle stands hot for {hot / 60:0.#} min before filament is fed.", "It oozes, and what stays in it chars. Warm it to standby first, and wait for the bed before the nozzle.");
        }
    }

    private const double Long = 180;

    private static double HotPart(DryRunReport run, int tool, double from, double to)
    {
        var (low, high) = (from, to);
        for (var i = 0; i < 40; i++)
        {
            var middle = (low + high) / 2;
            if (run.Nozzles[tool].At(middle) >= ColdExtrusion.Least) high = middle; else low = middle;
        }
        return to - high;
    }
}

using MillCard.Core.DryRun;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>Filament pushed into a nozzle that is too cold to melt it.</summary>
public sealed class ColdExtrusion : IDryRunRule
{
    /// <summary>Below this firmwares refuse to extrude, °C. From memory of the firmwares' public documentation.</summary>
    public const double Least = 170;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("cold-extrusion", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var lines = run.HeatSteps.Where(s => s.Heater == Heater.Nozzle).SelectMany(s => new[] { (Line: s.FirstExtrusion, s.Tool), (Line: s.LastExtrusion, s.Tool) })
            .Concat(run.FirstExtrusions.Select((line, tool) => (Line: line, Tool: tool)));
        foreach (var (line, tool) in lines.Where(l => l.Line >= 0).Order())
        {
            if (run.Nozzles[tool].At(run.Starts[line]) is var now && now >= Least) continue;
            yield return Id.OnLine(line, $"The nozzle is at {now:0} °C when filament is pushed; below {Least:0} °C nothing melts.", "The firmware refuses, or the drive grinds the filament.");
            yield break;
        }
    }
}

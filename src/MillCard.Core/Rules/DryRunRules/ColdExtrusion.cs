using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

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
        var moments = run.HeatSteps.Where(s => s.Heater == Heater.Nozzle)
            .SelectMany(s => new[] { (At: s.FirstExtrusion, s.Tool), (At: s.LastExtrusion, s.Tool) })
            .Concat(run.FirstExtrusions.Select((at, tool) => (At: at, Tool: tool)));
        foreach (var (at, tool) in moments.Where(m => m.At.Comes).Order())
        {
            if (run.Nozzles[tool].At(run.TimeOf(at)) is var now && now >= Least) continue;
            yield return Id.OnLine(at.Line, $"The nozzle is at {now:0} °C when filament is pushed; below {Least:0} °C nothing melts.",
                "The firmware refuses, or the drive grinds the filament.");
            yield break;
        }
    }
}

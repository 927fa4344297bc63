using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A move feeds more plastic a second than the nozzle melts.</summary>
public sealed class FlowOverLimit : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("flow-over-limit", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var (line, worst, most, count) = (-1, 0.0, 0.0, 0);
        var limits = run.Nozzles.Select((_, i) => i < machine.Nozzles.Count
            && machine.Nozzles[i] is { MaxFlow: { } flow, FilamentDiameter: { } d } ? (Flow: flow, Area: ExtrudedLine.FilamentArea(d))
            : (Flow: double.PositiveInfinity, Area: 0)).ToArray();
        var fastest = Math.Max(machine.Card.Motion.Axes.X?.MaxSpeed ?? 1e9, machine.Card.Motion.Axes.Y?.MaxSpeed ?? 1e9);
        foreach (ref readonly var move in run.Moves)
        {
            if (!move.Extrudes || limits[move.Tool].Area == 0) continue;
            var (dx, dy) = (move.To.X - move.From.X, move.To.Y - move.From.Y);
            var flow = move.Filament * limits[move.Tool].Area * Math.Min(move.Speed, fastest) / Math.Sqrt(dx * dx + dy * dy);
            if (flow <= limits[move.Tool].Flow * Allowed) continue;
            count++;
            if (flow > worst) (line, worst, most) = (move.Line, flow, limits[move.Tool].Flow);
        }
        if (count > 0)
            yield return Id.OnLine(line, $"This move feeds {worst:0.#} mm³/s; the nozzle melts "
                + $"{most:0.#}.{Sentence.When(count > 1, $" {count} moves feed too much.")}",
                "The drive slips and the line comes out thin.");
    }

    private const double Allowed = 1.03;
}

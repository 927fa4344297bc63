using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Machines;

namespace MillCard.Core.DryRun;

/// <summary>The move of a run that wants most plastic melted.</summary>
/// <param name="Flow">mm³/s.</param>
/// <param name="Ceiling">What its nozzle and filament melt, mm³/s; null where neither says.</param>
/// <param name="Line">Counted from 0.</param>
public sealed record PeakFlow(double Flow, double? Ceiling, int Line)
{
    /// <summary>Shorter moves say more about rounding than about flow, mm.</summary>
    private const double Shortest = 0.5;

    /// <summary>Of a run; null where nothing is laid, or a filament's diameter is not known.</summary>
    /// <param name="run">Any.</param>
    /// <param name="machine">On which it ran.</param>
    /// <param name="filaments">By tool.</param>
    public static PeakFlow? Of(DryRunReport run, Machine machine, IReadOnlyList<Filament?> filaments)
    {
        double[] areas = [.. filaments.Select(f => f?.Diameter is { } diameter ? ExtrudedLine.FilamentArea(diameter) : 0)];
        var (most, line, tool) = (0.0, -1, 0);
        foreach (ref readonly var move in run.Moves)
        {
            if (!move.Extrudes || move.Tool >= areas.Length) continue;
            var (dx, dy, dz) = ((double)move.To.X - move.From.X, (double)move.To.Y - move.From.Y, (double)move.To.Z - move.From.Z);
            var length = Math.Sqrt(dx * dx + dy * dy + dz * dz);
            if (length > Shortest && move.Filament * areas[move.Tool] / length * move.Speed is var flow && flow > most)
                (most, line, tool) = (flow, move.Line, move.Tool);
        }
        return line < 0 ? null : new PeakFlow(most, Least(machine.Nozzles[tool].MaxFlow, filaments[tool]!.MaxFlow), line);
    }

    private static double? Least(double? a, double? b) => a is { } one && b is { } other ? Math.Min(one, other) : a ?? b;
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>E words that jump: positions read as lengths, or lengths as positions.</summary>
public sealed class ModeMismatch : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("mode-mismatch", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var (first, jumps, pulls, prints, pulled) = (-1, 0, 0, 0, false);
        var most = run.Nozzles.Select((_, i) => 12 * Square(i < machine.Nozzles.Count ? machine.Nozzles[i].Diameter ?? 0.4
            : 0.4) / Math.PI * 4 / Square(i < machine.Nozzles.Count ? machine.Nozzles[i].FilamentDiameter ?? 1.75 : 1.75)).ToArray();
        foreach (ref readonly var move in run.Moves)
        {
            var way = Math.Sqrt(Square(move.To.X - move.From.X) + Square(move.To.Y - move.From.Y));
            if (move.Filament == 0) continue;
            if (way < 0.2) { pulled = false; continue; }
            prints++;
            var jump = move.Filament > most[move.Tool] * way && move.Filament > 1;
            // a wipe pulls back on its way, too, and is pushed in again standing before the next line
            if (move.Filament > 0 && pulled) pulls++;
            pulled = move.Filament < 0;
            if (jump) jumps++;
            if (first < 0 && jump) first = move.Line;
        }
        if (jumps >= Few && jumps > prints / 10)
            yield return Id.OnLine(first, $"E words jump: {jumps} moves feed many times what a line holds. They are written as "
                + $"positions and read as lengths (M83).", "The drive would push metres of filament into the nozzle.")
                .Cure("Count E as positions", Edit.Before(first, "M82"));
        else if (prints >= Few && pulls > prints * 0.2)
            yield return Id.OnLine(run.FirstExtrusion.Line,
                $"{pulls} of {prints} printing moves pull filament back. E words are written as lengths and read as positions (M82).",
                "Nothing would come out.").Cure("Count E as lengths", Edit.Before(run.FirstExtrusion.Line, "M83"));
    }

    private const int Few = 3;

    private static double Square(double v) => v * v;
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Plastic of the start routine lies where the part is printed.</summary>
public sealed class PrimeLineUnderPart : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("prime-line-under-part", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.LayersBegin < 0) yield break;
        var laid = new HashSet<(int X, int Y)>();
        var line = -1;
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line > run.LayersBegin) break;
            if (!move.Known || !move.Extrudes) continue;
            line = move.Line;
            foreach (var cell in Cells(move)) laid.Add(cell);
        }
        if (laid.Count == 0) yield break;
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line <= run.LayersBegin || !move.Extrudes) continue;
            if (run.LayersEnd >= 0 && move.Line >= run.LayersEnd || move.To.Z > FirstLayers) break;
            if (!Crosses(laid, move)) continue;
            yield return Id.OnLine(line, $"The start routine lays plastic where the part is printed, near "
                + $"X {move.To.X:0.#} Y {move.To.Y:0.#}.", "It shows in the underside of the part, or the part does not stick there.");
            yield break;
        }
    }

    private const float FirstLayers = 1;

    private static bool Crosses(HashSet<(int X, int Y)> laid, in SimulatedMove move)
    {
        foreach (var cell in Cells(move)) if (laid.Contains(cell)) return true;
        return false;
    }

    /// <summary>Cells of 1 mm under a move.</summary>
    private static List<(int X, int Y)> Cells(in SimulatedMove move)
    {
        var (dx, dy) = (move.To.X - move.From.X, move.To.Y - move.From.Y);
        var steps = Math.Min(2000, (int)Math.Ceiling(Math.Max(Math.Abs(dx), Math.Abs(dy)) * 2));
        var cells = new List<(int X, int Y)>(steps + 1);
        for (var k = 0; k <= steps; k++)
            cells.Add(((int)Math.Floor(move.From.X + dx * k / Math.Max(1, steps)),
                (int)Math.Floor(move.From.Y + dy * k / Math.Max(1, steps))));
        return cells;
    }
}

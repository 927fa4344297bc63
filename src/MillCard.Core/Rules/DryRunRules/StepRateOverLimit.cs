using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A move needs more steps a second than the board sends.</summary>
public sealed class StepRateOverLimit : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("step-rate", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (machine.Card.Motion is not { StepRate: { } board } motion || motion.Layout == MotionLayout.Delta) yield break;
        var steps = new[] { motion.Axes.X?.StepsPerMm ?? 0, motion.Axes.Y?.StepsPerMm ?? 0, motion.Axes.Z?.StepsPerMm ?? 0 };
        var most = new[] { motion.Axes.X?.MaxSpeed ?? 1e9, motion.Axes.Y?.MaxSpeed ?? 1e9, motion.Axes.Z?.MaxSpeed ?? 1e9 };
        var (line, rate, axis) = (-1, board, 0);
        foreach (ref readonly var move in run.Moves)
        {
            var way = new Spot(Math.Abs(move.To.X - move.From.X), Math.Abs(move.To.Y - move.From.Y), Math.Abs(move.To.Z - move.From.Z));
            var length = Math.Sqrt(way.X * way.X + way.Y * way.Y + way.Z * way.Z);
            if (length < 0.01) continue;
            ReadOnlySpan<double> ways = [way.X, way.Y, way.Z];
            for (var i = 0; i < 3; i++)
            {
                var needed = Math.Min(most[i], move.Speed * ways[i] / length) * steps[i];
                if (needed > rate) (line, rate, axis) = (move.Line, needed, i);
            }
        }
        if (line >= 0)
            yield return Id.OnLine(line, $"{"XYZ"[axis]} needs {rate:0} steps a second here; the board sends {board:0}.",
                "The board stutters or loses steps.");
    }
}

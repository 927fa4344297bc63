using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A move asks for more speed along an axis than the card says it makes.</summary>
public sealed class SpeedOverLimit : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("speed-over-limit", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (machine.Card.Motion.Layout == MotionLayout.Delta) yield break;
        var axes = machine.Card.Motion.Axes;
        var limits = new[] { axes.X?.MaxSpeed ?? double.PositiveInfinity, axes.Y?.MaxSpeed ?? double.PositiveInfinity, axes.Z?.MaxSpeed
            ?? double.PositiveInfinity };
        var worst = new (int Line, double Speed, int Count)[3];
        foreach (ref readonly var move in run.Moves)
        {
            var (dx, dy, dz) = (Math.Abs(move.To.X - move.From.X), Math.Abs(move.To.Y - move.From.Y), Math.Abs(move.To.Z - move.From.Z));
            var length = Math.Sqrt(dx * dx + dy * dy + dz * dz);
            if (length < 0.01) continue;
            Look(0, move.Speed * dx / length, move.Line);
            Look(1, move.Speed * dy / length, move.Line);
            Look(2, move.Speed * dz / length, move.Line);
        }
        for (var axis = 0; axis < 3; axis++)
            if (worst[axis] is var (line, speed, count) && count > 0)
                yield return Id.OnLine(line, $"A move asks for {speed:0.#} mm/s along {"XYZ"[axis]}; the axis makes {limits[axis]:0.#}."
                    + $"{MoveWords.More(count)}",
                    "The firmware goes slower, or motors lose steps where its own limit is higher.");

        void Look(int axis, double speed, int line)
        {
            if (speed <= limits[axis] * Allowed) return;
            worst[axis] = (worst[axis].Count == 0 ? line : worst[axis].Line, Math.Max(worst[axis].Speed, speed), worst[axis].Count + 1);
        }
    }

    private const double Allowed = 1.01;
}

using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A move that ends beyond the axes' travel.</summary>
public sealed class OutsideTravel : IDryRunRule
{
    private const double Tolerance = 0.01;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("outside-travel", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var axes = machine.Card.Motion.Axes;
        var box = machine.Bed.EnvelopeInternal;
        var delta = machine.Card.Motion.Layout == MotionLayout.Delta;
        var radius = axes.X?.Max ?? Math.Max(box.Width, box.Height) / 2;
        var reach = Enumerable.Range(0, run.Nozzles.Count).Select(i => Reached(machine, i)).ToArray();
        var travel = new (string Name, double Min, double Max)[]
        {
            ("X", reach[0].X.Min, reach[0].X.Max),
            ("Y", reach[0].Y.Min, reach[0].Y.Max),
            ("Z", axes.Z?.Min ?? 0, axes.Z?.Max ?? machine.Card.Envelope.Height!.Value),
        };
        var first = new (int Line, double At, int Count)[3];
        Look(run.Moves);
        Look(run.SecondMoves);
        for (var i = 0; i < 3; i++)
        {
            var (line, at, count) = first[i];
            if (count == 0) continue;
            var more = MoveWords.More(count);
            var (name, min, max) = travel[i];
            yield return delta && i == 0
                ? Id.OnLine(line, $"The move ends {at:0.##} mm from the centre; the machine reaches {radius:0.##}.{more}", Why)
                : Id.OnLine(line, $"The move ends at {name} {at:0.##}; the machine reaches {min:0.##} to {max:0.##}.{more}", Why);
        }

        void Look(ReadOnlySpan<SimulatedMove> moves)
        {
            foreach (ref readonly var move in moves)
            {
                if (!move.Known) continue;
                var (x, y) = reach[move.Tool];
                if (delta) Disc(move, radius, first); else { Axis(0, move.To.X, x, move.Line); Axis(1, move.To.Y, y, move.Line); }
                // rules of their own look below the bed, and above all travel at the end
                if (move.To.Z < travel[2].Min ? !BelowBed.Over(machine, move.To) : run.LayersEnd < 0 || move.Line < run.LayersEnd)
                    Axis(2, move.To.Z, (travel[2].Min, travel[2].Max), move.Line);
            }
        }

        void Axis(int axis, double at, (double Min, double Max) reached, int line)
        {
            if (at >= reached.Min - Tolerance && at <= reached.Max + Tolerance) return;
            if (first[axis].Count == 0) travel[axis] = (travel[axis].Name, reached.Min, reached.Max);
            first[axis] = first[axis].Count == 0 ? (line, at, 1) : first[axis] with { Count = first[axis].Count + 1 };
        }
    }

    /// <summary>Where a nozzle's tip can be, machine frame.</summary>
    private static ((double Min, double Max) X, (double Min, double Max) Y) Reached(Machine machine, int nozzle)
    {
        var box = machine.Travel(nozzle).EnvelopeInternal;
        var (low, high) = (machine.Frames.ToMachine(new Point(box.MinX, box.MinY)),
            machine.Frames.ToMachine(new Point(box.MaxX, box.MaxY)));
        return ((low.X, high.X), (low.Y, high.Y));
    }

    private const string Why = "The carriage runs into its stop: steps are lost and everything after lies in the wrong place.";

    private static void Disc(in SimulatedMove move, double radius, (int Line, double At, int Count)[] first)
    {
        var distance = Math.Sqrt(move.To.X * move.To.X + move.To.Y * move.To.Y);
        if (distance <= radius + Tolerance) return;
        first[0] = first[0].Count == 0 ? (move.Line, distance, 1) : first[0] with { Count = first[0].Count + 1 };
    }
}

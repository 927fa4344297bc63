using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

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
        var corner = machine.Frames.ToMachine(new Point(box.MinX, box.MinY));
        var far = machine.Frames.ToMachine(new Point(box.MaxX, box.MaxY));
        var delta = machine.Card.Motion.Layout == MotionLayout.Delta;
        var radius = axes.X?.Max ?? Math.Max(box.Width, box.Height) / 2;
        var travel = new (string Name, double Min, double Max)[]
        {
            ("X", axes.X?.Min ?? corner.X, axes.X?.Max ?? far.X),
            ("Y", axes.Y?.Min ?? corner.Y, axes.Y?.Max ?? far.Y),
            ("Z", Math.Min(0, axes.Z?.Min ?? 0), axes.Z?.Max ?? machine.Card.Envelope.Height!.Value),
        };
        var first = new (int Line, double At, int Count)[3];
        foreach (ref readonly var move in run.Moves)
        {
            if (!move.Known) continue;
            if (delta) Disc(move, radius, first); else { Axis(0, move.To.X, move.Line); Axis(1, move.To.Y, move.Line); }
            Axis(2, move.To.Z, move.Line);
        }
        for (var i = 0; i < 3; i++)
        {
            if (first[i].Count == 0) continue;
            var more = first[i].Count > 1 ? $" {first[i].Count} moves do." : "";
            yield return delta && i == 0
                ? Id.OnLine(first[i].Line, $"The move ends {first[i].At:0.##} mm from the centre; the machine reaches {radius:0.##}.{more}", Why)
                : Id.OnLine(first[i].Line, $"The move ends at {travel[i].Name} {first[i].At:0.##}; the machine reaches {travel[i].Min:0.##} to {travel[i].Max:0.##}.{more}", Why);
        }

        void Axis(int axis, double at, int line)
        {
            if (at >= travel[axis].Min - Tolerance && at <= travel[axis].Max + Tolerance) return;
            first[axis] = first[axis].Count == 0 ? (line, at, 1) : first[axis] with { Count = first[axis].Count + 1 };
        }
    }

    private const string Why = "The carriage runs into its stop: steps are lost and everything after lies in the wrong place.";

    private static void Disc(in SimulatedMove move, double radius, (int Line, double At, int Count)[] first)
    {
        var distance = Math.Sqrt(move.To.X * move.To.X + move.To.Y * move.To.Y);
        if (distance <= radius + Tolerance) return;
        first[0] = first[0].Count == 0 ? (move.Line, distance, 1) : first[0] with { Count = first[0].Count + 1 };
    }
}

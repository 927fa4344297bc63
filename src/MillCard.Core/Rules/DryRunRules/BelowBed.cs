using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The nozzle below the bed it stands over.</summary>
public sealed class BelowBed : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("below-bed", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var (first, lowest, count) = (-1, 0f, 0);
        foreach (ref readonly var move in run.Moves)
        {
            if (!move.Known || move.To.Z >= -Deep || !Over(machine, move.To)) continue;
            if (first < 0) first = move.Line;
            lowest = Math.Min(lowest, move.To.Z);
            count++;
        }
        var more = MoveWords.More(count);
        if (first >= 0)
            yield return Id.OnLine(first, $"The nozzle goes to Z {lowest:0.###}, below the bed.{more}",
                "It scratches the bed or bends what holds it.");
    }

    private const float Deep = 0.005f;

    internal static bool Over(Machine machine, Spot spot)
    {
        var bed = machine.Frames.ToBed(new Point(spot.X, spot.Y));
        return machine.Bed.Covers(Plane.Factory.CreatePoint(new NetTopologySuite.Geometries.Coordinate(bed.X, bed.Y)));
    }
}

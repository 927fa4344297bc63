using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Reach;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>The nozzle's path through an obstacle, or plastic laid in a reserved place.</summary>
public sealed class ThroughKeepOut : IDryRunRule
{
    private const float Top = 0.005f;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("through-keep-out", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var region in machine.KeepOuts)
        {
            if (region.KeepOut.Kind == KeepOutKind.BadSurface) continue;
            var (line, count) = Through(run, machine, region);
            if (count == 0) continue;
            var more = count > 1 ? $" {count} moves do." : "";
            yield return region.KeepOut.Kind == KeepOutKind.Obstacle
                ? Id.OnLine(line, $"The nozzle runs through {region.KeepOut.Name}{(region.KeepOut.Top is { } top ? $", which is {top:0.##} mm high" : "")}.{more}", "The head hits it.")
                : Id.OnLine(line, $"Plastic is laid in {region.KeepOut.Name}, a reserved place.{more}", "That place is kept for something else.");
        }
    }

    private static (int Line, int Count) Through(DryRunReport run, Machine machine, Region region)
    {
        var outline = PreparedGeometryFactory.Prepare(region.Outline.Buffer(-Geometry.Plane.Touch));
        var box = region.Outline.EnvelopeInternal;
        var corner = machine.Frames.ToMachine(new Point(box.MinX, box.MinY));
        var far = machine.Frames.ToMachine(new Point(box.MaxX, box.MaxY));
        var obstacle = region.KeepOut.Kind == KeepOutKind.Obstacle;
        var top = obstacle ? (float)(region.KeepOut.Top ?? double.PositiveInfinity) - Top : float.PositiveInfinity;
        var (first, count) = (-1, 0);
        foreach (ref readonly var move in run.Moves)
        {
            if (!move.Known || Math.Min(move.From.Z, move.To.Z) >= top || !obstacle && !move.Extrudes) continue;
            if (Math.Max(move.From.X, move.To.X) < corner.X || Math.Min(move.From.X, move.To.X) > far.X) continue;
            if (Math.Max(move.From.Y, move.To.Y) < corner.Y || Math.Min(move.From.Y, move.To.Y) > far.Y) continue;
            if (!Touches(outline, machine, move, top)) continue;
            if (first < 0) first = move.Line;
            count++;
        }
        return (first, count);
    }

    private static bool Touches(IPreparedGeometry outline, Machine machine, in SimulatedMove move, float top)
    {
        var (a, b) = (Below(move.From, move.To, top), Below(move.To, move.From, top));
        var (from, to) = (machine.Frames.ToBed(a), machine.Frames.ToBed(b));
        return from == to
            ? outline.Intersects(Geometry.Plane.Factory.CreatePoint(new Coordinate(from.X, from.Y)))
            : outline.Intersects(Geometry.Plane.Factory.CreateLineString([new Coordinate(from.X, from.Y), new Coordinate(to.X, to.Y)]));
    }

    /// <summary>An end of the move, or where it comes down through the top if that end is above it.</summary>
    private static Point Below(Spot end, Spot other, float top)
    {
        if (end.Z < top) return new Point(end.X, end.Y);
        var t = (end.Z - top) / (end.Z - other.Z);
        return new Point(end.X + t * (other.X - end.X), end.Y + t * (other.Y - end.Y));
    }
}

using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Wording;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The nozzle, a body or a beam of the head through an obstacle, or plastic laid in a reserved place.</summary>
/// <remarks>The clearance margin is left out: it is for planning, this is for what is really hit.</remarks>
public sealed class ThroughKeepOut : IDryRunRule
{
    private const double Top = 0.005;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("through-keep-out", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var region in machine.KeepOuts)
        {
            if (region.KeepOut.Kind == KeepOutKind.BadSurface) continue;
            foreach (var (with, line, count) in Enumerable.Range(0, run.Nozzles.Count).SelectMany(tool => Hits(run, machine, region, tool))
                .GroupBy(h => h.With).Select(g => (g.Key, g.Min(h => h.Line), g.Sum(h => h.Count))))
            {
                var more = MoveWords.More(count);
                var high = Sentence.When(region.KeepOut.Top is not null, $", which is {region.KeepOut.Top:0.##} mm high");
                yield return region.KeepOut.Kind == KeepOutKind.Obstacle
                    ? Id.OnLine(line, $"The {with ?? "nozzle"} runs through {region.KeepOut.Name}{high}.{more}", "The head hits it.")
                    : Id.OnLine(line, $"Plastic is laid in {region.KeepOut.Name}, a reserved place.{more}",
                        "That place is kept for something else.");
            }
        }
    }

    private static List<(string? With, int Line, int Count)> Hits(DryRunReport run, Machine machine, Region region, int tool)
    {
        var hits = new List<(string? With, int Line, int Count)>();
        foreach (var forbidden in Forbidden.Of(machine, region, 0, tool, margin: 0))
            if (Through(run, machine, forbidden, tool) is { Count: > 0 } hit) hits.Add((forbidden.With, hit.Line, hit.Count));
        return hits;
    }

    private static (int Line, int Count) Through(DryRunReport run, Machine machine, Forbidden forbidden, int tool)
    {
        var outline = PreparedGeometryFactory.Prepare(Plane.Offset(forbidden.Core, -Plane.Touch));
        var box = forbidden.Core.EnvelopeInternal;
        var corner = machine.Frames.ToMachine(new Point(box.MinX, box.MinY));
        var far = machine.Frames.ToMachine(new Point(box.MaxX, box.MaxY));
        var obstacle = forbidden.KeepOut.Kind == KeepOutKind.Obstacle;
        var top = obstacle ? forbidden.Below - Top : double.PositiveInfinity;
        var (first, count) = (int.MaxValue, 0);
        Look(run.Moves);
        Look(run.SecondMoves);
        return (first, count);

        void Look(ReadOnlySpan<SimulatedMove> moves)
        {
            foreach (ref readonly var move in moves)
            {
                // a purge strip is there for the start routine; parts stay out of it
                if (!obstacle && run.LayersBegin >= 0 && move.Line < run.LayersBegin) continue;
                if (!move.Known || move.Tool != tool || Math.Min(move.From.Z, move.To.Z) >= top || !obstacle && !move.Extrudes) continue;
                if (Math.Max(move.From.X, move.To.X) < corner.X || Math.Min(move.From.X, move.To.X) > far.X) continue;
                if (Math.Max(move.From.Y, move.To.Y) < corner.Y || Math.Min(move.From.Y, move.To.Y) > far.Y) continue;
                if (!Touches(outline, machine, move, top)) continue;
                first = Math.Min(first, move.Line);
                count++;
            }
        }
    }

    private static bool Touches(IPreparedGeometry outline, Machine machine, in SimulatedMove move, double top)
    {
        var (a, b) = (Below(move.From, move.To, top), Below(move.To, move.From, top));
        var (from, to) = (machine.Frames.ToBed(a), machine.Frames.ToBed(b));
        return from == to
            ? outline.Intersects(Plane.Factory.CreatePoint(new Coordinate(from.X, from.Y)))
            : outline.Intersects(Plane.Factory.CreateLineString([new Coordinate(from.X, from.Y), new Coordinate(to.X, to.Y)]));
    }

    /// <summary>An end of the move, or where it comes down through the top if that end is above it.</summary>
    private static Point Below(Spot end, Spot other, double top)
    {
        if (end.Z < top) return new Point(end.X, end.Y);
        var t = (end.Z - top) / (end.Z - other.Z);
        return new Point(end.X + t * (other.X - end.X), end.Y + t * (other.Y - end.Y));
    }
}

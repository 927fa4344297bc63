using System.Collections.Concurrent;
using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Clearance;

/// <summary>Printing one part after another would drive the head into the first.</summary>
/// <param name="First">Index of the part that stands finished.</param>
/// <param name="Then">Index of the part that would be printed then.</param>
/// <param name="With">What of the head hits it.</param>
/// <param name="Cure">The smallest move of the second part that frees the pair in this order; null where it was not asked for.</param>
public sealed record Conflict(int First, int Then, string With, Move? Cure);

/// <summary>The head where it comes nearest to what stands already, while a part is printed.</summary>
/// <param name="Part">Index of the part that is printed.</param>
/// <param name="Standing">Index of the part that stands finished.</param>
/// <param name="With">What of the head comes nearest.</param>
/// <param name="Nozzle">Index of the nozzle that prints.</param>
/// <param name="X">Where its tip is, mm, bed frame.</param>
/// <param name="Y">Where its tip is, mm, bed frame.</param>
/// <param name="Z">Height of its tip, mm.</param>
/// <param name="Gap">What is left between the two, mm; 0 where the head hits.</param>
public sealed record Moment(int Part, int Standing, string With, int Nozzle, double X, double Y, double Z, double Gap);

/// <summary>What printing one at a time comes to.</summary>
/// <param name="Order">Indices in the order of printing; null where there is none.</param>
/// <param name="Conflicts">Every pair that does not go in one sense, both senses apart.</param>
/// <param name="Cycles">The parts that wait for each other, where there is no order.</param>
/// <param name="TravelHeight">How high the nozzle passes over what is finished, mm.</param>
public sealed record OrderResult(IReadOnlyList<int>? Order, IReadOnlyList<Conflict> Conflicts, IReadOnlyList<IReadOnlyList<int>> Cycles,
    double TravelHeight);

/// <summary>Printing parts one at a time: which of them may stand while which other is printed, and the order that follows.</summary>
/// <remarks>
/// Printing j after i is finished collides when for a body b with u_b + z₁ below i's height the silhouette of what of i rises
/// above u_b + z₁ and P_j ⊕ O_b ⊕ disc(c) overlap by more than 1 µm. P_j is the hull of j's paths, z₁ the first layer, c the
/// clearance margin. The nozzle itself counts as a body of no extent, underside 0 and no margin.
/// </remarks>
public sealed class PrintOrder(Machine machine, Recipe? recipe = null)
{
    private readonly Apron _apron = Fit.ApronOf(recipe, machine.Card);
    private readonly Fit _fit = new(machine, recipe);
    private readonly ConcurrentDictionary<(Footprints, double Turn, bool Mirrored), Profile> _profiles = new();
    private readonly ConcurrentDictionary<(Profile, Profile, int Nozzles), Lazy<Blocked>> _blocked = new();

    /// <summary>Conflicts of all pairs and the order.</summary>
    /// <param name="parts">All that lie on the bed.</param>
    /// <param name="mode">The mode of two carriages; null on a machine with one.</param>
    /// <param name="cures">Whether curing moves are computed too.</param>
    /// <param name="stop">Ends the computation.</param>
    public OrderResult Of(IReadOnlyList<StandingPart> parts, ModeUse? mode = null, Cures cures = Cures.Sought,
        CancellationToken stop = default)
    {
        var stands = Stands(parts, mode, stop);
        var found = new List<Conflict>[parts.Count];
        Parallel.For(0, parts.Count, new ParallelOptions { CancellationToken = stop, TaskScheduler = TaskScheduler.Current }, i =>
        {
            found[i] = [];
            for (var j = 0; j < parts.Count; j++)
                if (i != j && Hit(stands[i], stands[j]) is { } with)
                    found[i].Add(new Conflict(i, j, with, cures == Cures.Sought ? Cure(stands[i], stands[j]) : null));
        });
        var conflicts = found.SelectMany(f => f).ToArray();
        var order = OrderOf(parts, conflicts);
        var tallest = (order ?? [.. Enumerable.Range(0, parts.Count)]).SkipLast(1).Select(i => parts[i].Footprints.Height).DefaultIfEmpty(0)
            .Max();
        return new OrderResult(order, conflicts, order is null ? Cycles.Of(parts.Count, conflicts) : [], tallest + machine.Clearance);
    }

    /// <summary>For every part after the first: the head where it comes nearest to what stands by then.</summary>
    /// <param name="parts">All that lie on the bed.</param>
    /// <param name="order">Indices in the order of printing; any order may be looked at.</param>
    /// <param name="mode">The mode of two carriages; null on a machine with one.</param>
    public IReadOnlyList<Moment> Moments(IReadOnlyList<StandingPart> parts, IReadOnlyList<int> order, ModeUse? mode = null)
    {
        var stands = Stands(parts, mode);
        var moments = new List<Moment>();
        for (var k = 1; k < order.Count; k++)
            if (Tightest(stands, order.Take(k), order[k]) is { } moment) moments.Add(moment);
        return moments;
    }

    /// <summary>The head where it comes nearest to one part while another is printed; null where nothing of it is low enough.</summary>
    public Moment? MomentOf(IReadOnlyList<StandingPart> parts, int first, int then, ModeUse? mode = null) =>
        Tightest(Stands(parts, mode), [first], then);

    /// <summary>Displacements of a second part like the first at which the first, standing, is hit.</summary>
    internal Shape BlockedFor(StandingPart part)
    {
        var own = Stands([part], null)[0][0];
        return BlockedBy(own, own).Area;
    }

    /// <summary>Displacements of a second part, printed once the first stands, at which the head hits that: no fewer than there are, by the
    /// hull of what stands.</summary>
    internal Shape BlockedBy(StandingPart first, StandingPart then)
    {
        var (standing, printed) = (Stands([first], null)[0][0], Stands([then], null)[0][0]);
        return Plane.Union([.. from sweep in Sweeps(printed, standing.Profile.Height)
                               let there = standing.Profile.Above(sweep.Underside + _apron.FirstLayer).Hull
                               where !there.IsEmpty
                               from piece in sweep.Swept.Pieces
                               let swept = MinkowskiSum.Grown((Polygon)MinkowskiSum.Negated(piece), sweep.Margin)
                               select MinkowskiSum.OfConvexPair((Polygon)there, swept)]);
    }

    private Stand[][] Stands(IReadOnlyList<StandingPart> parts, ModeUse? mode, CancellationToken stop = default)
    {
        var second = _fit.PlanOf(parts, mode, stop)?.Second;
        return [.. parts.Select(p => StandsOf(p, second, stop).ToArray())];
    }

    private IEnumerable<Stand> StandsOf(StandingPart part, SecondPart? second, CancellationToken stop)
    {
        yield return new Stand(ProfileOf(part, mirrored: false, stop), new Point(part.X, part.Y), Mirrored: false,
            machine.NozzlesOf(part.Nozzles ?? []));
        if (second is not null) yield return new Stand(ProfileOf(part, second.Mirrored, stop), second.Of(new Point(part.X, part.Y)),
            second.Mirrored, [second.Nozzle]);
    }

    private Profile ProfileOf(StandingPart part, bool mirrored, CancellationToken stop) =>
        _profiles.GetOrAdd((part.Footprints, part.Turn, mirrored), key => new Profile(key.Item1, key.Turn, key.Mirrored, _apron, stop));

    /// <summary>Everything of the head that could hit a standing part of a height: outline swept over the path, underside,
    /// margin.</summary>
    private IEnumerable<(HeadSolid? Solid, string Name, Swept Swept, double Underside, double Margin, int Nozzle)> Sweeps(Stand printed,
        double height)
    {
        foreach (var nozzle in printed.Nozzles)
        {
            if (_apron.FirstLayer < height) yield return (null, "nozzle", printed.Profile.SweptByNozzle, 0, 0, nozzle);
            foreach (var solid in machine.HeadOf(nozzle))
                if (solid.Underside + _apron.FirstLayer < height)
                    yield return (solid, solid.Name, printed.Profile.Swept(solid), solid.Underside, machine.Clearance, nozzle);
        }
    }

    private string? Hit(Stand[] standing, Stand[] printed)
    {
        foreach (var a in standing)
            foreach (var b in printed)
                foreach (var sweep in Sweeps(b, a.Profile.Height))
                {
                    var there = a.Profile.Above(sweep.Underside + _apron.FirstLayer);
                    var (x, y) = (b.At.X - a.At.X, b.At.Y - a.At.Y);
                    if (there.Area.IsEmpty || Boxes.Apart(there.Area.EnvelopeInternal, sweep.Swept.Box, x, y) >= sweep.Margin) continue;
                    var gap = there.Gap(sweep.Swept, x, y, sweep.Margin);
                    if (gap < 0 || gap < sweep.Margin - Plane.Touch) return sweep.Name;
                }
        return null;
    }

    private Move? Cure(Stand[] standing, Stand[] printed)
    {
        if (standing.Length == 1 && printed.Length == 1)
            return BlockedBy(standing[0], printed[0]).WayOut(printed[0].At.X - standing[0].At.X, printed[0].At.Y - standing[0].At.Y);
        var blocked = from a in standing
                      from b in printed
                      let moves = Plane.Moved(BlockedBy(a, b).Area, a.At.X - b.At.X, a.At.Y - b.At.Y)
                      select b.Mirrored ? NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(-1, 1).Transform(moves)
                          : moves;
        return new Blocked(Plane.Union([.. blocked])).WayOut(0, 0);
    }

    /// <summary>Places of the printed part, seen from the standing one, at which that is hit.</summary>
    private Blocked BlockedBy(Stand standing, Stand printed) =>
        _blocked.GetOrAdd((standing.Profile, printed.Profile, printed.Nozzles.Aggregate(0, (bits, n) => bits | 1 << n)),
            _ => new(() => new Blocked(Plane.Union(
            [.. from sweep in Sweeps(printed, standing.Profile.Height)
                let there = standing.Profile.Above(sweep.Underside + _apron.FirstLayer).Area
                from piece in sweep.Swept.Pieces
                where !there.IsEmpty
                select MinkowskiSum.OfConvex(there, MinkowskiSum.Grown((Polygon)MinkowskiSum.Negated(piece), sweep.Margin))])))).Value;

    private Moment? Tightest(Stand[][] stands, IEnumerable<int> standing, int printed)
    {
        (int Part, Stand A, Stand B, HeadSolid? Solid, string Name, double Underside, int Nozzle)? best = null;
        var least = double.PositiveInfinity;
        foreach (var i in standing)
            foreach (var a in stands[i])
                foreach (var b in stands[printed])
                    foreach (var sweep in Sweeps(b, a.Profile.Height))
                    {
                        var there = a.Profile.Above(sweep.Underside + _apron.FirstLayer);
                        var (x, y) = (b.At.X - a.At.X, b.At.Y - a.At.Y);
                        if (there.Area.IsEmpty || Boxes.Apart(there.Area.EnvelopeInternal, sweep.Swept.Box, x, y) >= least) continue;
                        var gap = there.Gap(sweep.Swept, x, y, least);
                        if (gap >= least) continue;
                        (least, best) = (gap, (i, a, b, sweep.Solid, sweep.Name, sweep.Underside, sweep.Nozzle));
                    }
        if (best is not { } found) return null;
        var tip = TipAt(found.A, found.B, found.Solid, found.Underside);
        return new Moment(printed, found.Part, found.Name, found.Nozzle, tip.X, tip.Y, _apron.FirstLayer, Math.Max(0, least));
    }

    /// <summary>Where on its path the nozzle brings a thing of the head nearest to what stands, or deepest into it.</summary>
    private Point TipAt(Stand a, Stand b, HeadSolid? solid, double underside)
    {
        var there = Plane.Moved(a.Profile.Above(underside + _apron.FirstLayer).Area, a.At.X, a.At.Y);
        var path = Plane.Moved(b.Profile.Path, b.At.X, b.At.Y);
        var hitting = solid is null ? there : MinkowskiSum.Of(there, MinkowskiSum.Negated(solid.Outline));
        var both = Plane.Intersection(path, hitting);
        var place = both.IsEmpty || both.Area < Plane.Touch ? DistanceOp.NearestPoints(path, hitting)[0] : both.InteriorPoint.Coordinate;
        return new Point(place.X, place.Y);
    }

    /// <summary>Topological order; among the free ones always the nearest next, from the machine's home, then by name.</summary>
    private int[]? OrderOf(IReadOnlyList<StandingPart> parts, IReadOnlyList<Conflict> conflicts)
    {
        var before = new int[parts.Count];
        var after = Enumerable.Range(0, parts.Count).Select(_ => new List<int>()).ToArray();
        foreach (var (first, then, _, _) in conflicts)
        {
            before[first]++;
            after[then].Add(first);
        }
        var home = machine.Card.Envelope.Home ?? machine.Card.Envelope.Origin!;
        var here = new Point(home.X, home.Y);
        var left = Enumerable.Range(0, parts.Count).ToHashSet();
        var order = new List<int>();
        while (left.Count > 0)
        {
            var from = here;
            var free = left.Where(i => before[i] == 0).OrderBy(i => Math.Round(from.To(new Point(parts[i].X, parts[i].Y)), 6))
                .ThenBy(i => parts[i].Name, StringComparer.Ordinal).ThenBy(i => i).Take(1).ToArray();
            if (free.Length == 0) return null;
            left.Remove(free[0]);
            order.Add(free[0]);
            here = new Point(parts[free[0]].X, parts[free[0]].Y);
            foreach (var i in after[free[0]]) before[i]--;
        }
        return [.. order];
    }

    /// <summary>Places at which a part is in the way.</summary>
    private sealed class Blocked(Shape area)
    {
        private readonly Lazy<IndexedFacetDistance> _border = new(() => new IndexedFacetDistance(area.Boundary));

        public Shape Area => area;

        /// <summary>The smallest move from a place to the border.</summary>
        public Move? WayOut(double x, double y)
        {
            if (area.IsEmpty) return null;
            var nearest = _border.Value.NearestPoints(Plane.Factory.CreatePoint(new Coordinate(x, y)))[0];
            return new Move(nearest.X - x, nearest.Y - y);
        }
    }

    /// <summary>A part, or its copy, where it stands.</summary>
    private sealed record Stand(Profile Profile, Point At, bool Mirrored, IReadOnlyList<int> Nozzles);
}

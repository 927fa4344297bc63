using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using NetTopologySuite.Geometries;
using Box = NetTopologySuite.Geometries.Envelope;

namespace MillCard.Core.Clearance;

/// <summary>Where a part is to stand.</summary>
/// <param name="X">Middle of the turned part's bounding box, mm, bed frame.</param>
/// <param name="Y">Middle of the turned part's bounding box, mm, bed frame.</param>
/// <param name="Turn">Degrees, counter-clockwise.</param>
public sealed record Place(double X, double Y, double Turn);

/// <summary>Finds places for parts: on the bed, in reach, clear of keep-outs and of each other, and of the head where they are printed one
/// at a time.</summary>
/// <remarks>One part after the other goes to a corner of what the ones before leave free: of the places of its middle that fit, less what
/// each standing part blocks (its outline ⊕ the mirrored outline of the part). Several orders and corners are tried, and the one that lays
/// most of them and takes least room is kept, once the same verdict as everywhere has passed it.</remarks>
public sealed class Arrangement
{
    /// <summary>Least gap between parts that grow together, with what rounding may take of it, mm.</summary>
    private const double Gap = 2.002;

    /// <summary>Outlines are made plainer by this much, to the safe side, mm.</summary>
    private const double Plainer = 0.05;

    private readonly Machine _machine;
    private readonly ModeUse? _mode;
    private readonly Fit _fit;
    private readonly PrintOrder? _order;
    private readonly Blocks _blocks;
    private readonly CancellationToken _stop;

    private Arrangement(Machine machine, Recipe? recipe, Sequence sequence, ModeUse? mode, CancellationToken stop)
    {
        (_machine, _mode, _stop) = (machine, mode, stop);
        _fit = new Fit(machine, recipe);
        _order = sequence == Sequence.OneAtATime ? new PrintOrder(machine, recipe) : null;
        var apart = Gap + (recipe is null ? 0 : 2 * Fit.FootOf(recipe));
        _blocks = new Blocks(_fit, _fit.WidestPlan(mode), apart, Plainer, _order,
            Fit.ApronOf(recipe, machine.Card), stop);
    }

    /// <summary>Places for all parts that are not held; those of an assembly keep their place to each other.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="recipe">What is grown on the first layer; null for nothing.</param>
    /// <param name="parts">All of them; the places of those that are not held play no role.</param>
    /// <param name="held">Which keep their places.</param>
    /// <param name="mayTurn">Whether parts may be turned by a quarter.</param>
    /// <param name="sequence">Whether they grow together.</param>
    /// <param name="mode">The mode of two carriages; null on a machine with one.</param>
    /// <param name="stop">Ends the computation.</param>
    /// <returns>One a part; null where there is no room for it.</returns>
    public static IReadOnlyList<Place?> Of(Machine machine, Recipe? recipe, IReadOnlyList<StandingPart> parts, IReadOnlySet<int> held,
        bool mayTurn, Sequence sequence, ModeUse? mode, CancellationToken stop = default)
    {
        var together = new Together(parts, held, stop);
        return together.Each(new Arrangement(machine, recipe, sequence, mode, stop).Arranged(together.Parts, together.Held, mayTurn));
    }

    /// <summary>As many more of a part as find room beside those that lie there.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="recipe">What is grown on the first layer; null for nothing.</param>
    /// <param name="parts">All that lie there; they keep their places.</param>
    /// <param name="of">Index of the part.</param>
    /// <param name="most">No more than so many.</param>
    /// <param name="sequence">Whether they grow together.</param>
    /// <param name="mode">The mode of two carriages; null on a machine with one.</param>
    /// <param name="stop">Ends the computation.</param>
    public static IReadOnlyList<Place> More(Machine machine, Recipe? recipe, IReadOnlyList<StandingPart> parts, int of, int most,
        Sequence sequence, ModeUse? mode, CancellationToken stop = default) =>
        new Arrangement(machine, recipe, sequence, mode, stop).Filled(parts, parts[of] with { Assembly = null }, most);

    private IReadOnlyList<Place?> Arranged(IReadOnlyList<StandingPart> parts, IReadOnlySet<int> held, bool mayTurn)
    {
        int[] free = [.. Enumerable.Range(0, parts.Count).Where(i => !held.Contains(i))];
        var tries = Tried(Usual, parts, held, free, mayTurn);
        if (tries.Max(t => t.Laid) < parts.Count) tries = [.. tries, .. Tried(Further, parts, held, free, mayTurn)];
        return tries.OrderByDescending(t => t.Laid).ThenBy(t => t.Room).FirstOrDefault(t => Passes(parts, t.Places, free))?.Places
            ?? [.. parts.Select((p, i) => held.Contains(i) ? new Place(p.X, p.Y, p.Turn) : null)];
    }

    private Attempt[] Tried(Way[] ways, IReadOnlyList<StandingPart> parts, IReadOnlySet<int> held, int[] free, bool mayTurn)
    {
        var tries = new Attempt[ways.Length];
        var options = new ParallelOptions { CancellationToken = _stop, TaskScheduler = TaskScheduler.Current };
        Parallel.For(0, tries.Length, options, k =>
        {
            int[] order = [.. free.OrderByDescending(i => ways[k].Largest ? _blocks.HullOf(parts[i]).Area : -parts[i].Footprints.Height)
                .ThenBy(i => i)];
            tries[k] = Try(parts, held, order, ways[k].Corner, mayTurn);
        });
        return tries;
    }

    /// <summary>What one try comes to.</summary>
    /// <param name="Places">One a part.</param>
    /// <param name="Laid">How many found room.</param>
    /// <param name="Room">Area of the box round all, mm².</param>
    private sealed record Attempt(Place?[] Places, int Laid, double Room);

    /// <summary>A way to try: which part goes first, and into which corner.</summary>
    /// <param name="Largest">Whether the largest goes first; else the lowest.</param>
    /// <param name="Corner">How little a place of a middle counts, by that of the bed.</param>
    private sealed record Way(bool Largest, Func<Point, Point, double> Corner);

    private static double Towards(Point at, int x, int y, bool rows) => rows ? y * at.Y + 1e-3 * x * at.X : x * at.X + 1e-3 * y * at.Y;

    private static readonly int[] Senses = [1, -1];

    /// <summary>Those that most find room in: round the middle, in rows from the front, in columns from the left.</summary>
    private static readonly Way[] Usual = [.. Both((at, middle) => at.To(middle)), .. Both((at, _) => Towards(at, 1, 1, rows: true)),
        .. Both((at, _) => Towards(at, 1, 1, rows: false))];

    /// <summary>The other corners: a head that reaches out to one side leaves room from one of them alone.</summary>
    private static readonly Way[] Further = [.. from x in Senses
                                                from y in Senses
                                                where x < 0 || y < 0
                                                from rows in new[] { true, false }
                                                from way in Both((at, _) => Towards(at, x, y, rows))
                                                select way];

    private static Way[] Both(Func<Point, Point, double> corner) => [new(Largest: true, corner), new(Largest: false, corner)];

    private Attempt Try(IReadOnlyList<StandingPart> parts, IReadOnlySet<int> held, int[] order, Func<Point, Point, double> corner,
        bool mayTurn)
    {
        var (places, standing) = (new Place?[parts.Count], new List<StandingPart>());
        foreach (var i in held)
        {
            places[i] = new Place(parts[i].X, parts[i].Y, parts[i].Turn);
            standing.Add(parts[i]);
        }
        foreach (var i in order)
        {
            _stop.ThrowIfCancellationRequested();
            var turns = mayTurn ? [parts[i].Turn, parts[i].Turn + 90] : new[] { parts[i].Turn };
            var best = turns.Select(turn => parts[i] with { Turn = turn % 360 })
                .Select(part => (Part: part, At: Best(part, standing, corner)))
                .Where(found => found.At is not null).OrderBy(found => Score(found.Part, found.At!.Value, corner)).FirstOrDefault();
            if (best.At is not { } at) continue;
            places[i] = new Place(at.X, at.Y, best.Part.Turn);
            standing.Add(best.Part with { X = at.X, Y = at.Y });
        }
        return new(Centred(parts, held, places), places.Count(p => p is not null), BoxOf(standing).Area);
    }

    private Point Middle => _machine.Usable.EnvelopeInternal.Centre is var middle ? new Point(middle.X, middle.Y) : default;

    /// <summary>How little a part that stands there counts: how far it reaches away from the corner.</summary>
    private double Score(StandingPart part, Point at, Func<Point, Point, double> corner)
    {
        var box = _blocks.HullOf(part).EnvelopeInternal;
        return corner(new Point(at.X + box.MaxX, at.Y + box.MaxY), Middle) + corner(new Point(at.X + box.MinX, at.Y + box.MinY), Middle);
    }

    private Point? Best(StandingPart part, IReadOnlyList<StandingPart> standing, Func<Point, Point, double> corner)
    {
        var free = _blocks.FreeOf(part);
        if (free.IsEmpty) return null;
        if (standing.Count > 0)
            free = Plane.Difference(free,
                Plane.Union([.. standing.Select(other => Plane.Moved(_blocks.Of(other, part), other.X, other.Y))]));
        return Nearest(free, corner);
    }

    /// <summary>The corner of an area that counts least; the middle of the bed where the area holds it and that is what counts.</summary>
    private Point? Nearest(Shape free, Func<Point, Point, double> corner)
    {
        if (free.IsEmpty) return null;
        var middle = Middle;
        var best = free.Coordinates.Select(c => new Point(c.X, c.Y)).MinBy(at => corner(at, middle));
        var held = Plane.Factory.CreatePoint(new Coordinate(middle.X, middle.Y));
        var nearest = corner(middle, middle) < corner(best, middle) && free.Covers(held) ? middle : best;
        return new Point(Rounded(nearest.X), Rounded(nearest.Y));
    }

    /// <summary>As places are written in a trial: off by less than counts as touching.</summary>
    private static double Rounded(double value) => Math.Round(value, 3);

    private Box BoxOf(IEnumerable<StandingPart> standing)
    {
        var box = new Box();
        foreach (var part in standing)
        {
            var own = _blocks.HullOf(part).EnvelopeInternal;
            box.ExpandToInclude(new Box(own.MinX + part.X, own.MaxX + part.X, own.MinY + part.Y, own.MaxY + part.Y));
        }
        return box;
    }

    /// <summary>The parts that found room, where they did.</summary>
    private static StandingPart[] Laid(IReadOnlyList<StandingPart> parts, IReadOnlyList<Place?> places) =>
        [.. places.Index().Where(p => p.Item is not null)
            .Select(p => parts[p.Index] with { X = p.Item!.X, Y = p.Item.Y, Turn = p.Item.Turn })];

    /// <summary>The same places moved together to the middle of the bed, as far as all stay free; as they are where parts are
    /// held.</summary>
    private Place?[] Centred(IReadOnlyList<StandingPart> parts, IReadOnlySet<int> held, Place?[] places)
    {
        var laid = Laid(parts, places);
        if (held.Count > 0 || laid.Length == 0) return places;
        var box = BoxOf(laid);
        var (dx, dy) = (Middle.X - box.Centre.X, Middle.Y - box.Centre.Y);
        foreach (var (x, y) in new[] { (dx, dy), (dx, 0), (0, dy), (dx / 2, dy / 2) })
            if (laid.All(part => _blocks.FreeOf(part).Covers(Plane.Factory.CreatePoint(new Coordinate(part.X + x, part.Y + y)))))
                return [.. places.Select(p => p is null ? null : p with { X = Rounded(p.X + x), Y = Rounded(p.Y + y) })];
        return places;
    }

    private List<Place> Filled(IReadOnlyList<StandingPart> parts, StandingPart part, int most)
    {
        var (free, found) = (_blocks.FreeOf(part), new List<Place>());
        foreach (var other in parts) free = Plane.Difference(free, Plane.Moved(_blocks.Of(other, part), other.X, other.Y));
        var own = _blocks.Of(part, part);
        static double Rows(Point at, Point middle) => Towards(at, 1, 1, rows: true);
        while (found.Count < most && Nearest(free, Rows) is { } at)
        {
            _stop.ThrowIfCancellationRequested();
            found.Add(new Place(at.X, at.Y, part.Turn));
            free = Plane.Difference(free, Plane.Moved(own, at.X, at.Y));
        }
        var all = parts.Concat(found.Select(_ => part)).ToArray();
        Place[] places = [.. parts.Select(p => new Place(p.X, p.Y, p.Turn)), .. found];
        return Passes(all, places, Enumerable.Range(parts.Count, found.Count)) ? found : [];
    }

    /// <summary>Whether those that were laid fit beside all others, and all can be printed one at a time where that is asked for.</summary>
    private bool Passes(IReadOnlyList<StandingPart> parts, IReadOnlyList<Place?> places, IEnumerable<int> laid)
    {
        int[] there = [.. Enumerable.Range(0, parts.Count).Where(i => places[i] is not null)];
        var judged = laid.ToHashSet();
        var standing = Laid(parts, places);
        return _fit.Of(standing, _mode, Cures.LeftOut, _stop).Zip(there).All(fit => fit.First.Fits || !judged.Contains(fit.Second))
            && (_order is null || _order.Of(standing, _mode, Cures.LeftOut, _stop).Order is not null);
    }
}

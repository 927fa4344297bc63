using System.Collections.Concurrent;
using System.Text.Json.Serialization;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Reach;

/// <summary>Why a part does not fit.</summary>
public enum ViolationKind
{
    /// <summary>Over the edge of the usable bed.</summary>
    Bed,
    /// <summary>Beyond where the nozzle can go.</summary>
    Reach,
    /// <summary>Higher than the usable height.</summary>
    Height,
    /// <summary>In a keep-out, or in the border that the head adds round it.</summary>
    KeepOut,
    /// <summary>In another part.</summary>
    Part,
    /// <summary>Too wide for the distance of its copy, or the carriages come no nearer.</summary>
    Copy,
    /// <summary>Lower than half a first layer: nothing of it would be printed.</summary>
    Size,
}

/// <summary>A displacement on the bed, mm.</summary>
public sealed record Move(double X, double Y)
{
    /// <summary>Its length, mm.</summary>
    public double Length => Math.Sqrt(X * X + Y * Y);
}

/// <summary>One way in which a part does not fit.</summary>
/// <param name="Kind">What is violated.</param>
/// <param name="With">Name of the keep-out or the other part; null for bed, reach and height.</param>
/// <param name="By">The body of the head that is in the way, where it is not the nozzle itself.</param>
/// <param name="Distance">The least distance by which it would have to be further away to end this violation alone, mm; for the height,
/// what is too much.</param>
/// <param name="Move">The smallest move of the part that cures all its violations; null where no move does.</param>
/// <param name="Message">All of it in a sentence.</param>
public sealed record Violation(
    ViolationKind Kind, [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] string? With, string? By, double Distance,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] Move? Move, string Message)
{
    /// <summary>What of the recipe would mend it, where it is the skirt alone that does not fit; null otherwise.</summary>
    public Remedy? Remedy { get; init; }
}

/// <summary>Whether one part fits.</summary>
/// <param name="Name">The part's.</param>
/// <param name="Fits">Whether nothing is violated.</param>
/// <param name="Violations">What is.</param>
/// <param name="Searched">Whether a curing move was looked for; where it was and there is none, no move cures it.</param>
public sealed record PartFit(string Name, bool Fits, IReadOnlyList<Violation> Violations, bool Searched);

/// <summary>A part to be fitted.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Footprints">Its projections.</param>
/// <param name="X">Middle of the turned part's bounding box, mm, bed frame.</param>
/// <param name="Y">Middle of the turned part's bounding box, mm, bed frame.</param>
/// <param name="Turn">Degrees, counter-clockwise.</param>
/// <param name="Nozzles">Ids of the nozzles that print it; the first where it is empty or null.</param>
public sealed record StandingPart(string Name, Footprints Footprints, double X, double Y, double Turn,
    IReadOnlyList<string>? Nozzles = null)
{
    /// <summary>A part of a trial with its footprints.</summary>
    public static StandingPart Of(TrialPart part, Footprints footprints) =>
        new(part.Name, footprints, part.X, part.Y, part.Turn, part.Nozzles);
}

/// <summary>Whether parts fit a machine, by how much they do not, and which move cures it.</summary>
public sealed class Fit
{
    private const double DefaultFirstLayer = 0.2;
    private const int MostSpaces = 400;
    private readonly Machine _machine;
    private readonly Apron _apron;
    private readonly Recipe? _recipe;
    private Fit? _bare;
    private readonly ConcurrentDictionary<int, IReadOnlyList<Forbidden>> _forbidden = new();
    private readonly ConcurrentDictionary<(Footprints, double Turn, bool Mirrored, Forbidden), ForbiddenPlaces> _spaces = new();
    private readonly ConcurrentDictionary<(Footprints, double Turn, bool Mirrored, Footprints Other, double OtherTurn, bool OtherMirrored),
        Shape> _overlaps = new();

    /// <summary>Prepares what does not depend on the parts.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="recipe">What is grown on the first layer; null for nothing.</param>
    public Fit(Machine machine, Recipe? recipe = null) : this(machine, recipe, ApronOf(recipe, machine.Card))
    {
    }

    private Fit(Machine machine, Recipe? recipe, Apron apron) => (_machine, _recipe, _apron) = (machine, recipe, apron);

    /// <summary>The regions a part of the first nozzle must stay out of, as drawn on the plan.</summary>
    public IReadOnlyList<Forbidden> Regions => ForbiddenTo(0);

    /// <summary>What a recipe grows round a part's first layer: skirt with its gap. Brim and raft end where the bed does; the skirt goes
    /// round them.</summary>
    /// <param name="recipe">Any recipe; null for nothing.</param>
    /// <param name="card">The machine, which decides what rungs and shares of its nozzle come to.</param>
    public static Apron ApronOf(Recipe? recipe, Card card)
    {
        if (recipe is null) return new Apron(DefaultFirstLayer, 0);
        recipe = Motion.Ladder.Resolved(recipe, card);
        return new Apron(recipe.Layers.First ?? recipe.Layers.Others ?? DefaultFirstLayer,
            recipe.Skirt.Rounds == 0 ? 0
                : FootOf(recipe) + recipe.Skirt.Gap + recipe.Skirt.Rounds * (recipe.LineWidth ?? 0) * (recipe.Widths.First ?? 1));
    }

    private static double FootOf(Recipe recipe) =>
        recipe.Raft.Layers > 0 ? recipe.Raft.Margin : recipe.Brim.Place is BrimPlace.None or BrimPlace.Inner ? 0
            : recipe.Brim.Gap + recipe.Brim.Width;

    /// <summary>The verdict on every part.</summary>
    /// <param name="parts">All that lie on the bed.</param>
    /// <param name="mode">The mode of two carriages; null on a machine with one.</param>
    /// <param name="cure">Whether curing moves are computed too; a verdict under a moving pointer goes without.</param>
    /// <param name="stop">Ends the computation.</param>
    public IReadOnlyList<PartFit> Of(IReadOnlyList<StandingPart> parts, ModeUse? mode = null, bool cure = true,
        CancellationToken stop = default)
    {
        var plan = PlanOf(parts, mode);
        var placed = parts.Select(p => new Placed(p, this, plan, null)).ToArray();
        return [.. placed.Select(p => Look(p, placed, plan, cure, stop))];
    }

    /// <summary>The plan of a mode for what lies on the bed; null where there is none.</summary>
    public ModePlan? PlanOf(IReadOnlyList<StandingPart> parts, ModeUse? mode)
    {
        if (ModePlan.InUse(_machine, mode) is not { } use || !_machine.HasTwoCarriages) return null;
        var box = new NetTopologySuite.Geometries.Envelope();
        foreach (var part in parts) box.ExpandToInclude(
            part.Footprints.Below(double.PositiveInfinity, part.X, part.Y, part.Turn, _apron).EnvelopeInternal);
        return ModePlan.Of(_machine, use, box.Width);
    }

    /// <summary>Where the middle of a part may be so that it fits, other parts left out.</summary>
    /// <param name="part">The part; its own place plays no role.</param>
    /// <param name="stop">Ends the computation.</param>
    public Shape FreePlaces(StandingPart part, CancellationToken stop = default) =>
        part.Footprints.Height > _machine.Height + Plane.Touch ? Plane.Empty
            : FreeMoves(new Placed(part with { X = 0, Y = 0 }, this, null, null), stop);

    private IReadOnlyList<Forbidden> ForbiddenTo(int nozzle) =>
        _forbidden.GetOrAdd(nozzle, n => Forbidden.All(_machine, _apron.FirstLayer, n));

    private PartFit Look(Placed part, Placed[] all, ModePlan? plan, bool cure, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        var found = Violations(part, all, plan);
        if (found.Count == 0) return new PartFit(part.Part.Name, true, [], true);
        if (_apron.Width > 0) found = new SkirtAlone(this, part.Part, all, plan, cure, stop).Told(found);
        if (found.Any(v => v.Kind is ViolationKind.Height or ViolationKind.Copy or ViolationKind.Size))
            return new PartFit(part.Part.Name, false, found, true);
        if (!cure) return new PartFit(part.Part.Name, false, found, false);
        var move = Cure(part, all, stop);
        return new PartFit(part.Part.Name, false, [.. found.Select(v => v with { Move = move })], true);
    }

    private List<Violation> Violations(Placed part, Placed[] all, ModePlan? plan, bool skirt = false)
    {
        var found = new List<Violation>();
        TooHighOrLow(part, found);
        Alone(part, found, skirt);
        foreach (var other in all)
        {
            if (other != part) Into(part, other, found);
            if (other != part && other.Second is { } theirs) Into(part, theirs, found);
        }
        if (part.Second is { } second)
        {
            Alone(second, found, skirt);
            foreach (var other in all) if (other != part) Into(second, other, found);
        }
        TooWide(part, plan, found);
        return found;
    }

    private void TooHighOrLow(Placed part, List<Violation> found)
    {
        var high = part.Part.Footprints.Height;
        if (high - _machine.Height is var over && over > Plane.Touch)
        {
            var takes = _machine.HeightIsTrials ? "this trial" : "this machine";
            found.Add(new(ViolationKind.Height, null, null, over, null,
                $"{part.Label} is {high:0.00} mm high; {takes} takes {_machine.Height:0.00}. It is {over:0.00} mm too high."));
        }
        if (high >= _apron.FirstLayer / 2) return;
        var box = part.Part.Footprints.Box;
        found.Add(new(ViolationKind.Size, null, null, _apron.FirstLayer / 2 - high, null, Invariant(
            $"{part.Label} is {box.MaxX - box.MinX:0.###} × {box.MaxY - box.MinY:0.###} × {high:0.###} mm, lower than half the "
                + $"first layer of {_apron.FirstLayer:0.##}: nothing of it would be printed.")));
    }

    /// <summary>What a part violates with its skirt, and would not without: told of the skirt, with the gap that fits.</summary>
    private sealed class SkirtAlone(Fit fit, StandingPart part, Placed[] all, ModePlan? plan, bool cure, CancellationToken stop)
    {
        private const double Step = 0.05;

        public List<Violation> Told(List<Violation> found)
        {
            var bare = In(fit._bare ??= new Fit(fit._machine, fit._recipe, fit._apron with { Width = 0 }));
            List<Violation> both = [.. found.Where(v => bare.Any(b => Same(b, v))).Select(v => Both(v, bare.First(b => Same(b, v))))];
            if (both.Count == found.Count) return both;
            var skirts = In(fit, skirt: true).Where(v => !bare.Any(b => Same(b, v))).ToArray();
            var remedy = cure ? Remedy(skirts.Max(v => v.Distance), bare.Count) : null;
            return [.. both, .. skirts.Select(v => remedy is null ? v
                : v with { Message = $"{v.Message} {Sentence(remedy)}", Remedy = remedy })];
        }

        /// <summary>The part itself and, further, its skirt.</summary>
        private static Violation Both(Violation whole, Violation bare) => whole.Distance - bare.Distance < 0.005 ? whole
            : whole with { Message = $"{bare.Message[..^1]}; its skirt {whole.Distance:0.00} mm." };

        private static bool Same(Violation a, Violation b) => (a.Kind, a.With, a.By) == (b.Kind, b.With, b.By);

        private List<Violation> In(Fit other, bool skirt = false)
        {
            var placed = all.Select(p => new Placed(p.Part, other, plan, null)).ToArray();
            return other.Violations(placed[Array.FindIndex(all, p => ReferenceEquals(p.Part, part))], placed, plan, skirt);
        }

        /// <summary>A smaller gap, tried out; or no skirt where none is small enough.</summary>
        private Remedy? Remedy(double over, int without)
        {
            stop.ThrowIfCancellationRequested();
            var skirt = fit._recipe!.Skirt;
            for (var gap = Math.Floor((skirt.Gap - over) / Step) * Step; gap >= 0; gap = Math.Floor(gap / 2 / Step) * Step)
            {
                gap = Math.Round(gap, 2);
                if (In(new Fit(fit._machine, fit._recipe with { Skirt = skirt with { Gap = gap } })).Count == without)
                    return new(Invariant($"a gap of {gap:0.##} mm"), [Edit.Fact("/skirt/gap", gap)]);
                if (gap == 0) break;
            }
            return new("no skirt", [Edit.Fact("/skirt/rounds", 0)]);
        }

        private static string Sentence(Remedy remedy) => remedy.Edits[0].Pointer == "/skirt/rounds"
            ? "No gap is small enough; without a skirt it fits." : $"{char.ToUpperInvariant(remedy.Label[0])}{remedy.Label[1..]} fits.";
    }

    private void Alone(Placed part, List<Violation> found, bool skirt)
    {
        var bed = _machine.TrialsMargin is { } margin
            ? Invariant($"the bed within this trial's margin of {margin:0.##} mm") : "the usable bed";
        Outside(part, _machine.Usable, ViolationKind.Bed, bed, found, skirt);
        Outside(part, part.Reach, ViolationKind.Reach, part.NozzleNames(_machine), found, skirt);
        foreach (var group in part.Forbidden.GroupBy(f => f.KeepOut)) Inside(part, group, found, skirt);
    }

    /// <summary>No move cures a copy that lies too near: its distance is the same everywhere.</summary>
    private static void TooWide(Placed part, ModePlan? plan, List<Violation> found)
    {
        if (plan?.Second is not { Mirrored: false }) return;
        if (plan.Distance < plan.LeastDistance - Plane.Touch)
            found.Add(new(ViolationKind.Copy, null, null, plan.LeastDistance - plan.Distance, null,
                $"The copies lie {plan.Distance:0.##} mm apart; the two nozzles come no nearer than {plan.LeastDistance:0.##}."));
        else if (part.Widest.EnvelopeInternal.Width + plan.Gap - plan.Distance is var over && over > Plane.Touch)
            found.Add(new(ViolationKind.Copy, null, null, over, null,
                $"{part.Label} is {part.Widest.EnvelopeInternal.Width:0.##} mm wide; copies {plan.Distance:0.##} mm apart leave "
                    + $"{plan.Distance - plan.Gap:0.##}. The distance is {over:0.##} mm too short."));
    }

    private static void Outside(Placed part, Shape region, ViolationKind kind, string name, List<Violation> found, bool skirt)
    {
        if (region.IsEmpty)
        {
            found.Add(new(kind, null, null, Math.Max(part.Widest.EnvelopeInternal.Width, part.Widest.EnvelopeInternal.Height), null,
                $"{part.Label} stands nowhere right: nothing is {name}."));
            return;
        }
        var distance = Protrusion(part.Widest, region);
        if (distance > Plane.Touch)
            found.Add(new(kind, null, null, distance, null,
                $"{(skirt ? $"The skirt of {part.Label} lies" : $"{part.Label} stands")} {distance:0.00} mm beyond {name}."));
    }

    private void Inside(Placed part, IGrouping<KeepOut, Forbidden> group, List<Violation> found, bool skirt)
    {
        Violation? worst = null;
        foreach (var forbidden in group)
        {
            var depth = Depth(part, forbidden);
            if (depth <= Plane.Touch || depth <= worst?.Distance) continue;
            var by = forbidden.With is null ? "" : $" for the {forbidden.With}";
            var trials = _machine.IsTrials(group.Key) ? ", which this trial keeps out of" : "";
            worst = new(ViolationKind.KeepOut, group.Key.Name, forbidden.With, depth, null,
                $"{(skirt ? "The skirt of " : "")}{part.Label} is {depth:0.00} mm too near {group.Key.Name}{by}{trials}.");
        }
        if (worst is not null) found.Add(worst);
    }

    private void Into(Placed part, Placed other, List<Violation> found)
    {
        if (!part.Whole.EnvelopeInternal.Intersects(other.Whole.EnvelopeInternal)) return;
        var overlap = Plane.Intersection(part.Whole, other.Whole);
        if (overlap.IsEmpty || Plane.Offset(overlap, -Plane.Touch / 2).IsEmpty) return;
        var depth = DepthIn(OverlapsOf(part, other));
        if (depth > Plane.Touch)
            found.Add(new(ViolationKind.Part, other.Label, null, depth, null, $"{part.Label} overlaps {other.Label} by {depth:0.00} mm."));
    }

    /// <summary>How far the farthest point of a shape lies outside a region, mm.</summary>
    private static double Protrusion(Shape shape, Shape region)
    {
        if (shape.IsEmpty) return 0;
        var convex = region is Polygon polygon && MinkowskiSum.IsConvex(polygon);
        var part = convex ? Shapes.Hull(shape) : shape;
        if (PreparedGeometryFactory.Prepare(region).Covers(part)) return 0;
        var outside = convex ? part : Plane.Difference(part, region);
        var farthest = 0.0;
        var distance = new IndexedFacetDistance(region);
        foreach (var corner in outside.Coordinates)
        {
            var point = Plane.Factory.CreatePoint(corner);
            if (convex && region.Covers(point)) continue;
            farthest = Math.Max(farthest, distance.Distance(point));
        }
        return farthest;
    }

    /// <summary>How far a part is within a region that it must stay out of, margin grown on, mm; 0 where it is clear.</summary>
    private double Depth(Placed part, Forbidden forbidden)
    {
        var shape = part.Below(forbidden.Below);
        if (shape.IsEmpty || shape.EnvelopeInternal.Distance(forbidden.Core.EnvelopeInternal) >= Math.Max(forbidden.Margin, Plane.Touch))
            return 0;
        if (!IsKnown(part, forbidden) && DistanceOp.Distance(shape, forbidden.Core) is var gap and > 0)
            return Math.Max(0, forbidden.Margin - gap);
        return Math.Max(0, forbidden.Margin + SpaceOf(part, forbidden).DepthAt(part.At.X, part.At.Y));
    }

    private bool IsKnown(Placed part, Forbidden forbidden) =>
        _spaces.ContainsKey((part.Part.Footprints, part.Part.Turn, part.Mirrored, forbidden));

    /// <summary>Where the part's place is such that it overlaps a region. It depends on the turn alone, so it is kept while the part is
    /// dragged.</summary>
    private ForbiddenPlaces SpaceOf(Placed part, Forbidden forbidden)
    {
        if (_spaces.Count > MostSpaces) _spaces.Clear();
        return _spaces.GetOrAdd((part.Part.Footprints, part.Part.Turn, part.Mirrored, forbidden), _ =>
            new ForbiddenPlaces(ConfigurationSpace(Plane.Moved(part.Below(forbidden.Below), -part.At.X, -part.At.Y), forbidden.Core),
                forbidden.Margin));
    }

    /// <summary>Displacements of the part at which it overlaps a region: region ⊕ (−part).</summary>
    private static Shape ConfigurationSpace(Shape part, Shape region) => MinkowskiSum.Of(MinkowskiSum.Negated(part), region);

    private static double DepthIn(Shape space)
    {
        var here = Plane.Factory.CreatePoint(new Coordinate(0, 0));
        return space.Covers(here) ? DistanceOp.Distance(space.Boundary, here) : 0;
    }

    /// <summary>The smallest displacement to where the part violates nothing at all.</summary>
    private Move? Cure(Placed part, Placed[] all, CancellationToken stop)
    {
        var free = FreeMoves(part, stop);
        free = FreeOfOthers(free, part, all, stop);
        if (part.Second is { } second && !free.IsEmpty)
        {
            var theirs = FreeOfOthers(FreeMoves(second, stop), second, all, stop);
            free = Plane.Intersection(free, second.Mirrored ? MirroredMoves(theirs) : theirs);
        }
        if (free.IsEmpty) return null;
        var nearest = DistanceOp.NearestPoints(free, Plane.Factory.CreatePoint(new Coordinate(0, 0)))[0];
        return new Move(nearest.X, nearest.Y);
    }

    /// <summary>Displacements at which a part is on the bed, in reach and clear of every keep-out.</summary>
    private Shape FreeMoves(Placed part, CancellationToken stop)
    {
        var free = Plane.Intersection(FreeIn(part.Widest, _machine.Usable), FreeIn(part.Widest, part.Reach));
        foreach (var forbidden in part.Forbidden)
        {
            stop.ThrowIfCancellationRequested();
            if (free.IsEmpty) break;
            if (part.Below(forbidden.Below).IsEmpty) continue;
            free = Plane.Difference(free, Plane.Moved(SpaceOf(part, forbidden).Grown, -part.At.X, -part.At.Y));
        }
        return free;
    }

    /// <summary>Displacements at which a part overlaps another one. They depend on the turns alone, so they are kept while parts are
    /// dragged.</summary>
    private Shape OverlapsOf(Placed part, Placed other)
    {
        if (_overlaps.Count > MostSpaces) _overlaps.Clear();
        var (a, b) = (part.Part, other.Part);
        var space = _overlaps.GetOrAdd((a.Footprints, a.Turn, part.Mirrored, b.Footprints, b.Turn, other.Mirrored),
            _ => ConfigurationSpace(part.Plain, other.Plain));
        return Plane.Moved(space, other.At.X - part.At.X, other.At.Y - part.At.Y);
    }

    private Shape FreeOfOthers(Shape free, Placed part, Placed[] all, CancellationToken stop)
    {
        foreach (var other in all)
        {
            stop.ThrowIfCancellationRequested();
            if (ReferenceEquals(other.Part, part.Part) || free.IsEmpty) continue;
            free = Plane.Difference(free, OverlapsOf(part, other));
            if (other.Second is { } second && !part.IsSecond) free = Plane.Difference(free, OverlapsOf(part, second));
        }
        return free;
    }

    private static Shape MirroredMoves(Shape moves) => NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(-1, 1)
        .Transform(moves);

    /// <summary>Displacements at which a shape lies within a region: the region's erosion by the shape.</summary>
    private static Shape FreeIn(Shape shape, Shape region)
    {
        if (region.IsEmpty) return Plane.Empty;
        if (region is Polygon polygon && MinkowskiSum.IsConvex(polygon)) return ErodeConvex(polygon, Shapes.Hull(shape).Coordinates);
        var box = shape.EnvelopeInternal;
        var frame = region.EnvelopeInternal;
        var around = Shapes.Rectangle(frame.MinX - 2 * box.Width - 1, frame.MinY - 2 * box.Height - 1, frame.Width + 4 * box.Width + 2,
            frame.Height + 4 * box.Height + 2);
        var blocked = MinkowskiSum.Of(MinkowskiSum.Negated(shape), Plane.Difference(around, region));
        var centres = Shapes.Rectangle(frame.MinX - box.MinX, frame.MinY - box.MinY, Math.Max(0, frame.Width - box.Width),
            Math.Max(0, frame.Height - box.Height));
        return Plane.Difference(centres, blocked);
    }

    private static Shape ErodeConvex(Polygon region, Coordinate[] hull)
    {
        var ring = region.ExteriorRing.Coordinates;
        if (NetTopologySuite.Algorithm.Orientation.IsCCW(ring)) ring = [.. ring.Reverse()];
        var box = region.EnvelopeInternal;
        List<Coordinate> free = [new(box.MinX - 9999, box.MinY - 9999), new(box.MaxX + 9999, box.MinY - 9999),
            new(box.MaxX + 9999, box.MaxY + 9999), new(box.MinX - 9999, box.MaxY + 9999)];
        for (var i = 0; i + 1 < ring.Length && free.Count > 0; i++)
        {
            // clockwise ring: the outward normal of an edge (dx, dy) is (−dy, dx)
            var (nx, ny) = (-(ring[i + 1].Y - ring[i].Y), ring[i + 1].X - ring[i].X);
            var reach = hull.Max(p => nx * p.X + ny * p.Y);
            var most = nx * ring[i].X + ny * ring[i].Y - reach;
            free = CutOff(free, nx, ny, most);
        }
        if (free.Count < 3) return Plane.Empty;
        free.Add(free[0]);
        return Plane.Factory.CreatePolygon([.. free]);
    }

    private static List<Coordinate> CutOff(List<Coordinate> polygon, double nx, double ny, double most)
    {
        var kept = new List<Coordinate>(polygon.Count + 1);
        for (var i = 0; i < polygon.Count; i++)
        {
            var (a, b) = (polygon[i], polygon[(i + 1) % polygon.Count]);
            var (da, db) = (nx * a.X + ny * a.Y - most, nx * b.X + ny * b.Y - most);
            if (da <= 0) kept.Add(a);
            if (da < 0 && db > 0 || da > 0 && db < 0)
                kept.Add(new Coordinate(a.X + da / (da - db) * (b.X - a.X), a.Y + da / (da - db) * (b.Y - a.Y)));
        }
        return kept;
    }

    /// <summary>A part's projections in the bed frame, each made when first asked for; or those of its copy.</summary>
    private sealed class Placed
    {
        private readonly Dictionary<double, Shape> _below = [];
        private readonly Fit _fit;
        private readonly SecondPart? _as;
        private readonly IReadOnlyList<int> _nozzles;
        private readonly ModePlan? _plan;
        private Shape? _whole, _plain, _reach;
        private IReadOnlyList<Forbidden>? _forbidden;

        public Placed(StandingPart part, Fit fit, ModePlan? plan, SecondPart? second)
        {
            (Part, _fit, _plan, _as) = (part, fit, plan, second);
            _nozzles = second is null ? fit._machine.NozzlesOf(part.Nozzles ?? []) : [second.Nozzle];
            At = second?.Of(new Point(part.X, part.Y)) ?? new Point(part.X, part.Y);
            Label = second is null ? part.Name : $"the copy of {part.Name}";
            if (second is null && plan?.Second is { } other) Second = new Placed(part, fit, plan, other);
        }

        public StandingPart Part { get; }
        /// <summary>The copy; null where there is none.</summary>
        public Placed? Second { get; }
        public string Label { get; }
        public Point At { get; }
        public bool IsSecond => _as is not null;
        public bool Mirrored => _as is { Mirrored: true };

        /// <summary>Where all its nozzles can print.</summary>
        public Shape Reach => _reach ??= _nozzles.Select(i => IsSecond || _plan is null ? _fit._machine.Travel(i) : _plan.RegionOf(i))
            .Aggregate(Plane.Intersection);

        /// <summary>What it must stay out of.</summary>
        public IReadOnlyList<Forbidden> Forbidden => _forbidden ??= [.. _nozzles.SelectMany(_fit.ForbiddenTo)];

        /// <summary>The part itself, seen from above.</summary>
        public Shape Whole => _whole ??= Seen(Part.Footprints.Below(double.PositiveInfinity, Part.X, Part.Y, Part.Turn));

        /// <summary>The part itself with its own place at (0, 0), outlines of very many corners made plain to the safe side.</summary>
        public Shape Plain => _plain ??= Plane.PlainOutside(Plane.Moved(Whole, -At.X, -At.Y));

        /// <summary>All that is printed of it, seen from above: the part and what is grown on its first layer.</summary>
        public Shape Widest => Below(double.PositiveInfinity);

        /// <summary>What is printed of it below a height.</summary>
        public Shape Below(double height)
        {
            if (!_below.TryGetValue(height, out var shape))
                _below[height] = shape = Seen(Part.Footprints.Below(height, Part.X, Part.Y, Part.Turn, _fit._apron));
            return shape;
        }

        public string NozzleNames(Machine machine)
        {
            var names = machine.Nozzles.Count < 2 ? "the nozzle reaches" : _nozzles.Count == 1
                ? $"nozzle {machine.Nozzles[_nozzles[0]].Id} reaches"
                : $"nozzles {string.Join(" and ", _nozzles.Select(i => machine.Nozzles[i].Id))} all reach";
            return _plan is null || IsSecond ? $"what {names}" : $"what {names} in this mode";
        }

        private Shape Seen(Shape shape) => _as is null ? shape : _as.Of(shape);
    }
}

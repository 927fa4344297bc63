using CsCheck;
using MillCard.Core.Clearance;
using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;
using Xunit;

namespace MillCard.Core.Tests;

public class ClearanceTests
{
    private const double FirstLayer = 0.2;
    private static readonly Footprints Cube = new(Solids.Box(20, 20, 20));

    private static Card With(Outline outline, double underside, double clearance = 0, params Beam[] beams)
    {
        var card = Cards.Bare(600, 600);
        return card with
        {
            Head = card.Head with
            {
                Bodies = [new() { Name = "body", Outline = outline, Underside = underside }],
                Beams = beams,
                Clearance = clearance
            }
        };
    }

    private static RectangleOutline Box(double x, double y, double w, double d) => new() { X = x, Y = y, Width = w, Depth = d };

    private static StandingPart At(string name, double x, double y, Footprints? footprints = null) =>
        new(name, footprints ?? Cube, x, y, 0);

    private static OrderResult Order(Card card, params StandingPart[] parts) => new PrintOrder(card.Machine()).Of(parts);

    // Two 20 mm cubes, a 40 × 40 head about the nozzle, underside 5, c = 0: free from a gap of 20 on; worked by hand.
    [Theory, InlineData(19.99, 0, 2), InlineData(20, 0, 0), InlineData(0, 19.99, 2), InlineData(0, 20, 0)]
    public void Two_cubes_are_free_when_half_the_head_fits_between(double gapX, double gapY, int conflicts)
    {
        var second = At("b", 100 + (gapX > 0 ? 20 + gapX : 0), 100 + (gapY > 0 ? 20 + gapY : 0));
        Assert.Equal(conflicts, Order(With(Box(-20, -20, 40, 40), 5), At("a", 100, 100), second).Conflicts.Count);
    }

    [Theory, InlineData(20.99, 2), InlineData(21, 0)]
    public void The_clearance_margin_is_added_exactly(double gap, int conflicts) =>
        Assert.Equal(conflicts, Order(With(Box(-20, -20, 40, 40), 5, clearance: 1), At("a", 100, 100),
            At("b", 120 + gap, 100)).Conflicts.Count);

    // Head x ∈ [−10, 50]: with j to the right of i a gap of 10 is enough, to the left it takes 50; worked by hand.
    [Fact]
    public void An_asymmetric_head_goes_one_way_round()
    {
        var result = Order(With(Box(-10, -20, 60, 40), 5), At("right", 140, 100), At("left", 100, 100));
        Assert.Equal((0, 1), (Assert.Single(result.Conflicts).First, result.Conflicts[0].Then));
        Assert.Equal([1, 0], result.Order);
        Assert.Equal(-30, result.Conflicts[0].Cure!.X, 1e-6);
    }

    [Fact]
    public void What_stays_under_the_underside_never_conflicts() =>
        Assert.Empty(Order(With(Box(-20, -20, 40, 40), 5), At("a", 100, 100, new(Solids.Box(20, 20, 4))),
            At("b", 125, 100, new(Solids.Box(20, 20, 4)))).Conflicts);

    [Fact]
    public void A_beam_takes_its_strip_across_the_whole_machine()
    {
        var card = With(Box(-1, -1, 2, 2), 500, 0, new Beam { Along = BeamAxis.X, Near = -15, Far = 25, Underside = 10 });
        Assert.Equal("beam", Order(card, At("front", 50, 100), At("back", 500, 130)).Conflicts[0].With);
        // printing the back one needs 15 in front of it, printing the front one 25 behind it
        var result = Order(card, At("front", 50, 100), At("back", 500, 136));
        Assert.Equal([1, 0], [Assert.Single(result.Conflicts).First, result.Conflicts[0].Then]);
        Assert.Equal([0, 1], result.Order);
        Assert.Empty(Order(card, At("front", 50, 100), At("back", 500, 145)).Conflicts);
    }

    [Fact]
    public void Parts_that_wait_for_each_other_are_named_with_the_smallest_cure()
    {
        var result = Order(With(Box(-20, -20, 40, 40), 5), At("a", 100, 100), At("b", 130, 100), At("far", 400, 400));
        Assert.Null(result.Order);
        Assert.Equal([0, 1], Assert.Single(result.Cycles));
        Assert.All(result.Conflicts, c => Assert.Equal(10, c.Cure!.Length, 1e-6));
        var moved = Order(With(Box(-20, -20, 40, 40), 5), At("a", 100, 100), At("b", 130 + result.Conflicts[0].Cure!.X, 100));
        Assert.Empty(moved.Conflicts);
    }

    [Fact]
    public void The_skirt_is_part_of_what_is_printed()
    {
        var recipe = Cards.Standard with { Skirt = new() { Rounds = 1, Gap = 4 }, LineWidth = 0.5 };
        StandingPart[] parts = [At("a", 100, 100), At("b", 144, 100)];
        Assert.Empty(new PrintOrder(With(Box(-20, -20, 40, 40), 5).Machine()).Of(parts).Conflicts);
        Assert.Equal(2, new PrintOrder(With(Box(-20, -20, 40, 40), 5).Machine(), recipe).Of(parts).Conflicts.Count);
    }

    [Fact]
    public void Idle_nozzles_hit_what_stands_beside()
    {
        var card = Cards.Bare(400, 400);
        card = card with
        {
            Head = card.Head with
            {
                Nozzles = [card.Head.Nozzles![0],
            card.Head.Nozzles[0] with { Id = "n2", Offset = new() { X = 30, Y = 0, Z = 0 } }]
            }
        };
        var conflict = Assert.Single(Order(card, At("left", 100, 100), At("right", 130, 100)).Conflicts);
        Assert.Equal((1, 0, "nozzle n2"), (conflict.First, conflict.Then, conflict.With));
    }

    [Fact]
    public void The_silhouette_above_a_height_is_what_rises_there()
    {
        var cone = new Footprints(Solids.Revolved(t => (t <= 0.5 ? 40 * t : 40 * (1 - t), t <= 0.5 ? 0 : 20 * (2 * t - 1)), 2, 720));
        Assert.Equal(Math.PI * 100, cone.Above(10).Area, 0.5);
        // an overhang above the cut covers the bed too
        var mushroom = new Footprints(Solids.Revolved(t => t < 0.25 ? (5 * Math.Min(1, t * 1e9), 0) : t < 0.5 ? (5, 10) : t < 0.75
            ? (15, 10) : t < 1 ? (15, 12) : (0, 12), 4, 360));
        Assert.Equal(Math.PI * 225, mushroom.Above(4).Area, 1.0);
        Assert.Equal(0, mushroom.Above(12).Area);
    }

    // The simulation moves the head's body in steps of 0.5 mm over everywhere the nozzle may be and asks for overlap itself.
    [Fact]
    public void No_collision_of_a_stepwise_simulation_is_missed_and_none_is_made_up() =>
        Gen.Select(Outlines(8, 18), Outlines(8, 18), Outlines(6, 25), Gen.Double[-30, 30], Gen.Double[-30, 30], Gen.Double[25, 70],
            Gen.Double[0, 6.28]).Sample((first, second, body, bodyX, bodyY, distance, angle) =>
        {
            var (i, j) = (new Footprints(Solids.Prism(first, 20)), new Footprints(Solids.Prism(second, 20)));
            var outline = new PolygonOutline { Points = [.. body.Select(p => new[] { p.X + bodyX, p.Y + bodyY })] };
            StandingPart[] parts = [At("i", 200, 200, i), At("j", 200 + distance * Math.Cos(angle), 200 + distance * Math.Sin(angle), j)];
            if (i.Below(double.PositiveInfinity, 200, 200, 0)
                .Distance(j.Below(double.PositiveInfinity, parts[1].X, parts[1].Y, 0).ConvexHull()) == 0) return;
            var said = Order(With(outline, 5), parts).Conflicts.Any(c => c.First == 0);
            var (hit, near) = Simulated(Shapes.Of(outline, Side.Outside), parts[0], parts[1]);
            if (hit) Assert.True(said);
            if (!near) Assert.False(said);
        }, iter: 60);

    private static (bool Hit, bool Near) Simulated(Polygon body, StandingPart standing, StandingPart printed)
    {
        const double step = 0.5;
        var there = PreparedGeometryFactory.Prepare(
            Plane.Offset(standing.Footprints.Below(double.PositiveInfinity, standing.X, standing.Y, 0), -0.002));
        var larger = (Polygon)body.Buffer(step);
        var path = PreparedGeometryFactory.Prepare(printed.Footprints.Below(double.PositiveInfinity, printed.X, printed.Y, 0).ConvexHull());
        var box = path.Geometry.EnvelopeInternal;
        var (hit, near) = (false, false);
        for (var x = box.MinX; x <= box.MaxX && !hit; x += step)
            for (var y = box.MinY; y <= box.MaxY && !hit; y += step)
            {
                if (!path.Covers(Plane.Factory.CreatePoint(new Coordinate(x, y)))) continue;
                hit = there.Intersects(Plane.Moved(body, x, y));
                near |= hit || there.Intersects(Plane.Moved(larger, x, y));
            }
        return (hit, near);
    }

    /// <summary>Star-shaped outlines about zero, seldom convex.</summary>
    private static Gen<(double X, double Y)[]> Outlines(int least, double radius) => Gen.Double[radius / 3, radius].Array[least, least + 4]
        .Select(radii => radii.Select((r, k) =>
            (r * Math.Cos(2 * Math.PI * k / radii.Length), r * Math.Sin(2 * Math.PI * k / radii.Length))).ToArray());

    [Fact]
    public void An_order_is_found_exactly_when_some_permutation_goes() =>
        Gen.Select(Gen.Select(Gen.Double[0, 160], Gen.Double[0, 160]).Array[3, 6], Gen.Double[-40, 0], Gen.Double[0, 40],
            Gen.Double[-40, 0], Gen.Double[0, 40]).Sample((places, left, right, front, back) =>
        {
            var card = With(Box(left, front, right - left + 1, back - front + 1), 5);
            var parts = places.Select((p, i) => At($"p{i}", 100 + p.Item1, 100 + p.Item2)).ToArray();
            var result = Order(card, parts);
            bool Goes(IReadOnlyList<int> order) => result.Conflicts.All(c => IndexIn(order, c.First) > IndexIn(order, c.Then));
            Assert.Equal(Permutations([.. Enumerable.Range(0, parts.Length)]).Any(Goes), result.Order is not null);
            if (result.Order is { } order) Assert.True(Goes(order));
        }, iter: 200);

    private static int IndexIn(IReadOnlyList<int> order, int part) => Enumerable.Range(0, order.Count).First(k => order[k] == part);

    private static IEnumerable<int[]> Permutations(int[] items) => items.Length == 0 ? [[]]
        : items.SelectMany(first => Permutations([.. items.Where(i => i != first)]).Select(rest => (int[])[first, .. rest]));

    [Fact]
    public void Among_free_parts_the_nearest_comes_next() =>
        Assert.Equal([2, 0, 1], Order(With(Box(-1, -1, 2, 2), 5), At("a", 200, 50), At("b", 400, 50), At("c", 60, 50)).Order);

    [Theory, InlineData(-20, 40), InlineData(-10, 60), InlineData(-50, 60)]
    public void Rows_of_equal_parts_can_be_printed_in_their_order(double left, double width)
    {
        var card = With(Box(left, -20, width, 40), 5, clearance: 1);
        var packing = Packing.Of(card.Machine(), null, At("part", 0, 0));
        var pitch = Math.Min(-left, left + width) + 1 + 20;
        Assert.Equal(pitch, packing.PitchX!.Value, 0.03);
        Assert.Equal((int)(580 / packing.PitchX.Value + 1) * (int)(580 / packing.PitchY!.Value + 1), packing.Places.Count);
        var parts = packing.Places.Select((p, i) => At($"p{i}", p.X, p.Y)).ToArray();
        var conflicts = new PrintOrder(card.Machine()).Of(parts, cures: Cures.LeftOut).Conflicts;
        Assert.DoesNotContain(conflicts, c => c.First < c.Then);
        Assert.All(new Fit(card.Machine()).Of(parts, cures: Cures.LeftOut), f => Assert.True(f.Fits));
    }

    [Fact]
    public void The_worst_moment_has_the_head_where_it_is_nearest()
    {
        var parts = new[] { At("a", 100, 100), At("b", 150, 100) };
        var moment = Assert.Single(new PrintOrder(With(Box(-20, -20, 40, 40), 5).Machine()).Moments(parts, [0, 1]));
        Assert.Equal((1, 0, "body", 10.0), (moment.Part, moment.Standing, moment.With, Math.Round(moment.Gap, 6)));
        Assert.Equal(140, moment.X, 1e-6);
    }

    [Fact]
    public void A_copy_is_kept_clear_of_what_stands_as_well()
    {
        var card = ReachTests.TwoCarriages(gap: 0);
        card = card with { Head = card.Head with { Bodies = [new() { Name = "body", Outline = Box(-20, -20, 40, 40), Underside = 5 }] } };
        StandingPart[] parts = [At("a", 30, 100), At("b", 150, 100)];
        Assert.Empty(new PrintOrder(card.Machine()).Of(parts, new ModeUse { Kind = ModeKind.Copy, Distance = 60 }).Conflicts);
        // the copy of a stands at 115, 15 mm from b
        Assert.Equal(2, new PrintOrder(card.Machine()).Of(parts, new ModeUse { Kind = ModeKind.Copy, Distance = 85 }).Conflicts.Count);
    }
}

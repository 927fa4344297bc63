using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

public class FitTests
{
    private static PartFit Verdict(Card card, Mesh mesh, double x, double y, double turn = 0, Recipe? recipe = null) =>
        new Fit(card.Machine(), recipe).Of([new StandingPart("part", new Footprints(mesh), x, y, turn)])[0];

    [Fact]
    public void A_part_in_the_middle_fits() => Assert.True(Verdict(Cards.Bare(), Solids.Box(20, 20, 20), 150, 100).Fits);

    [Fact]
    public void A_part_over_the_edge_says_how_far_and_how_to_move_it()
    {
        var violation = Assert.Single(Verdict(Cards.Bare() with { Motion = Wide }, Solids.Box(20, 20, 20), 5, 100).Violations);
        Assert.Equal((ViolationKind.Bed, 5.0), (violation.Kind, Math.Round(violation.Distance, 6)));
        Assert.Equal((5.0, 0.0), (Math.Round(violation.Move!.X, 6), Math.Round(violation.Move.Y, 6)));
    }

    // four corners a triangle, the first again among them
    [Theory, InlineData(70), InlineData(71)]
    public void A_move_is_not_looked_for_where_an_outline_has_very_many_corners(int side)
    {
        float[] Triangle(int x, int y) => [x, y, 1, x, y + 0.8f, 1, x + 0.8f, y, 1.1f];
        float[] corners = [.. Enumerable.Range(0, side * side).SelectMany(i => Triangle(i % side, i / side))];
        var verdict = Verdict(Cards.Bare() with { Motion = Wide }, new Mesh(corners, [.. Enumerable.Range(0, 3 * side * side)]), 5, 100);
        var violation = Assert.Single(verdict.Violations);
        Assert.Equal((side - 0.2) / 2 - 5, violation.Distance, 1e-3);
        Assert.Equal((side == 70, side == 70), (verdict.Searched, violation.Move is not null));
    }

    [Fact]
    public void The_margin_counts_from_the_edge()
    {
        var card = Cards.Bare() with { Motion = Wide };
        card = card with { Envelope = card.Envelope with { Use = new() { Margin = 3 } } };
        Assert.Equal(3, Assert.Single(Verdict(card, Solids.Box(20, 20, 20), 10, 100).Violations).Distance, 1e-6);
    }

    [Fact]
    public void What_is_too_high_cannot_be_moved_right()
    {
        var violation = Assert.Single(Verdict(Cards.Bare(height: 50), Solids.Box(20, 20, 62.5), 100, 100).Violations);
        Assert.Equal((ViolationKind.Height, 12.5), (violation.Kind, violation.Distance));
        Assert.Null(violation.Move);
    }

    [Theory, InlineData(KeepOutKind.Reserved, 0.0), InlineData(KeepOutKind.Obstacle, 1.5)]
    public void A_part_near_a_keep_out_says_the_exact_distance(KeepOutKind kind, double clearance)
    {
        var card = Cards.Bare();
        card = card with
        {
            Envelope = card.Envelope with { KeepOuts = [Cards.Box("post", kind, 100, 90, 20, 20, 8)] },
            Head = card.Head with { Clearance = clearance },
        };
        Assert.True(Verdict(card, Solids.Box(20, 20, 20), 130 + clearance + 0.01, 100).Fits);
        var violation = Assert.Single(Verdict(card, Solids.Box(20, 20, 20), 127, 100).Violations);
        Assert.Equal(("post", 3 + clearance), (violation.With, Math.Round(violation.Distance, 6)));
        Assert.Equal(3 + clearance, violation.Move!.X, 0.011);
    }

    [Fact]
    public void A_bad_surface_counts_for_the_first_layer_only()
    {
        // a table: 40 wide on top, one 10 mm foot; the bad place lies under the overhang
        var card = Cards.Bare();
        card = card with { Envelope = card.Envelope with { KeepOuts = [Cards.Box("dent", KeepOutKind.BadSurface, 165, 95, 5, 10)] } };
        var mushroom = Solids.Revolved(t => t < 0.2 ? (25 * t, 0) : t < 0.5 ? (5, (t - 0.2) * 50) : t < 0.7 ? (5 + (t - 0.5) * 100, 15)
            : t < 0.8 ? (25, 15 + (t - 0.7) * 100) : (25 * (1 - t) / 0.2, 25), 100, 48);
        Assert.True(Verdict(card, mushroom, 150, 100).Fits);
        Assert.False(Verdict(card with
        {
            Envelope = card.Envelope with
            {
                KeepOuts = [
            Cards.Box("wiper", KeepOutKind.Reserved, 165, 95, 5, 10)]
            }
        }, mushroom, 150, 100).Fits);
    }

    [Fact]
    public void A_body_adds_its_border_to_an_obstacle_that_is_higher_than_its_underside()
    {
        var card = Cards.Bare();
        card = card with
        {
            Envelope = card.Envelope with { KeepOuts = [Cards.Box("clip", KeepOutKind.Obstacle, 0, 90, 12, 20, 6)] },
            Head = card.Head with
            {
                Clearance = 0,
                Bodies = [new Body { Name = "duct", Outline = new RectangleOutline { X = -20, Y = -20, Width = 40, Depth = 40 },
                Underside = 4.5 }]
            },
        };
        // below 1.5 mm the duct is lower than the clip's top: 20 mm more are lost
        Assert.Equal(("clip", "duct"), Verdict(card, Solids.Box(20, 20, 20), 40, 100).Violations.Select(v => (v.With, v.By)).Single());
        Assert.True(Verdict(card, Solids.Box(20, 20, 20), 42.01, 100).Fits);
        // half a millimetre of the clip stands above the duct: the first layers are as near to it
        var just = card with { Head = card.Head with { Bodies = [card.Head.Bodies[0] with { Underside = 5.5 }] } };
        Assert.Equal(("clip", "duct"), Verdict(just, Solids.Box(20, 20, 20), 40, 100).Violations.Select(v => (v.With, v.By)).Single());
        var low = card with { Head = card.Head with { Bodies = [card.Head.Bodies[0] with { Underside = 6 }] } };
        Assert.True(Verdict(low, Solids.Box(20, 20, 20), 22.01, 100).Fits);
    }

    [Fact]
    public void The_skirt_belongs_to_the_part()
    {
        var recipe = Cards.Standard with { Skirt = new() { Rounds = 2, Gap = 4 }, LineWidth = 0.5 };
        Assert.True(Verdict(Cards.Bare(), Solids.Box(20, 20, 20), 10, 100).Fits);
        Assert.Equal(5, Verdict(Cards.Bare(), Solids.Box(20, 20, 20), 10, 100, recipe: recipe).Violations[0].Distance, 0.011);
    }

    // Two rounds of 0.5 mm and a gap of 4: 5 mm (0.01 more on the safe side) round a part 3.02 mm from the edge: a gap of 2 mm fits.
    [Fact]
    public void A_skirt_that_does_not_fit_is_told_as_the_skirt_with_the_gap_that_fits()
    {
        var recipe = Cards.Standard with { Skirt = new() { Rounds = 2, Gap = 4 }, LineWidth = 0.5 };
        var wide = Cards.Bare() with { Motion = Wide };
        var verdict = Verdict(wide, Solids.Box(20, 20, 20), 13.02, 100, recipe: recipe);
        var violation = Assert.Single(verdict.Violations);
        Assert.Equal("The skirt of part lies 1.99 mm beyond the usable bed. A gap of 2 mm fits.", violation.Message);
        var edit = Assert.Single(violation.Remedy!.Edits);
        Assert.Equal(("/skirt/gap", 2.0), (edit.Pointer, edit.Value!.GetValue<double>()));
        Assert.True(Verdict(wide, Solids.Box(20, 20, 20), 13.02, 100, recipe: recipe with { Skirt = new() { Rounds = 2, Gap = 2 } }).Fits);
        Assert.False(Verdict(wide, Solids.Box(20, 20, 20), 13.02, 100,
            recipe: recipe with { Skirt = new() { Rounds = 2, Gap = 2.05 } }).Fits);
        // 0.06 mm more room take a gap of one step of 0.05 more
        Assert.EndsWith("A gap of 2.05 mm fits.", Verdict(wide, Solids.Box(20, 20, 20), 13.08, 100, recipe: recipe).Violations[0].Message,
            StringComparison.Ordinal);
        // no gap helps where the part itself stands at the edge
        var edge = Verdict(wide, Solids.Box(20, 20, 20), 10.5, 100, recipe: recipe).Violations;
        Assert.Equal("/skirt/rounds", Assert.Single(edge).Remedy!.Edits[0].Pointer);
        // where the part itself is over the edge, the skirt is not to blame
        var over = Verdict(wide, Solids.Box(20, 20, 20), 5, 100, recipe: recipe).Violations;
        Assert.Equal(("part stands 5.00 mm beyond the usable bed; its skirt 10.01 mm.", true),
            (over[0].Message, over.All(v => v.Remedy is null)));
    }

    [Fact]
    public void A_skirt_in_a_keep_out_gets_a_gap_that_was_tried()
    {
        var recipe = Cards.Standard with { Skirt = new() { Rounds = 1, Gap = 6 }, LineWidth = 0.5 };
        var card = Cards.Bare();
        card = card with { Envelope = card.Envelope with { KeepOuts = [Cards.Box("post", KeepOutKind.Reserved, 100, 90, 20, 20)] } };
        var violation = Assert.Single(Verdict(card, Solids.Box(20, 20, 20), 133, 100, recipe: recipe).Violations);
        Assert.StartsWith("The skirt of part is ", violation.Message, StringComparison.Ordinal);
        var gap = violation.Remedy!.Edits[0].Value!.GetValue<double>();
        Assert.InRange(gap, 1.4, 2.5);
        Assert.True(Verdict(card, Solids.Box(20, 20, 20), 133, 100, recipe: recipe with { Skirt = recipe.Skirt with { Gap = gap } }).Fits);
    }

    [Fact]
    public void A_trials_limits_are_called_the_trials_and_the_cards_the_machines()
    {
        var limits = new TrialLimits { Height = 30, Margin = 8, KeepOuts = [Cards.Box("tape", KeepOutKind.Reserved, 100, 90, 20, 20)] };
        string[] Said(TrialLimits? given, double x, double high) =>
            [.. new Fit(Machine.Of(Cards.Bare(height: 50) with { Motion = Wide }, given))
            .Of([new StandingPart("part", new Footprints(Solids.Box(20, 20, high)), x, 100, 0)])[0].Violations.Select(v => v.Message)];
        Assert.Contains("this trial takes 30.00", Assert.Single(Said(limits, 50, 40)), StringComparison.Ordinal);
        Assert.Contains("this machine takes 50.00", Assert.Single(Said(limits with { Height = 60 }, 50, 60)), StringComparison.Ordinal);
        Assert.Contains("within this trial's margin of 8 mm", Assert.Single(Said(limits, 15, 20)), StringComparison.Ordinal);
        Assert.Contains("the usable bed", Assert.Single(Said(limits with { Margin = null }, 8, 20)), StringComparison.Ordinal);
        Assert.Contains("tape, which this trial keeps out of", Assert.Single(Said(limits, 110, 20)), StringComparison.Ordinal);
    }

    [Fact]
    public void No_move_is_only_said_where_one_was_looked_for()
    {
        var fit = new Fit((Cards.Bare() with { Motion = Wide }).Machine());
        StandingPart[] parts = [new("part", new Footprints(Solids.Box(20, 20, 20)), 5, 100, 0)];
        var verdict = fit.Of(parts, cures: Cures.LeftOut)[0];
        Assert.Equal((false, null), (verdict.Searched, verdict.Violations[0].Move));
        Assert.True(fit.Of(parts)[0].Searched);
    }

    [Fact]
    public void A_part_scaled_to_nothing_is_told()
    {
        var violation = Assert.Single(Verdict(Cards.Bare(), Solids.Box(0.02, 0.02, 0.02), 150, 100).Violations);
        Assert.Equal(ViolationKind.Size, violation.Kind);
        Assert.Contains("0.02 × 0.02 × 0.02 mm", violation.Message, StringComparison.Ordinal);
        Assert.True(Verdict(Cards.Bare(), Solids.Box(0.02, 0.02, 0.1), 150, 100).Fits);
    }

    [Fact]
    public void A_round_bed_takes_what_its_corners_reach()
    {
        var card = Cards.Bare();
        card = card with
        {
            Envelope = card.Envelope with
            {
                Bed = new EllipseBed { Width = 180, Depth = 180 },
                Origin = new() { X = 90, Y = 90 }
            },
            Motion = card.Motion with { Layout = MotionLayout.Delta }
        };
        var half = 90 / Math.Sqrt(2);
        Assert.True(Verdict(card, Solids.Box(2 * half - 0.05, 2 * half - 0.05, 20), 90, 90).Fits);
        Assert.Null(Verdict(card, Solids.Box(2 * half + 0.1, 2 * half + 0.1, 20), 90, 90).Violations[0].Move);
    }

    [Fact]
    public void Parts_must_not_overlap()
    {
        var prints = new Footprints(Solids.Box(20, 20, 20));
        var verdicts = new Fit(Cards.Bare().Machine()).Of([new("a", prints, 100, 100, 0), new("b", prints, 112, 100, 0)]);
        Assert.Equal(8, Assert.Single(verdicts[0].Violations).Distance, 1e-6);
        Assert.True(new Fit(Cards.Bare().Machine()).Of([new("a", prints, 100, 100, 0), new("b", prints, 120, 100, 0)]).All(v => v.Fits));
    }

    [Theory, InlineData(0), InlineData(90), InlineData(37)]
    public void A_projection_has_the_area_of_the_solid_seen_from_above(double turn)
    {
        // a torus from above is a ring: π((R + r)² − (R − r)²); closed form
        var prints = new Footprints(Solids.Torus(20, 6, 96, 192));
        Assert.Equal(Math.PI * (26 * 26 - 14 * 14), prints.Below(double.PositiveInfinity, 50, 50, turn).Area, 3.0);
        // the lower half up to 6 mm covers the same ring; up to 3 mm it is the band where the tube is that low
        Assert.Equal(prints.Whole.Area, prints.Below(6).Area, 0.5);
        var reach = Math.Sqrt(36 - 9);
        Assert.Equal(Math.PI * ((20 + reach) * (20 + reach) - (20 - reach) * (20 - reach)), prints.Below(3).Area, 3.0);
    }

    private static readonly Gen<(Card Card, Mesh Part, double X, double Y, double Turn)> Scenes =
        from round in Gen.Bool
        from width in Gen.Double[60, 200]
        from depth in Gen.Double[60, 200]
        from keepOuts in Gen.Select(Gen.Double[0, 180], Gen.Double[0, 180], Gen.Double[4, 40], Gen.Double[4, 40], Gen.Int[0, 2]).Array[0, 4]
        from radii in Gen.Double[4, 25].Array[5, 12]
        from x in Gen.Double[0, 200]
        from y in Gen.Double[0, 200]
        from turn in Gen.Double[0, 360]
        let bare = Cards.Bare(width, depth)
        let card = bare with
        {
            Envelope = bare.Envelope with
            {
                Bed = round ? new EllipseBed { Width = width, Depth = depth } : bare.Envelope.Bed,
                KeepOuts = [.. keepOuts.Select((k, i) => Cards.Box($"k{i}", (KeepOutKind)k.Item5, k.Item1, k.Item2, k.Item3, k.Item4, 5))],
            },
            Head = bare.Head with
            {
                Clearance = 1,
                Bodies = [new Body { Name = "duct", Outline = new CircleOutline { X = 2, Y = 0, Radius = 8 }, Underside = 3 }]
            },
        }
        let outline = radii.Select((r, i) => (r * Math.Cos(2 * Math.PI * i / radii.Length), r * Math.Sin(2 * Math.PI * i / radii.Length)))
            .ToArray()
        select (card, Solids.Prism(outline, 10), x, y, turn);

    [Fact]
    public void The_verdict_equals_a_brute_force_raster() => Scenes.Sample(scene =>
    {
        var verdict = Verdict(scene.Card, scene.Part, scene.X, scene.Y, scene.Turn);
        var clear = Raster(scene.Card, scene.Part, scene.X, scene.Y, scene.Turn);
        if (clear is { } expected) Assert.Equal(expected, verdict.Fits);
    }, iter: 400);

    /// <summary>Whether every sample point of the part is allowed; null where some lies within a quarter millimetre of a border.</summary>
    private static bool? Raster(Card card, Mesh part, double x, double y, double turn)
    {
        const double step = 0.5, doubt = 0.25;
        var print = new Footprints(part).Below(double.PositiveInfinity, x, y, turn);
        var locate = new IndexedPointInAreaLocator(print);
        var unsure = false;
        foreach (var corner in print.Coordinates)
        {
            var room = Allowed(card, corner);
            if (room < -doubt) return false;
            unsure |= room < doubt;
        }
        var box = print.EnvelopeInternal;
        for (var px = box.MinX; px <= box.MaxX; px += step)
            for (var py = box.MinY; py <= box.MaxY; py += step)
            {
                var sample = new Coordinate(px, py);
                var room = Allowed(card, sample);
                if (room >= doubt || locate.Locate(sample) == Location.Exterior) continue;
                if (room < -doubt) return false;
                unsure = true;
            }
        // a border that passes between samples of a part that seems to fit, or a narrow overlap
        return unsure ? null : true;
    }

    /// <summary>Signed room at a point: positive inside the bed and outside every keep-out, by definition of each kind and not by the code
    /// under test.</summary>
    private static double Allowed(Card card, Coordinate p)
    {
        var room = card.Envelope.Bed switch
        {
            RectangleBed r => Math.Min(Math.Min(p.X, r.Width!.Value - p.X), Math.Min(p.Y, r.Depth!.Value - p.Y)),
            EllipseBed e => EllipseRoom(p.X - e.Width!.Value / 2, p.Y - e.Depth!.Value / 2, e.Width.Value / 2, e.Depth.Value / 2),
            _ => throw new InvalidOperationException(),
        };
        foreach (var keepOut in card.Envelope.KeepOuts)
        {
            var k = (RectangleOutline)keepOut.Outline;
            room = Math.Min(room, BoxDistance(p.X, p.Y, k) - (keepOut.Kind == KeepOutKind.Obstacle ? 1 : 0));
            // the duct, a disc of 8 about (2, 0) from the nozzle, 3 above the tip, hits an obstacle of 5 while the nozzle is below 2
            if (keepOut.Kind == KeepOutKind.Obstacle) room = Math.Min(room, BoxDistance(p.X + 2, p.Y, k) - 8 - 1);
        }
        return room;
    }

    private static double EllipseRoom(double x, double y, double a, double b)
    {
        var f = Math.Sqrt(x * x / (a * a) + y * y / (b * b));
        return (1 - f) * Math.Min(a, b);
    }

    private static double BoxDistance(double x, double y, RectangleOutline k)
    {
        var dx = Math.Max(k.X - x, x - k.X - k.Width);
        var dy = Math.Max(k.Y - y, y - k.Y - k.Depth);
        return dx > 0 && dy > 0 ? Math.Sqrt(dx * dx + dy * dy) : Math.Max(dx, dy);
    }

    [Fact]
    public void The_curing_move_cures_and_no_shorter_one_does() => Gen.Select(Scenes, Gen.Double[0, 2 * Math.PI]).Sample((scene, angle) =>
    {
        var verdict = Verdict(scene.Card, scene.Part, scene.X, scene.Y, scene.Turn);
        if (verdict.Fits || verdict.Violations[0].Move is not { } move) return;
        var after = Verdict(scene.Card, scene.Part, scene.X + move.X, scene.Y + move.Y, scene.Turn);
        Assert.True(after.Fits, $"{move} leaves: {string.Join(' ', after.Violations.Select(v => $"{v.Kind} {v.With} {v.Distance:R}"))}");
        if (move.Length < 0.2) return;
        var shorter = move.Length - 0.1;
        foreach (var direction in Enumerable.Range(0, 12).Select(i => angle + i * Math.PI / 6).Append(Math.Atan2(move.Y, move.X)))
            Assert.False(Verdict(scene.Card, scene.Part, scene.X + shorter * Math.Cos(direction), scene.Y + shorter * Math.Sin(direction),
                scene.Turn).Fits);
    }, iter: 60);

    [Fact]
    public void Rounding_leaves_no_slit_in_a_sum_into_which_a_part_would_be_moved()
    {
        var slit = Plane.Factory.CreatePolygon(
            (LinearRing)Shapes.Rectangle(0, 0, 60, 60).ExteriorRing,
            [Plane.Factory.CreateLinearRing([new(40, 28), new(39.9999999999, 28), new(37, 29), new(40, 28)]),
                Plane.Factory.CreateLinearRing([new(5, 5), new(5, 7), new(7, 7), new(5, 5)])]);
        var mended = (Polygon)Plane.WithoutSlits(slit);
        Assert.Equal(1, mended.NumInteriorRings);
        Assert.Equal(3600 - 2, mended.Area, 6);
    }

    private static MotionFacts Wide => new() { Axes = new() { X = new() { Min = -100, Max = 500 }, Y = new() { Min = -100, Max = 500 } } };
}

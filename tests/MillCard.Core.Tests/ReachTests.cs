using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

public class ReachTests
{
    private static Nozzle Nozzle(string id, double x = 0, double y = 0, double z = 0) =>
        new() { Id = id, Diameter = 0.4, FilamentDiameter = 1.75, Offset = new() { X = x, Y = y, Z = z } };

    private static Card TwoNozzles(double x, double y = 0)
    {
        var card = Cards.Bare(300, 200);
        return card with
        {
            Head = card.Head with { Nozzles = [Nozzle("n1"), Nozzle("n2", x, y)], Offsets = new() { Firmware = true } },
            Motion = card.Motion with { Axes = new() { X = new() { Min = 0, Max = 300 }, Y = new() { Min = 0, Max = 200 } } }
        };
    }

    internal static Card TwoCarriages(double travel = 300, double least = 48, double gap = 12, double dy = 0)
    {
        var card = TwoNozzles(0, dy);
        return card with
        {
            Head = card.Head with
            {
                LeastDistance = least,
                Carriages = [new() { Nozzle = "n1", Min = 0, Max = travel, Park = 0 },
                new() { Nozzle = "n2", Min = 0, Max = travel, Park = travel }]
            },
            Modes = [new() { Kind = ModeKind.Single }, new() { Kind = ModeKind.Copy, Gap = gap }, new() { Kind = ModeKind.Mirror },
                new() { Kind = ModeKind.TwoMaterial }],
        };
    }

    private static ModePlan Plan(Card card, ModeKind kind, double? distance = null, double widest = 0) =>
        ModePlan.Of(card.Machine(), new ModeUse { Kind = kind, Distance = distance }, widest)!;

    // A = [0, 300] × [0, 200], o₂ = (24, 0): worked by hand.
    [Fact]
    public void An_offset_nozzle_reaches_what_its_carriage_reaches_moved_by_the_offset()
    {
        var report = ReachReport.Of(TwoNozzles(24).Machine());
        Assert.Equal([(0.0, 300.0), (24.0, 300.0)],
            report.Nozzles.Select(n => (n.Region.EnvelopeInternal.MinX, n.Region.EnvelopeInternal.MaxX)));
        Assert.Equal(276, Assert.Single(report.Sets).Region.EnvelopeInternal.Width, 1e-9);
    }

    [Fact]
    public void A_part_of_both_nozzles_must_stand_where_both_reach()
    {
        var fit = new Fit(TwoNozzles(24).Machine());
        PartFit Verdict(double x, params string[] nozzles) =>
            fit.Of([new StandingPart("part", new Footprints(Solids.Box(20, 20, 5)), x, 100, 0, nozzles)])[0];
        Assert.True(Verdict(12).Fits);
        var violation = Assert.Single(Verdict(12, "n1", "n2").Violations);
        Assert.Equal((ViolationKind.Reach, 22.0, 22.0),
            (violation.Kind, Math.Round(violation.Distance, 6), Math.Round(violation.Move!.X, 6)));
        Assert.True(Verdict(34, "n1", "n2").Fits);
    }

    [Fact]
    public void The_round_reach_of_a_delta_moves_with_the_offset()
    {
        var card = Cards.Bare() with
        {
            Envelope = Cards.Bare().Envelope with
            {
                Bed = new EllipseBed { Width = 200, Depth = 200 },
                Origin = new() { X = 100, Y = 100 }
            }
        };
        card = card with
        {
            Head = card.Head with { Nozzles = [Nozzle("n1"), Nozzle("n2", 10)] },
            Motion = new() { Layout = MotionLayout.Delta, Axes = new() { X = new() { Max = 100 } } }
        };
        // lens of two discs of radius 100 at distance 10: 2 r² acos(d/2r) − d/2 √(4r² − d²)
        var lens = 2 * 1e4 * Math.Acos(0.05) - 5 * Math.Sqrt(4e4 - 100);
        Assert.Equal(lens, ReachReport.Of(card.Machine()).Sets[0].Region.Area, 10.0);
    }

    // Travel 0 … 300 for both, g = 48, d = 62, w = 45, c = 12: widest 50, region of the first x ≤ 238; worked by hand.
    [Fact]
    public void A_copy_leaves_the_first_part_what_the_second_still_reaches()
    {
        var plan = Plan(TwoCarriages(), ModeKind.Copy, 62, 45);
        Assert.Equal((0.0, 238.0), (plan.RegionOnBed(0).EnvelopeInternal.MinX, plan.RegionOnBed(0).EnvelopeInternal.MaxX));
        Assert.Equal(50, plan.Widest, 1e-9);
        Assert.Equal(57, Plan(TwoCarriages(), ModeKind.Copy, widest: 45).Distance);
        Assert.Equal(58, Plan(TwoCarriages(), ModeKind.Copy, widest: 45.3).Distance);
        Assert.Equal(48, Plan(TwoCarriages(), ModeKind.Copy, widest: 20).Distance);
    }

    [Fact]
    public void A_copy_that_lies_too_near_says_by_how_much()
    {
        var fit = new Fit(TwoCarriages().Machine());
        StandingPart[] part = [new("part", new Footprints(Solids.Box(60, 20, 5)), 40, 100, 0)];
        Assert.True(fit.Of(part, new ModeUse { Kind = ModeKind.Copy })[0].Fits);
        Assert.Contains(fit.Of(part, new ModeUse { Kind = ModeKind.Copy, Distance = 62 })[0].Violations, v => v.Kind == ViolationKind.Copy
            && Math.Abs(v.Distance - 10) < 1e-6);
        Assert.Contains(fit.Of(part, new ModeUse { Kind = ModeKind.Copy, Distance = 40 })[0].Violations, v => v.Kind == ViolationKind.Copy
            && Math.Abs(v.Distance - 8) < 1e-6);
    }

    [Fact]
    public void The_copy_is_tested_like_a_part()
    {
        var card = TwoCarriages();
        card = card with { Envelope = card.Envelope with { KeepOuts = [Cards.Box("post", KeepOutKind.Reserved, 140, 90, 20, 20)] } };
        StandingPart[] part = [new("part", new Footprints(Solids.Box(20, 20, 5)), 50, 100, 0)];
        Assert.True(new Fit(card.Machine()).Of(part, new ModeUse { Kind = ModeKind.Copy, Distance = 60 })[0].Fits);
        var verdict = new Fit(card.Machine()).Of(part, new ModeUse { Kind = ModeKind.Copy, Distance = 96 })[0];
        Assert.Contains("the copy of part", Assert.Single(verdict.Violations).Message, StringComparison.Ordinal);
        Assert.Equal(-16, verdict.Violations[0].Move!.X, 1e-6);
    }

    [Fact]
    public void A_cure_in_mirror_mode_moves_the_copy_the_other_way()
    {
        var card = TwoCarriages();
        card = card with { Envelope = card.Envelope with { KeepOuts = [Cards.Box("post", KeepOutKind.Reserved, 240, 90, 20, 20)] } };
        var verdict = new Fit(card.Machine())
            .Of([new StandingPart("part", new Footprints(Solids.Box(20, 20, 5)), 46, 100, 0)], new ModeUse { Kind = ModeKind.Mirror })[0];
        // the copy stands at 254; it has to go right to 270, so the part goes left
        Assert.Equal(-16, Assert.Single(verdict.Violations).Move!.X, 1e-6);
    }

    [Theory, InlineData(ModeKind.Single, 0, 0.0, 252.0), InlineData(ModeKind.TwoMaterial, 0, 0.0, 252.0),
        InlineData(ModeKind.TwoMaterial, 1, 48.0, 300.0), InlineData(ModeKind.Mirror, 0, 0.0, 126.0)]
    public void A_parked_or_mirrored_carriage_still_stands_on_the_beam(ModeKind kind, int nozzle, double from, double to)
    {
        var box = Plan(TwoCarriages(), kind).RegionOnBed(nozzle).EnvelopeInternal;
        Assert.Equal((from, to), (box.MinX, box.MaxX));
    }

    [Fact]
    public void Regions_of_copy_and_mirror_hold_exactly_the_points_from_which_both_nozzles_reach() =>
        Gen.Select(Gen.Double[180, 360], Gen.Double[0, 90], Gen.Double[-12, 12], Gen.Double[0, 200], Gen.Double[-20, 330],
            Gen.Double[-10, 210], Gen.Bool).Sample((travel, least, dy, distance, x, y, mirror) =>
        {
            var plan = Plan(TwoCarriages(travel, least, 0, dy), mirror ? ModeKind.Mirror : ModeKind.Copy, mirror ? null : distance);
            var second = mirror ? 300 - x : x + distance;
            bool Reaches(double px, double py, double shift) => px >= 0 && px <= Math.Min(travel, 300) && py >= Math.Max(0, shift)
                && py <= Math.Min(200, 200 + shift);
            var apart = mirror ? second - x : distance;
            var expected = Reaches(x, y, 0) && Reaches(second, y + dy, dy) && apart >= least;
            var point = Plane.Factory.CreatePoint(new Coordinate(x, y));
            if (Math.Abs(apart - least) < 0.01 || plan.RegionOnBed(0).Boundary.Distance(point) < 1e-6) return true;
            return plan.RegionOnBed(0).Covers(point) == expected;
        }, iter: 2000);

    [Fact]
    public void The_widest_copy_is_as_wide_as_the_best_distance_allows()
    {
        var machine = TwoCarriages().Machine();
        var best = Enumerable.Range(48, 252).Max(d => ModePlan.Of(machine, new ModeUse { Kind = ModeKind.Copy, Distance = d }, 0)!.Widest);
        Assert.Equal(best, Plan(TwoCarriages(), ModeKind.Copy).BestWidth, 0.51);
    }
}

using System.Text;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;
using Xunit;
using static MillCard.Core.Tests.Engine;
using static MillCard.Core.Tests.Solids;
using Point = MillCard.Core.Geometry.Point;

namespace MillCard.Core.Tests;

public class EngineTests
{
    /// <summary>A post with a plate on top: it hangs over by 10 mm on each side.</summary>
    private static readonly Mesh Table = Joined(Placed(Block.Of(10, 10, 10), 10, 10, 0), Placed(Block.Of(30, 30, 3), 0, 0, 10));

    [Theory, InlineData(0.3), InlineData(0.448), InlineData(0.45), InlineData(0.4505), InlineData(0.6)]
    public void A_thin_fin_gets_one_line(double thickness)
    {
        var paths = Slice(Block.Of(20, thickness, 2), Plain).Layers[4].Paths;
        var line = Assert.Single(paths);
        Assert.Equal(PathKind.Thin, line.Kind);
        Assert.Equal(thickness, line.Width, 0.08);
        Assert.InRange(line.Length, 18.5, 20);
    }

    [Fact]
    public void What_is_too_thin_for_any_line_is_refused_in_a_sentence() =>
        Assert.Equal("No part is anywhere wide enough for a line.", Engine.Slice(Job(Block.Of(20, 0.1, 2), Plain)).Findings[0].Message);

    [Theory, InlineData(1.1), InlineData(1.3), InlineData(1.9), InlineData(2.3)]
    public void What_walls_leave_free_is_filled(double thickness)
    {
        // volume of the plastic against that of the part: without gap lines it falls short by up to a third
        var layers = Slice(Block.Of(30, thickness, 3), Plain with { Infill = new() { Density = 1 } }).Layers;
        Assert.Equal(1, Plastic(layers) / (30 * thickness * 3), 0.07);
    }

    [Fact]
    public void Solid_parts_with_thin_places_hold_their_volume()
    {
        var recipe = Plain with { Infill = new() { Density = 1 } };
        foreach (var part in new[] { "cable-gland", "quadrat-corner" })
        {
            var mesh = DemoParts.Read(part);
            Assert.Equal(1, Plastic(Slice(mesh, recipe).Layers) / mesh.Volume(), 0.02);
        }
    }

    [Fact]
    public void Every_wall_is_as_long_as_the_contour_offset_to_its_middle()
    {
        var layers = Slice(Solids.Cylinder(12, 4), Plain with { Walls = 3 }).Layers;
        var s = ExtrudedLine.Spacing(0.45, 0.2);
        var walls = layers[5].Paths.Where(p => p.Kind is PathKind.OuterWall or PathKind.InnerWall).Select(p => p.Length).OrderDescending()
            .ToArray();
        Assert.Equal(3, walls.Length);
        for (var i = 0; i < 3; i++) Assert.Equal(2 * Math.PI * (12 - 0.225 - i * s), walls[i], 0.03);
    }

    [Fact]
    public void A_bridge_crosses_the_shorter_way_as_round_strands()
    {
        var layer = Slice(Gate, Plain).Layers.First(l => l.Place.Top > 8.05);
        var bridge = layer.Paths.Where(p => p.Kind == PathKind.Bridge).ToArray();
        Assert.NotEmpty(bridge);
        var nozzle = Cards.Dunlin.Head.Nozzles![0].Diameter!.Value;
        Assert.All(bridge, p => Assert.Equal(Math.PI * nozzle * nozzle / 4, p.Section!.Value, 1e-9));
        // 20 mm between the walls, 30 along them: the long pieces run along X
        var (along, across) = (0.0, 0.0);
        foreach (var path in bridge)
            for (var i = 1; i < path.Points.Length; i++)
            { along += Math.Abs(path.Points[i].X - path.Points[i - 1].X); across += Math.Abs(path.Points[i].Y - path.Points[i - 1].Y); }
        Assert.True(along > 8 * across);
        Assert.DoesNotContain(Slice(Gate, Plain with { Bridges = false }).Layers.SelectMany(l => l.Paths), p => p.Kind == PathKind.Bridge);
        Assert.DoesNotContain(Slice(Table, Plain).Layers.SelectMany(l => l.Paths), p => p.Kind == PathKind.Bridge);
    }

    /// <summary>A mushroom on a wide foot: most of what hangs has the foot below it.</summary>
    private static readonly Mesh Mushroom = Joined(Placed(Block.Of(30, 30, 2), 0, 0, 0), Placed(Block.Of(8, 8, 10), 11, 11, 2),
        Placed(Block.Of(30, 30, 3), 0, 0, 12));

    [Theory, InlineData(SupportPattern.Crossed), InlineData(SupportPattern.Branching)]
    public void What_supports_from_the_bed_do_not_reach_is_told(SupportPattern pattern)
    {
        var bare = Assert.Single(Supported(pattern, s => s with { From = SupportFrom.Bed }, Mushroom).Findings,
            f => f.Rule == "bare-overhang");
        Assert.Equal((Severity.Caution, "/recipe/supports/from"), (bare.Severity, bare.Pointer));
        // 30 × 30 less the stem of 8 × 8, less what a line's width of the stem holds itself
        var area = double.Parse(bare.Message.Split("reach ")[1].Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture);
        Assert.InRange(area, 700, 836);
        Assert.Contains("begins on layer 61 (12.2 mm up)", bare.Message, StringComparison.Ordinal);
        Assert.DoesNotContain(Supported(pattern, null, Mushroom).Findings, f => f.Rule == "bare-overhang");
        Assert.DoesNotContain(Supported(pattern).Findings, f => f.Rule == "bare-overhang");
    }

    private static SliceResult Supported(SupportPattern pattern, Func<Supports, Supports>? and = null, Mesh? mesh = null)
    {
        var supports = new Supports { Pattern = pattern };
        return Slice(mesh ?? Table, Plain with { Supports = and?.Invoke(supports) ?? supports });
    }

    [Theory, InlineData(SupportPattern.Crossed), InlineData(SupportPattern.Continuous), InlineData(SupportPattern.Branching)]
    public void Supports_hold_the_overhang_and_keep_their_gaps(SupportPattern pattern)
    {
        var layers = Supported(pattern).Layers;
        var all = layers.SelectMany(l => l.Paths.Where(p => p.Kind is PathKind.Support or PathKind.Interface)
            .Select(p => (l.Place, Path: p))).ToArray();
        // the plate's underside is 10 mm up; one layer of gap
        Assert.Equal(9.8, all.Max(s => s.Place.Top), 1e-6);
        var post = Shapes.Rectangle(145, 95, 10, 10);
        Assert.All(all, s => Assert.True(s.Path.Points.All(p => post.Distance(Plane.Factory.CreatePoint(new Coordinate(p.X, p.Y))) > 0.6)));
        // from every place under the overhang the interface is near
        var dense = Plane.Union([.. layers.Single(l => Math.Abs(l.Place.Top - 9.8) < 1e-6).Paths.Where(p => p.Kind == PathKind.Interface)
            .Select(p => Inked(p))]);
        var hanging = Plane.Difference(Shapes.Rectangle(136, 86, 28, 28), post.Buffer(1.5));
        Assert.True(Plane.Intersection(hanging, dense.Buffer(0.4)).Area > 0.95 * hanging.Area);
        // it stands on the bed
        Assert.Contains(layers[0].Paths, p => p.Kind == PathKind.Support);
        if (pattern == SupportPattern.Branching)
            Assert.True(Plastic(layers, p => p.Kind == PathKind.Support) < Plastic(Supported(SupportPattern.Crossed).Layers,
            p => p.Kind == PathKind.Support));
    }

    // The setting is the angle itself, at any angle: two degrees on either side of it.
    [Theory, InlineData(30), InlineData(50), InlineData(65)]
    public void A_leaning_face_is_held_up_from_its_angle_on(double angle)
    {
        bool Held(double leans) => Supported(SupportPattern.Crossed, s => s with { Angle = angle }, Solids.Leaning(leans, 8)).Layers
            .SelectMany(l => l.Paths).Any(p => p.Kind is PathKind.Support or PathKind.Interface);
        Assert.False(Held(angle - 2));
        Assert.True(Held(angle + 2));
    }

    // A layer that would take 3 s takes 8, and no longer than needed but for what sharp turns of its lines cost.
    [Fact]
    public void The_least_layer_time_is_met_and_not_overshot()
    {
        var recipe = Plain with { Speeds = Plain.Speeds with { LeastLayerTime = 8, Least = 1 } };
        var result = Slice(Block.Of(10, 10, 3), recipe);
        var text = Encoding.UTF8.GetString(result.Gcode.Span).Split('\n');
        var begins = text.Select((l, i) => (l, i)).Where(l => l.l.StartsWith("; layer ", StringComparison.Ordinal))
            .Select(l => l.i).ToArray();
        for (var i = 3; i < begins.Length - 1; i++)
            Assert.InRange(result.Run!.Starts[begins[i + 1]] - result.Run.Starts[begins[i]], 7.9, 9.3);
    }

    // 12 mm³/s melt in the filament's own flow: with a flow of 1.25 lines are laid slower by that.
    [Theory, InlineData(1.0), InlineData(1.25), InlineData(0.8)]
    public void Lines_are_as_fast_as_the_filament_melts_its_flow_counted(double flow)
    {
        var filament = Cards.Petg with { Flow = flow, MaxFlow = 3 };
        var run = Engine.Slice(Job(Block.Of(40, 40, 2), Plain) with { Filament = filament }).Run!;
        var area = Math.PI * filament.Diameter!.Value * filament.Diameter.Value / 4;
        var flows = run.Moves.ToArray().Where(m => m.Extrudes).Select(m => (Length: Math.Sqrt(Math.Pow(m.To.X - m.From.X, 2)
            + Math.Pow(m.To.Y - m.From.Y, 2)), m)).Where(m => m.Length > 5)
            .Select(m => m.m.Filament * area / m.Length * m.m.Speed).ToArray();
        Assert.Equal(3, flows.Max(), 0.03);
    }

    [Fact]
    public void Supports_from_the_bed_leave_what_has_the_part_below()
    {
        // a plate over a step: everywhere stands on the step, from the bed does not
        var step = Joined(Block.Of(20, 20, 4), Placed(Block.Of(4, 20, 8), 0, 0, 4), Placed(Block.Of(40, 20, 2), 0, 0, 12));
        double OnStep(SupportFrom from) =>
            Supported(SupportPattern.Crossed, s => s with { From = from }, step).Layers.SelectMany(l => l.Paths)
            .Where(p => p.Kind is PathKind.Support && p.Points.Any(q => q.X < 149)).Sum(p => p.Length);
        Assert.True(OnStep(SupportFrom.Everywhere) > 100);
        Assert.Equal(0, OnStep(SupportFrom.Bed));
    }

    [Fact]
    public void Zones_and_marks_force_and_forbid_supports()
    {
        var zone = new BoxZone { Name = "left", X = 140, Y = 100, Z = 0, Width = 10, Depth = 40, Height = 30, Use = ZoneUse.NoSupport };
        double Held(SliceJob job, Func<Point, bool> where) => Engine.Slice(job).Layers.SelectMany(l => l.Paths)
            .Where(p => p.Kind is PathKind.Support or PathKind.Interface).SelectMany(p => p.Points).Count(where);
        var supported = Job(Table, Plain with { Supports = new() { Pattern = SupportPattern.Crossed } });
        Assert.Equal(0, Held(supported with { Zones = [new(zone)] }, p => p.X < 144));
        Assert.NotEqual(0, Held(supported with { Zones = [new(zone)] }, p => p.X > 156));

        var bare = Job(Table, Plain);
        Assert.Equal(0, Held(bare, _ => true));
        Assert.NotEqual(0, Held(bare with { Zones = [new(zone with { Use = ZoneUse.Support })] }, p => p.X < 144));
        Assert.Equal(0, Held(bare with { Zones = [new(zone with { Use = ZoneUse.Support })] }, p => p.X > 146));

        var under = Assert.Single(Undersides.Of(Table));
        Assert.Equal((900, 10, 90), (Math.Round(under.Area), Math.Round(under.Height), Math.Round(under.Lean)));
        var marked = bare.Parts[0] with { Part = bare.Parts[0].Part with { Marks = [new() { Wanted = true, Faces = under.Faces }] } };
        Assert.NotEqual(0, Held(bare with { Parts = [marked] }, p => p.X < 144));
        var against = bare.Parts[0] with { Part = bare.Parts[0].Part with { Marks = [new() { Wanted = false, Faces = under.Faces }] } };
        Assert.Equal(0, Held(supported with { Parts = [against] }, _ => true));
    }

    [Fact]
    public void What_begins_in_the_air_is_told_with_layer_and_place()
    {
        var hook = Joined(Block.Of(6, 20, 20), Placed(Block.Of(20, 20, 3), 0, 0, 20), Placed(Block.Of(4, 20, 6), 16, 0, 14));
        var finding = Assert.Single(Slice(hook, Plain).Findings, f => f.Rule == "island-in-air");
        Assert.StartsWith("part: layer 71 (14.2 mm up) begins a piece of 80 mm² in the air at X 158, Y 100", finding.Message,
            StringComparison.Ordinal);
        Assert.DoesNotContain(Slice(hook, Plain with { Supports = new() { Pattern = SupportPattern.Crossed } }).Findings,
            f => f.Rule == "island-in-air");
    }

    [Fact]
    public void A_brim_holds_the_foot_outside_inside_or_where_it_is_small()
    {
        double Brim(BrimPlace place, Mesh mesh) =>
            Plastic(Slice(mesh, Plain with { Brim = new() { Place = place, Width = 4 } }).Layers, p => p.Kind == PathKind.Brim) / 0.2;
        var block = Block.Of(20, 20, 3);
        Assert.Equal(28 * 28 - 20 * 20 - (4 - Math.PI) * 16, Brim(BrimPlace.Outer, block), 8.0);
        Assert.Equal(0, Brim(BrimPlace.None, block));
        Assert.Equal(0, Brim(BrimPlace.Inner, block));
        Assert.Equal(0, Brim(BrimPlace.SmallFeet, block));
        Assert.True(Brim(BrimPlace.SmallFeet, Block.Of(4, 4, 30)) > 50);
        var ring = Solids.Torus(20, 6, 24, 48);
        Assert.True(Brim(BrimPlace.Both, ring) > Brim(BrimPlace.Outer, ring) && Brim(BrimPlace.Inner, ring) > 50);
    }

    [Fact]
    public void A_brim_stays_off_the_foot_of_the_next_part()
    {
        var recipe = Plain with { Brim = new() { Place = BrimPlace.Outer, Width = 6 } };
        var job = Job(Block.Of(20, 20, 3), recipe);
        job = job with { Parts = [job.Parts[0], job.Parts[0] with { Part = job.Parts[0].Part with { Name = "next", X = 173 } }] };
        var brim = Engine.Slice(job).Layers[0].Paths.Where(p => p.Kind == PathKind.Brim).ToArray();
        Assert.True(brim.Sum(p => p.Length) > 500);
        var feet = Shapes.Rectangle(140, 90, 20, 20).Union(Shapes.Rectangle(163, 90, 20, 20));
        Assert.All(brim, path => Assert.False(Inked(path, 0.01).Intersects(feet)));
    }

    [Fact]
    public void A_raft_lifts_the_part_and_a_skirt_goes_on_until_the_nozzle_is_primed()
    {
        var block = Block.Of(20, 20, 3);
        var raft = Slice(block, Plain with { Raft = new() { Layers = 3, Gap = 0.15 } }).Layers;
        Assert.Equal(18, raft.Count);
        Assert.All(raft.Take(3), l => Assert.All(l.Paths, p => Assert.Equal(PathKind.Raft, p.Kind)));
        Assert.Equal(0.6 + 0.15 + 0.2, raft[3].Place.Top, 1e-9);
        Assert.DoesNotContain(raft.Skip(3).SelectMany(l => l.Paths), p => p.Kind == PathKind.Raft);

        var skirted = Slice(block, Plain with { Skirt = new() { Rounds = 1, LeastLength = 500, Layers = 2 } }).Layers;
        Assert.InRange(skirted[0].Paths.Where(p => p.Kind == PathKind.Skirt).Sum(p => p.Length), 500, 700);
        Assert.Contains(skirted[1].Paths, p => p.Kind == PathKind.Skirt);
        Assert.DoesNotContain(skirted[2].Paths, p => p.Kind == PathKind.Skirt);
    }

    [Fact]
    public void A_zone_has_settings_of_its_own_and_the_later_wins()
    {
        var left = new BoxZone
        {
            Name = "left",
            X = 140,
            Y = 100,
            Width = 20,
            Depth = 40,
            Height = 30,
            Settings = Departing(("/infill/density", 0.6))
        };
        var corner = new CylinderZone
        {
            Name = "corner",
            X = 135,
            Y = 100,
            Radius = 8,
            Height = 30,
            Settings = Departing(("/infill/density", 0))
        };
        var job = Job(Block.Of(40, 40, 4), Plain with { TopLayers = 0, BottomLayers = 0, Infill = new() { Density = 0.1 } });
        double Length(SliceJob sliced, double from, double to) => Engine.Slice(sliced).Layers.SelectMany(l => l.Paths)
            .Where(p => p.Kind == PathKind.Infill).SelectMany(p => p.Points.Zip(p.Points.Skip(1)))
            .Sum(s => Shapes.Rectangle(from, 0, to - from, 200)
            .Intersection(Plane.Factory.CreateLineString([new(s.First.X, s.First.Y), new(s.Second.X, s.Second.Y)])).Length);
        var zoned = job with { Zones = [new(left)] };
        Assert.InRange(Length(zoned, 130, 150) / Length(job, 130, 150), 5, 7);
        Assert.Equal(1, Length(zoned, 150, 170) / Length(job, 150, 170), 0.25);
        Assert.DoesNotContain(Engine.Slice(zoned with { Zones = [new(left), new(corner)] }).Layers.SelectMany(l => l.Paths),
            p => p.Kind == PathKind.Infill && p.Points.Any(q => q.To(new Point(135, 100)) < 7.5));
        Assert.Contains(Engine.Slice(zoned with { Zones = [new(corner), new(left)] }).Layers.SelectMany(l => l.Paths),
            p => p.Kind == PathKind.Infill && p.Points.Any(q => q.To(new Point(135, 100)) < 7.5));
    }

    [Fact]
    public void A_zone_of_heights_holds_everywhere_between_them()
    {
        var zone = new HeightsZone { Name = "foot", X = 9999, Z = 1, Height = 2, Settings = Departing(("/walls", 3)) };
        var job = Job(Block.Of(30, 30, 4), Plain with { Walls = 1, Infill = new() { Density = 0 }, TopLayers = 0, BottomLayers = 0 });
        var layers = Engine.Slice(job with { Zones = [new(zone)] }).Layers;
        Assert.All(layers, l => Assert.Equal(l.Place.Middle is > 1 and < 3 ? 3 : 1, l.Paths.Count));
        Assert.Contains(layers, l => l.Paths.Count == 3);
    }

    [Fact]
    public void More_walls_in_a_zone_are_cut_at_its_edge()
    {
        var zone = new BoxZone
        {
            Name = "screw",
            X = 140,
            Y = 100,
            Width = 20,
            Depth = 60,
            Height = 30,
            Settings = Departing(("/walls", 5))
        };
        var layer = Engine.Slice(Job(Block.Of(40, 40, 2), Plain with { Walls = 2 }) with { Zones = [new(zone)] }).Layers[5];
        var inner = layer.Paths.Where(p => p.Kind == PathKind.InnerWall).SelectMany(p => p.Points).ToArray();
        Assert.Single(inner.Where(p => p.X > 150.1).Select(p => Math.Round(170 - p.X, 2)).Where(d => d < 3).Distinct());
        Assert.Equal(4, inner.Where(p => p.X < 149.9).Select(p => Math.Round(p.X - 130, 2)).Where(d => d < 3).Distinct().Count());
    }

    [Fact]
    public void A_nozzle_that_the_card_does_not_have_is_refused_at_the_part_that_names_it()
    {
        var job = Job(Block.Of(20, 20, 3), Plain);
        var part = job.Parts[0] with { Part = job.Parts[0].Part with { Nozzles = ["n9"] } };
        foreach (var sequence in Enum.GetValues<Sequence>())
        {
            var refused = Engine.Slice(job with { Parts = [part], Sequence = sequence });
            Assert.False(refused.Sliced);
            Assert.Equal("/parts/0/nozzles", Assert.Single(refused.Findings, f => f.Rule == "no-such-nozzle").Pointer);
        }
    }

    [Fact]
    public void A_part_departs_from_the_recipe_and_what_belongs_to_the_whole_print_is_refused()
    {
        var job = Job(Block.Of(20, 20, 3), Plain);
        SliceResult With(params (string, object)[] settings) =>
            Engine.Slice(job with { Parts = [job.Parts[0] with { Part = job.Parts[0].Part with { Settings = Departing(settings) } }] });
        Assert.Equal(4, With(("/walls", 4)).Layers[8].Paths.Count(p => p.Kind is PathKind.OuterWall or PathKind.InnerWall));
        foreach (var (pointer, value) in new (string, object)[] { ("/layers/first", 0.3), ("/walls", -1), ("/wals", 3),
            ("/speeds/outerWall", "fast") })
        {
            var refused = With((pointer, value));
            Assert.False(refused.Sliced);
            Assert.Contains(refused.Findings, f => f.Rule == "departure-refused"
                && f.Pointer!.StartsWith("/parts/0/settings", StringComparison.Ordinal));
        }
    }

    [Theory, InlineData(Seam.Back), InlineData(Seam.Aligned), InlineData(Seam.Sharpest), InlineData(Seam.Scattered)]
    public void Rings_begin_at_their_seam(Seam seam)
    {
        var layers = Slice(Solids.Cylinder(10, 6, 90), Plain with { Wall = new() { Seam = seam } }).Layers;
        var starts = layers.Select(l => l.Paths.Single(p => p.Kind == PathKind.OuterWall).Points[0]).ToArray();
        if (seam == Seam.Back) Assert.All(starts, s => Assert.Equal(100 + 10 - 0.225, s.Y, 0.03));
        if (seam == Seam.Aligned) Assert.All(starts, s => Assert.True(s.To(starts[0]) < 1e-3));
        if (seam == Seam.Scattered) Assert.True(starts.Distinct().Count() > 15);
        if (seam != Seam.Sharpest) return;
        var drop = Solids.Prism([.. Enumerable.Range(0, 60).Select(i => (10 * Math.Cos(i * Math.PI / 30), 10 * Math.Sin(i * Math.PI / 30)))
            .Select(p => p.Item1 > 9.9 ? (14.0, 0.0) : p)], 2);
        Assert.All(Slice(drop, Plain with { Wall = new() { Seam = seam } }).Layers,
            l => Assert.Equal(l.Paths.SelectMany(p => p.Points)
            .Max(p => p.X), l.Paths.Single(p => p.Kind == PathKind.OuterWall).Points[0].X, 0.5));
    }

    [Fact]
    public void Walls_are_laid_from_the_inside_or_from_the_outside()
    {
        PathKind First(WallOrder order) =>
            Slice(Block.Of(20, 20, 2), Plain with { Wall = new() { Order = order } }).Layers[3].Paths[0].Kind;
        Assert.Equal((PathKind.InnerWall, PathKind.OuterWall), (First(WallOrder.InsideOut), First(WallOrder.OutsideIn)));
    }

    [Fact]
    public void A_top_runs_one_way_and_is_smoothed()
    {
        var layers = Slice(Block.Of(20, 20, 3), Plain with { Top = new() { OneDirection = true, Smooth = true } }).Layers;
        var top = layers[^1].Paths.Where(p => p.Kind == PathKind.Top).ToArray();
        Assert.True(top.Length > 20);
        Assert.All(top, p => Assert.True((p.Points[1].X - p.Points[0].X) * (top[0].Points[1].X - top[0].Points[0].X) > 0));
        Assert.InRange(Plastic([layers[^1]], p => p.Kind == PathKind.Smoothing) / Plastic([layers[^1]], p => p.Kind == PathKind.Top), 0.1,
            0.2);
        Assert.DoesNotContain(layers[^2].Paths, p => p.Kind is PathKind.Top or PathKind.Smoothing);
    }

    [Fact]
    public void Compensation_and_shrinkage_move_the_contour()
    {
        double Width(SliceJob job, int layer) => Engine.Slice(job).Layers[layer].Paths.SelectMany(p => p.Points)
            .Max(p => p.X) - Engine.Slice(job).Layers[layer].Paths.SelectMany(p => p.Points).Min(p => p.X) + 0.45;
        var job = Job(Block.Of(20, 20, 2), Plain);
        Assert.Equal(20, Width(job, 3), 1e-3);
        var compensated = job with { Recipe = Plain with { Compensation = new() { Xy = 0.1, FirstLayer = -0.25 } } };
        Assert.Equal(20.2, Width(compensated, 3), 1e-3);
        Assert.Equal(19.7, Width(compensated, 0), 1e-3);
        Assert.Equal(20 / 0.99, Width(job with { Filament = Cards.Petg with { Shrinkage = 0.01 } }, 3), 1e-3);
    }

    [Fact]
    public void A_spiral_climbs_without_a_break()
    {
        var result = Slice(Solids.Cylinder(12, 6, 120), Plain with { Spiral = true, BottomLayers = 2 },
            Cards.Bare() with
            {
                Routines = new()
                {
                    Start = "G28\nM109 S235",
                    End = "G91\nG0 Z5\nG90\nG0 X10 Y10\nM104 S0\nM140 S0\nM84"
                }
            });
        Assert.DoesNotContain(result.Findings, f => f.Severity == Severity.Stop);
        Assert.All(result.Layers.Skip(2), l => Assert.True(Assert.Single(l.Paths).Climbs));
        var z = result.Run!.Moves.ToArray().Where(m => m.Extrudes).Select(m => m.To.Z).SkipWhile(h => h < 0.5).ToArray();
        Assert.All(z.Zip(z.Skip(1)), pair => Assert.InRange(pair.Second - pair.First, -1e-9, 0.02));
        Assert.Equal(6, z[^1], 1e-3);
        Assert.Equal("spiral-needs-one-part", Engine.Slice(Job(Block.Of(9, 9, 2), Plain with { Spiral = true }) is var job
            ? job with { Parts = [job.Parts[0], job.Parts[0] with { Part = job.Parts[0].Part with { X = 50 } }] }
            : null!).Findings[0].Rule);
    }

    [Fact]
    public void Small_layers_are_slowed_the_fan_follows_their_time_and_accelerations_are_said()
    {
        var filament = Cards.Petg with { Fan = new() { FromLayer = 2, Curve = [[5, 1], [20, 0.2]] } };
        var recipe = Plain with
        {
            Speeds = Plain.Speeds with { LeastLayerTime = 8, Least = 5, SlowLayers = 3 },
            Accelerations = new() { OuterWall = 400, Infill = 1200 }
        };
        var card = Cards.Bare() with { Firmware = Cards.Dunlin.Firmware };
        var result = Engine.Slice(Job(Block.Of(8, 8, 4), recipe, card) with { Filament = filament });
        var text = Encoding.UTF8.GetString(result.Gcode.Span);
        var layer = text[text.IndexOf("; layer 10 ", StringComparison.Ordinal)..text.IndexOf("; layer 11 ", StringComparison.Ordinal)];
        Assert.Contains("M204 P400", layer, StringComparison.Ordinal);
        Assert.Contains("M204 P1200", layer, StringComparison.Ordinal);
        var starts = result.Run!.Starts;
        var lines = text.Split('\n').Select((l, i) => (l, i)).Where(l => l.l.StartsWith("; layer ", StringComparison.Ordinal))
            .Select(l => l.i).ToArray();
        Assert.InRange(starts[lines[10]] - starts[lines[9]], 7.8, 11);
        // 8 s lie a fifth of the way from 5 s to 20 s: 0.84 of full, 214 of 255
        Assert.Contains("M106 S214", text, StringComparison.Ordinal);
        Assert.Equal([25, 25 + 15 / 3.0, 25 + 30 / 3.0, 40], Enumerable.Range(1, 4).Select(n => recipe.Speeds.OnLayer(40, n)));
    }

    [Fact]
    public void A_travel_that_can_stays_inside_and_needs_no_retraction()
    {
        // a C: from tip to tip the straight way leaves the part
        var c = Joined(Block.Of(40, 6, 3), Placed(Block.Of(6, 20, 3), 0, 0, 0), Placed(Block.Of(40, 6, 3), 0, 14, 0));
        double Pulls(bool inside) => Encoding.UTF8.GetString(
            Slice(c, Plain with { Retraction = Plain.Retraction with { StayInside = inside, Length = 1 } }).Gcode.Span).Split('\n')
            .Count(l => l.StartsWith("G1 E-1", StringComparison.Ordinal));
        Assert.True(Pulls(true) < 0.7 * Pulls(false), $"{Pulls(true)} of {Pulls(false)}");
    }

    [Fact]
    public void Changes_of_nozzle_prime_on_a_tower_within_a_shield()
    {
        var card = DemoParts.Card("avocet");
        var middle = card.Machine().Bed.Centroid;
        var (a, b) = (Block.Of(20, 20, 2), Block.Of(15, 15, 1));
        var ids = card.Head.Nozzles!.Select(n => n.Id).ToArray();
        var job = new SliceJob("two", card.Machine(), Cards.Petg,
            Plain with { NozzleChanges = new() { Tower = 12, Shield = true, Retraction = 6 } },
            [new(new TrialPart { Name = "a", File = "a", X = middle.X - 20, Y = middle.Y, Nozzles = [ids[0]] }, a, new Footprints(a)),
                new(new TrialPart { Name = "b", File = "b", X = middle.X + 20, Y = middle.Y, Nozzles = [ids[1]] }, b, new Footprints(b))])
        { Mode = new() { Kind = ModeKind.TwoMaterial } };
        var result = Engine.Slice(job);
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        Assert.DoesNotContain(result.Findings, f => f.Severity == Severity.Stop);
        foreach (var layer in result.Layers.Take(5))
        {
            var first = layer.Paths.Index().First(p => p.Item.Nozzle == layer.Paths[^1].Nozzle && p.Item.Nozzle != layer.Paths[0].Nozzle);
            Assert.Equal(PathKind.Tower, first.Item.Kind);
            Assert.InRange(Plastic([layer], p => p.Kind == PathKind.Tower), 10, 16);
            Assert.Contains(layer.Paths, p => p.Kind == PathKind.Shield);
        }
        Assert.DoesNotContain(result.Layers[^1].Paths, p => p.Kind is PathKind.Tower or PathKind.Shield);
        var near = job.Parts[0] with { Part = job.Parts[0].Part with { X = card.Machine().Usable.EnvelopeInternal.MinX + 11 } };
        Assert.Equal("no-room-for-shield", Engine.Slice(job with { Parts = [near, job.Parts[1]] }).Findings[0].Rule);
        Assert.Contains("E-6", Encoding.UTF8.GetString(result.Gcode.Span), StringComparison.Ordinal);
    }

    [Fact]
    public void The_file_is_named_by_a_pattern_and_filaments_bring_their_routines()
    {
        var recipe = Plain with { FileName = "{{ job.name }}/{{ machine.name }} {{ nozzle.diameter }}" };
        var job = Job(Block.Of(9, 9, 1), recipe) with
        { Filament = Cards.Petg with { Start = "M117 {{ filament.name }}", End = "M117 done" } };
        var result = Engine.Slice(job);
        Assert.Equal("test-Dunlin 0.4.gcode", result.FileName);
        var text = Encoding.UTF8.GetString(result.Gcode.Span);
        Assert.True(text.IndexOf("M117 Station PETG, grey", StringComparison.Ordinal) < text.IndexOf("; layers begin",
            StringComparison.Ordinal));
        Assert.True(text.IndexOf("M117 done", StringComparison.Ordinal) > text.IndexOf("; layers end", StringComparison.Ordinal));
        Assert.Equal("test-Station PETG, grey.gcode", Engine.Slice(job with { Recipe = Plain }).FileName);
    }

    [Fact]
    public void The_same_bytes_come_from_one_thread_and_from_many()
    {
        var recipe = Cards.Standard with
        { Supports = new() { Pattern = SupportPattern.Branching }, Infill = new() { Pattern = InfillPattern.Gyroid } };
        var job = DemoParts.Job(Cards.Dunlin, "cable-gland") with { Recipe = recipe };
        Assert.True(Engine.Slice(job with { Threads = 1 }).Gcode.Span.SequenceEqual(Engine.Slice(job with { Threads = 4 }).Gcode.Span));
    }

    [Fact]
    public void Nothing_of_a_random_part_leaves_its_contour_and_nothing_else_leaves_the_ground() => Gen.Select(
        Gen.Double[4, 16].Array[5, 12], Gen.Enum<InfillPattern>(), Gen.Enum<SupportPattern>(), Gen.Enum<BrimPlace>(), Gen.Double[0, 30],
            Gen.Bool).Sample((radii, pattern, supports, brim, lean, raft) =>
    {
        var n = radii.Length;
        var upright = Solids.Prism([.. radii.Select((r, i) => (r * Math.Cos(2 * Math.PI * i / n), r * Math.Sin(2 * Math.PI * i / n)))], 9);
        var mesh = Placement.Oriented(upright, null, new Tilt { X = lean });
        var post = Cards.Box("post", KeepOutKind.Obstacle, 92, 80, 6, 30, 20);
        var card = Cards.Bare(120, 110) with { Envelope = Cards.Bare(120, 110).Envelope with { KeepOuts = [post] } };
        var recipe = Plain with
        {
            Infill = new() { Pattern = pattern },
            Supports = new() { Pattern = supports },
            Brim = new() { Place = brim, Width = 3 },
            Raft = new() { Layers = raft ? 2 : 0 }
        };
        var result = Engine.Slice(Job(mesh, recipe, card, 60, 50));
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        var contour = new Footprints(mesh).Below(double.PositiveInfinity, 60, 50, 0).Buffer(0.45 / 2 + 0.01);
        var ground = Plane.Difference(Shapes.Rectangle(0, 0, 120, 110), Shapes.Rectangle(92, 80, 6, 30)).Buffer(0.01);
        foreach (var path in result.Layers.SelectMany(l => l.Paths))
            Assert.True((path.Kind.IsPart() ? contour : ground).Covers(Inked(path, path.Width / 2 - 0.2)), $"{path.Kind} {path.Width}");
    }, iter: 30);

    public static TheoryData<string> DemoCards => [.. Directory.EnumerateFiles(Path.Combine(DemoParts.Root, "demo", "cards"), "*.json")
        .Select(f => Path.GetFileNameWithoutExtension(f)!).Where(c => c != "sanderling").Order()];

    [Theory, MemberData(nameof(DemoCards))]
    public void On_every_demo_card_the_program_runs_to_its_end_within_the_estimate(string name)
    {
        var card = DemoParts.Card(name);
        var bed = Cards.Petg.Bed;
        if (card.Heat.Bed?.Best is { } best && best < bed.First + 2) bed = bed with { First = best - 10, Others = best - 10 };
        var job = DemoParts.Job(card, "net-ring-joint") with { Filament = Cards.Petg with { Bed = bed } };
        var diameter = card.Head.Nozzles![0].Diameter!.Value;
        job = job with
        {
            Recipe = job.Recipe with
            {
                LineWidthOfNozzle = 1.1,
                Layers = new() { Others = diameter / 2 },
                Supports = new() { Pattern = SupportPattern.Crossed },
                Infill = new() { Pattern = InfillPattern.Gyroid }
            }
        };
        var result = Engine.Slice(job);
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        Assert.DoesNotContain(result.Findings, f => f.Severity == Severity.Stop);
        var header = Encoding.UTF8.GetString(result.Gcode.Span[..600]);
        var said = System.Text.RegularExpressions.Regex.Match(header, @"; estimate: (\d+) h (\d+) min (\d+) s");
        var estimate = 3600 * int.Parse(said.Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture)
            + 60 * int.Parse(said.Groups[2].Value, System.Globalization.CultureInfo.InvariantCulture)
            + int.Parse(said.Groups[3].Value, System.Globalization.CultureInfo.InvariantCulture);
        var again = SimulatedMachine.Run(card.Machine(), result.Gcode);
        Assert.Equal(1, again.TotalSeconds / estimate, 0.01);
    }

    // A brim of 5 mm round a 20 mm square whose left side stands 2 mm from the edge: 3 mm of it are missing there.
    [Fact]
    public void A_brim_that_is_cut_off_says_how_much_of_it_is_laid()
    {
        var recipe = Engine.Plain with { Brim = new() { Place = BrimPlace.Outer, Width = 5 } };
        Assert.DoesNotContain(Engine.Slice(Solids.Box(20, 20, 2), recipe).Findings, f => f.Rule == "foot-cut-off");
        var near = Engine.Slice(Engine.Job(Solids.Box(20, 20, 2), recipe, x: 12));
        var cut = Assert.Single(near.Findings, f => f.Rule == "foot-cut-off");
        Assert.Equal((Findings.Severity.Note, "/recipe/brim/width"), (cut.Severity, cut.Pointer));
        Assert.Contains("The brim of part does not fit whole", cut.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_part_of_which_nothing_is_laid_is_a_stop_beside_others()
    {
        var job = Engine.Job(Solids.Box(20, 20, 2), Engine.Plain);
        var blade = Solids.Box(20, 0.02, 2);
        var two = job with
        {
            Parts = [.. job.Parts, new PartToSlice(new TrialPart { Name = "blade", File = "blade", X = 150, Y = 150 }, blade,
                new Footprints(blade))],
        };
        Assert.Contains(Engine.Slice(two).Findings,
            f => f is { Rule: "nothing-of-part", Severity: Findings.Severity.Stop }
                && f.Message.Contains("blade", StringComparison.Ordinal));
        Assert.DoesNotContain(Engine.Slice(job).Findings, f => f.Rule == "nothing-of-part");
    }
}

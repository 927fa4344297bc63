using System.Text;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Rules;
using MillCard.Core.Settings;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;
using Xunit;

namespace MillCard.Core.Tests;

public class SlicerTests
{
    private static SliceResult Slice(Mesh mesh, Card? card = null, Recipe? recipe = null, double x = 90, double y = 80) =>
        Engine.Slice(new SliceJob("test", (card ?? Cards.Dunlin).Machine(), Cards.Petg, recipe ?? Cards.Standard,
            [new PartToSlice(new TrialPart { Name = "part", File = "part", X = x, Y = y }, mesh, new Footprints(mesh))]));

    public static TheoryData<string> Parts => [.. DemoParts.Files.Select(f => Path.GetFileNameWithoutExtension(f))];

    [Theory, MemberData(nameof(Parts))]
    public void Every_demo_part_is_sliced_and_runs_without_a_stop(string part)
    {
        var result = Slice(DemoParts.Read(part));
        Assert.True(result.Sliced);
        Assert.DoesNotContain(result.Findings, f => f.Severity == Severity.Stop);
        Assert.InRange(result.Run!.TotalSeconds, 600, 86400);
        Assert.Equal((int)Math.Ceiling((new Footprints(DemoParts.Read(part)).Height - 0.24) / 0.2 - 0.5) + 1, result.Layers.Count);
    }

    [Theory, InlineData("absolute"), InlineData("relative")]
    public void Solid_parts_hold_as_much_plastic_as_the_mesh_has_volume(string mode)
    {
        var card = Cards.Dunlin with
        {
            Firmware = Cards.Dunlin.Firmware with
            {
                Extrusion = mode == "absolute" ? ExtrusionMode.Absolute
            : ExtrusionMode.Relative
            }
        };
        var recipe = Cards.Standard with
        {
            Infill = new() { Density = 1 },
            Skirt = new() { Rounds = 0 },
            Layers = new() { First = 0.2, Others = 0.2 }
        };
        foreach (var mesh in new[] { Solids.Box(20, 20, 20), Solids.Cylinder(15, 10), Solids.Torus(20, 6, 96, 192) })
        {
            var plastic = Slice(mesh, card, recipe).Layers.Sum(l => l.Paths.Sum(p => p.VolumeAt(l.Place.Height)));
            Assert.Equal(1, plastic / mesh.Volume(), 0.02);
        }
    }

    [Theory, InlineData(FlavourId.Marlin, "M203 X180 Y180 Z12 E60\nM201 X1500 Y1200 Z100 E3000\nM205 J0.02\n"),
        InlineData(FlavourId.RepRapFirmware, "M203 X10800 Y10800 Z720 E3600\nM201 X1500 Y1200 Z100 E3000\n")]
    public void Limits_that_a_card_states_are_sent_in_the_flavours_unit(FlavourId flavour, string lines)
    {
        var card = Cards.Dunlin with
        {
            Firmware = Cards.Dunlin.Firmware with { Flavour = flavour },
            Motion = Cards.Dunlin.Motion with { Limits = LimitsUse.Stated }
        };
        Assert.Contains(lines, Encoding.UTF8.GetString(Slice(Solids.Box(10, 10, 1), card).Gcode.Span), StringComparison.Ordinal);
        Assert.DoesNotContain("M203", Encoding.UTF8.GetString(Slice(Solids.Box(10, 10, 1)).Gcode.Span), StringComparison.Ordinal);
    }

    [Fact]
    public void A_filament_that_must_not_be_pulled_back_is_not_whatever_the_recipe_says()
    {
        var job = DemoParts.Job(Cards.Dunlin,
            "cable-gland") with
        { Recipe = Cards.Standard with { Retraction = Cards.Standard.Retraction with { Length = 2 } } };
        static int Pulled(SliceResult sliced) =>
            sliced.Run!.MoveList.Count(m => m.Filament < 0 && m.Line > sliced.Run.LayersBegin && m.Line < sliced.Run.LayersEnd);
        Assert.True(Pulled(Engine.Slice(job)) > 10);
        Assert.Equal(0, Pulled(Engine.Slice(job with { Filament = Cards.Petg with { Retraction = new() { Length = 0 } } })));
        var setting = ResolvedSettings.Of(job with { Filament = Cards.Petg with { Retraction = new() { Length = 0 } } })
            .First(s => s.Pointer == "/retraction/length");
        Assert.Equal(("0", GivenBy.Filament), (setting.Value, setting.From));
    }

    [Theory]
    [InlineData(2.85, 1.75, "265 %")]
    [InlineData(1.75, 2.85, "38 %")]
    public void A_filament_that_is_not_what_the_machine_is_fed_stops(double fed, double filament, string share)
    {
        var card = Cards.Dunlin with
        {
            Head = Cards.Dunlin.Head with
            {
                Nozzles = [
            Cards.Dunlin.Head.Nozzles![0] with { FilamentDiameter = fed }]
            }
        };
        var job = DemoParts.Job(card, "cable-gland") with { Filament = Cards.Petg with { Diameter = filament } };
        var sliced = Engine.Slice(job);
        Assert.False(sliced.Sliced);
        var finding = Assert.Single(sliced.Findings, f => f.Rule == "filament-diameter-mismatch");
        Assert.Equal((Severity.Stop, "/filament"), (finding.Severity, finding.Pointer));
        Assert.Contains(share, finding.Why);

        // by volume: what a program for this filament pushes on a machine that is fed the other, against what it pushes on one that is fed
        // it
        var right = Engine.Slice(job with
        {
            Machine = (
            card with { Head = card.Head with { Nozzles = [card.Head.Nozzles[0] with { FilamentDiameter = filament }] } }).Machine()
        });
        Assert.True(right.Sliced);
        var (asked, pushed) = (right.Run!.Filament * ExtrudedLine.FilamentArea(filament),
            right.Run.Filament * ExtrudedLine.FilamentArea(fed));
        Assert.Equal(share, $"{100 * pushed / asked:0} %");
        var brought = RuleBook.Check(SimulatedMachine.Run(card.Machine(), right.Gcode, [job.Filament]), card.Machine());
        Assert.Contains(brought, f => f is { Rule: "filament-diameter-mismatch", Severity: Severity.Stop });
    }

    [Fact]
    public void The_program_feeds_what_the_lines_need()
    {
        var recipe = Cards.Standard with { Retraction = new() { Length = 0 } };
        var card = Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = "G28\nM109 S235\n", End = "M104 S0\n" } };
        var result = Slice(Solids.Box(20, 20, 5), card, recipe);
        var needed = result.Layers.Sum(l => l.Paths.Sum(p => Engine.Laid(p) * ExtrudedLine.FeedPerMm(p.Width, l.Place.Height, 1.75)));
        Assert.Equal(needed, result.Run!.Filament, needed * 0.001);
    }

    [Fact]
    public void A_solid_cube_fills_each_layers_area()
    {
        var recipe = Cards.Standard with { Infill = new() { Density = 1 }, Skirt = new() { Rounds = 0 } };
        foreach (var layer in Slice(Solids.Box(20, 20, 20), recipe: recipe).Layers.Where((_, i) => i % 11 == 0))
        {
            var inked = Plane.Union([.. layer.Paths.Select(p => p.Points.Append(p.Closed ? p.Points[0] : p.Points[^1])
                .Select(q => new Coordinate(q.X, q.Y)).ToArray())
                .Select(c => (Shape)Plane.Factory.CreateLineString(c).Buffer(Cards.Standard.LineWidth!.Value / 2))]);
            Assert.True(Plane.Intersection(inked, Shapes.Rectangle(80, 70, 20, 20)).Area >= 0.98 * 400);
        }
    }

    [Fact]
    public void Nothing_is_laid_outside_the_part_by_more_than_half_a_line() =>
        Gen.Select(Gen.Double[3, 20].Array[5, 14], Gen.Int[0, 4], Gen.Double[0, 1]).Sample((radii, walls, density) =>
    {
        var n = radii.Length;
        var mesh = Solids.Prism([.. radii.Select((r, i) => (r * Math.Cos(2 * Math.PI * i / n), r * Math.Sin(2 * Math.PI * i / n)))], 3);
        var recipe = Cards.Standard with { Walls = walls, Infill = new() { Density = density }, Skirt = new() { Rounds = 0 } };
        // a line 0.4 wide lies within half of 0.45 beyond the part where its middle lies 0.2 less far out
        var contour = PreparedGeometryFactory.Prepare(
            new Footprints(mesh).Below(double.PositiveInfinity, 90, 80, 0).Buffer(0.45 / 2 + 0.01 - 0.2));
        foreach (var path in Slice(mesh, recipe: recipe).Layers.SelectMany(l => l.Paths))
            Assert.True(contour.Covers(Plane.Factory.CreateLineString(
                [.. path.Points.Append(path.Closed ? path.Points[0] : path.Points[^1]).Select(p => new Coordinate(p.X, p.Y))])));
    }, iter: 40);

    [Fact]
    public void The_outer_wall_runs_half_a_line_inside_the_contour()
    {
        var layers = Slice(Solids.Cylinder(10, 4)).Layers;
        var wall = layers[5].Paths.Single(p => p.Kind == PathKind.OuterWall);
        Assert.Equal(2 * Math.PI * (10 - 0.225), wall.Length, 0.02);
    }

    [Fact]
    public void Top_and_bottom_are_solid_and_the_middle_is_sparse()
    {
        var layers = Slice(Solids.Box(30, 30, 10)).Layers;
        Assert.All(layers.Take(4).Concat(layers.TakeLast(5)), l => Assert.DoesNotContain(l.Paths, p => p.Kind == PathKind.Infill));
        Assert.All(layers.Skip(4).SkipLast(5), l => Assert.DoesNotContain(l.Paths, p => p.Kind == PathKind.Solid));
    }

    [Theory, InlineData(0.1), InlineData(0.2), InlineData(0.5)]
    public void Infill_takes_its_share_of_the_volume(double density)
    {
        var recipe = Cards.Standard with
        {
            Walls = 0,
            TopLayers = 0,
            BottomLayers = 0,
            Infill = new() { Density = density },
            Skirt = new() { Rounds = 0 },
            Layers = new() { First = 0.2, Others = 0.2 }
        };
        var plastic = Slice(Solids.Box(120, 120, 2), Cards.Bare(), recipe, 150,
            100).Layers.Sum(l => l.Paths.Sum(p => p.Length * ExtrudedLine.Area(p.Width, l.Place.Height)));
        Assert.Equal(density, plastic / (120 * 120 * 2), 0.03);
    }

    [Fact]
    public void The_same_job_gives_the_same_bytes() =>
        Assert.True(Slice(DemoParts.Read("cable-gland")).Gcode.Span.SequenceEqual(Slice(DemoParts.Read("cable-gland")).Gcode.Span));

    [Fact]
    public void The_header_and_the_routines_stand_in_the_program()
    {
        var text = Encoding.UTF8.GetString(Slice(Solids.Box(20, 20, 5)).Gcode.Span);
        Assert.StartsWith("; job: test\n; card: Dunlin\n; filament: Station PETG, grey\n; recipe: Station standard\n; layers: 25\n; "
            + "estimate: ", text, StringComparison.Ordinal);
        Assert.Contains("M190 S75\n", text, StringComparison.Ordinal);
        Assert.DoesNotContain("{{", text, StringComparison.Ordinal);
    }

    [Fact]
    public void Travels_across_an_obstacle_are_lifted_over_it()
    {
        // a part to either side of a post: the way between them leads across it
        var post = Cards.Box("post", KeepOutKind.Obstacle, 86, 40, 8, 80, 9);
        var card = Cards.Dunlin with { Envelope = Cards.Dunlin.Envelope with { KeepOuts = [post] } };
        var mesh = Solids.Box(20, 20, 4);
        var prints = new Footprints(mesh);
        var result = Engine.Slice(new SliceJob("two", card.Machine(), Cards.Petg, Cards.Standard,
            [new(new TrialPart { Name = "a", File = "a", X = 40, Y = 80 }, mesh, prints),
                new(new TrialPart { Name = "b", File = "b", X = 140, Y = 80 }, mesh, prints)]));
        Assert.True(result.Sliced, string.Join('\n', result.Findings.Select(f => f.Message)));
        Assert.DoesNotContain(result.Findings, f => f.Rule == "through-keep-out");
        Assert.Contains("Z10", Encoding.UTF8.GetString(result.Gcode.Span), StringComparison.Ordinal);
    }

    [Fact]
    public void What_does_not_fit_or_cannot_be_written_is_refused_with_a_finding()
    {
        Assert.Contains(Slice(Solids.Box(20, 20, 5), x: 6).Findings, f => f.Rule == "does-not-fit"
            && f.Message.Contains("cures", StringComparison.Ordinal));
        var broken = Slice(Solids.Box(20, 20, 5), Cards.Dunlin with { Routines = new() { Start = "G28\n{{ heat.sofa }}" } });
        Assert.False(broken.Sliced);
        Assert.Contains("line 2, column 4", Assert.Single(broken.Findings).Message, StringComparison.Ordinal);
        Assert.Equal("line-higher-than-wide",
            Slice(Solids.Box(20, 20, 5), recipe: Cards.Standard with { Layers = new() { Others = 0.6 } }).Findings[0].Rule);
    }

    [Fact]
    public void A_cancelled_slice_ends() =>
        Assert.ThrowsAny<OperationCanceledException>(() =>
            Engine.Slice(new SliceJob("x", Cards.Dunlin.Machine(), Cards.Petg, Cards.Standard,
            [new(new TrialPart { Name = "a", File = "a", X = 90, Y = 80 }, Solids.Box(20, 20, 5), new Footprints(Solids.Box(20, 20, 5)))]),
                stop: new CancellationToken(true)));
}

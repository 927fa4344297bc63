using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Paths;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Settings of fill, tops, bridges and what stands round parts, seen in the program's own text.</summary>
public class FillSettingTests
{
    private static ReadMove[] Read(Mesh mesh, Recipe recipe) => ReadMoves.Of(Slice(mesh, recipe).Gcode);

    private static double Area => Math.PI * Cards.Petg.Diameter!.Value * Cards.Petg.Diameter.Value / 4;

    [Theory, InlineData(0, 0, 90), InlineData(45, 45, 135), InlineData(70, 70, 160)]
    public void Straight_fill_runs_in_its_direction_and_across_it(double angle, double even, double odd)
    {
        var moves = Read(Block.Of(30, 30, 3), Plain with { Walls = 0, Infill = new() { Density = 0.3, Angle = angle } });
        foreach (var (layer, direction) in new[] { (1, even), (2, odd), (8, odd), (9, even) })
        {
            var straight = moves.Laying(layer).Where(m => m.Length > 5).ToArray();
            Assert.True(straight.Length > 5);
            Assert.All(straight, m => Assert.InRange(Math.Abs(m.Turned - direction) % 180, 0, 0.1));
        }
    }

    [Fact]
    public void Rows_of_infill_run_on_along_the_wall_as_far_as_their_anchors_reach()
    {
        var recipe = Plain with { Walls = 0, TopLayers = 0, BottomLayers = 0, Infill = new() { Density = 0.2, Angle = 0 } };
        ReadMove[] Layer(double? anchor) =>
            Read(Block.Of(30, 30, 2), recipe with { Infill = recipe.Infill with { Anchor = anchor } }).Laying(3);
        var joined = Layer(null);
        // rows of 2 mm or so apart, joined at their ends all the way
        var rows = joined.Where(m => m.Length > 10).ToArray();
        var apart = rows.Select(m => m.Middle.Y).Order().Chunk(2).First() is [var one, var next] ? next - one : 0;
        Assert.Equal(rows.Length - 1, joined.Count(m => Math.Abs(m.Length - apart) < 0.01));
        Assert.Single(joined.Runs());

        // half of the way is enough for two anchors to meet
        Assert.Equal(joined.Select(m => (m.From, m.To)), Layer(apart / 2 + 0.001).Select(m => (m.From, m.To)));

        var anchored = Layer(0.4);
        Assert.Equal(rows.Length, anchored.Count(m => m.Length > 10));
        Assert.Equal(2 * (rows.Length - 1), anchored.Count(m => Math.Abs(m.Length - 0.4) < 0.002));
        Assert.Equal(rows.Length, anchored.Runs().Count);

        var bare = Layer(0);
        Assert.Equal(rows.Length, bare.Length);
        Assert.All(bare, m => Assert.True(m.Length > 10));
    }

    [Fact]
    public void Infill_near_the_skin_has_a_share_of_its_own_and_the_middle_keeps_the_usual()
    {
        var recipe = Plain with
        {
            Walls = 1,
            TopLayers = 0,
            BottomLayers = 0,
            Infill = new() { Density = 0.1, NearSkin = 0.5, SkinDepth = 5 }
        };
        var layer = Read(Block.Of(40, 40, 16), recipe).Laying(40);
        double Share(double from, double to)
        {
            bool Within(ReadMove m) => Math.Max(Math.Abs(m.Middle.X - 150), Math.Abs(m.Middle.Y - 100)) is var off
                && off > from && off < to;
            // moves cut to bits, so that long ones count where they lie
            var fed = layer.SelectMany(m => Enumerable.Range(0, 200).Select(i => m with
            {
                From = new(m.From.X + (m.To.X - m.From.X) * i / 200, m.From.Y + (m.To.Y - m.From.Y) * i / 200),
                To = new(m.From.X + (m.To.X - m.From.X) * (i + 1) / 200, m.From.Y + (m.To.Y - m.From.Y) * (i + 1) / 200),
                Fed = m.Fed / 200,
            })).Where(Within).Sum(m => m.Fed);
            return fed * Area / (4 * (to * to - from * from) * 0.2);
        }
        Assert.Equal(0.5, Share(15.5, 19), 0.05);
        Assert.Equal(0.1, Share(0, 14.5), 0.02);
        // under a top all of a layer is skin
        var under = Read(Block.Of(40, 40, 16), recipe).Laying(75);
        Assert.Equal(0.5, under.Where(m => m.Length > 0).Sum(m => m.Fed) * Area / (40 * 40 * 0.2), 0.08);
    }

    [Theory, InlineData(0.8), InlineData(1.25)]
    public void A_bridges_strands_hold_their_own_share(double flow)
    {
        var nozzle = Cards.Dunlin.Head.Nozzles![0].Diameter!.Value;
        var bridge = Slice(Solids.Gate, Plain with { BridgeFlow = flow, Speeds = Plain.Speeds with { Bridge = 17 } });
        // without the walls, which hang too
        var strands = ReadMoves.Of(bridge.Gcode).Laying(41)
            .Where(m => m.Speed == 17 && m.Length > 10 && Math.Abs(m.Middle.Y - 100) < 13).ToArray();
        Assert.NotEmpty(strands);
        Assert.All(strands, m => Assert.Equal(flow * Math.PI * nozzle * nozzle / 4, m.Fed * Area / m.Length, 0.002));
    }

    [Fact]
    public void The_second_pass_has_its_own_plastic_and_distance()
    {
        var recipe = Plain with { Top = new() { Smooth = true, SmoothPlastic = 0.3, SmoothSpacing = 0.25 } };
        var (moves, nozzle) = (Read(Block.Of(20, 20, 2), recipe).Laying(10), Cards.Dunlin.Head.Nozzles![0].Diameter!.Value);
        var full = ExtrudedLine.Area(recipe.LineWidth!.Value, 0.2);
        var pass = moves.Where(m => m.Length > 2 && m.Fed * Area / m.Length < full / 2).ToArray();
        Assert.All(pass, m => Assert.Equal(0.3 * 0.25 * nozzle * 0.2, m.Fed * Area / m.Length, 0.0005));
        // parallel lines through the middle lie a quarter of the nozzle apart
        var across = pass.Where(m => m.Length > 10).Select(m => (m.Middle.X - m.Middle.Y) / Math.Sqrt(2)).Order().ToArray();
        Assert.All(across.Zip(across.Skip(1)), p => Assert.Equal(0.25 * nozzle, p.Second - p.First, 0.01));
        Assert.True(across.Length > 10);
    }

    [Fact]
    public void A_shield_against_draught_stands_round_the_whole_part_up_to_its_top()
    {
        var recipe = Plain with { Skirt = new() { Rounds = 1, Gap = 2, ToTop = true } };
        var moves = Read(Solids.Mushroom, recipe);
        for (var layer = 1; layer <= 20; layer++)
        {
            var ring = moves.Laying(layer).Runs()[0];
            Assert.All(ring, m => Assert.Equal(2 + 0.225, Math.Sqrt(Math.Pow(Math.Max(0, Math.Abs(m.To.X - 150) - 12), 2)
                + Math.Pow(Math.Max(0, Math.Abs(m.To.Y - 100) - 12), 2)), 0.01));
            Assert.InRange(ring.Sum(m => m.Length), 4 * 24 + 2 * Math.PI * 2, 4 * 24 + 2 * Math.PI * 3);
        }
    }

    [Fact]
    public void A_high_skirt_keeps_clear_of_what_juts_out_below_its_top()
    {
        static double Reach(int layers) => Read(Solids.Mushroom, Plain with { Skirt = new() { Rounds = 1, Gap = 2, Layers = layers } })
            .Laying(1).Runs()[0].Max(m => m.To.X - 150);
        Assert.Equal(4 + 2.225, Reach(1), 0.1);
        Assert.Equal(4 + 2.225, Reach(10), 0.1);
        Assert.Equal(12 + 2.225, Reach(12), 0.1);
    }

    // The plate reaches 12 mm from the middle, the post 4: with a gap of 2 and a line of 0.45 a high skirt needs 14.45 mm to the edge.
    // the cap begins on layer 11; its supports' last layer is what the setting leaves free below it
    [Theory, InlineData(null, 9), InlineData(0, 10), InlineData(1, 9), InlineData(3, 7)]
    public void As_many_layers_stay_free_over_supports_as_are_asked_for(int? free, int last)
    {
        foreach (var pattern in new[] { SupportPattern.Crossed, SupportPattern.Branching })
        {
            var result = Slice(Solids.Mushroom, Plain with { Supports = new() { Pattern = pattern, RoofGap = free, GapZ = 0.2 } });
            var held = result.Layers.Index().Where(l => l.Item.Paths.Any(p => p.Kind is PathKind.Support or PathKind.Interface))
                .Select(l => l.Index + 1).ToArray();
            Assert.Equal(last, held.Max());
            Assert.Equal(free == 0, result.Findings.Any(f => f.Rule == "roof-welds"));
        }
    }

    [Theory, InlineData(1, 7, true), InlineData(1, 6, false), InlineData(12, 14.6, true), InlineData(12, 14.3, false)]
    public void The_fit_counts_a_skirt_as_far_out_as_it_is_laid(int layers, double middle, bool fits)
    {
        var post = Solids.Joined(Solids.Placed(Block.Of(8, 8, 2), 8, 8, 0), Solids.Placed(Block.Of(24, 24, 2), 0, 0, 2));
        var recipe = Plain with { Skirt = new() { Rounds = 1, Gap = 2, Layers = layers } };
        // the plate itself must lie over the bed: for the low skirt it is a post alone
        var mesh = layers == 1 ? Block.Of(8, 8, 2) : post;
        var verdict = new Reach.Fit(Cards.Bare().Machine(), recipe).Of([new("part", new Footprints(mesh), middle, 100, 0)])[0];
        Assert.Equal(fits, verdict.Fits);
    }
}

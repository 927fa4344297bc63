using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Writing;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Names of files, pulling back, and pieces that begin in the air.</summary>
public class WritingTests
{
    [Theory]
    [InlineData("gland M20", "gland M20.gcode")]
    [InlineData("gland.gcode", "gland.gcode")]
    [InlineData("gland.GCODE", "gland.gcode")]
    [InlineData("a/b\\c:d*e?f\"g<h>i|j", "a-b-c-d-e-f-g-h-i-j.gcode")]
    [InlineData("two\nlines\t", "two-lines-.gcode")]
    [InlineData(" .. hidden . ", "hidden.gcode")]
    [InlineData("", "print.gcode")]
    [InlineData("...", "print.gcode")]
    public void A_name_is_one_that_file_systems_take(string asked, string name) => Assert.Equal(name, ProgramName.Safe(asked));

    [Fact]
    public void A_long_name_ends_in_time() => Assert.Equal(new string('x', 120) + ".gcode", ProgramName.Safe(new string('x', 300)));

    // read by the words of its own description
    [Fact]
    public void The_binary_of_layers_holds_every_line_where_its_description_says()
    {
        var even = new ToolPath(PathKind.OuterWall, [new(1, 2), new(3, 4), new(5, 0)], Closed: true, 0.45);
        var varying = new ToolPath(PathKind.Thin, [new(0, 0), new(1, 0), new(2, 0)], Closed: false, 0.4) { Widths = [0.3, 0.3, 0.5] };
        varying = varying with { Nozzle = 3 };
        LaidLine first = new(new(60, 5.5f, 215, 0.4f, 800), [], false, 7, 9),
            second = new(new(20, 1.5f, 240, 1, 1200), [new(5, 0), new(0, 0)], true, 12, 15);
        var file = new BinaryReader(new MemoryStream(LayerFile.Write(
            [new LayerPlan(new LayerPlace(0.2, 0.25), [even]), new LayerPlan(new LayerPlace(0.5, 0.3), [varying])], [first, second],
            [12.5, 7])));
        Assert.Equal("MCL3", new string(file.ReadChars(4)));
        Assert.Equal(2, file.ReadInt32());
        Assert.Equal((0.2f, 0.25f, 12.5f, 1), (file.ReadSingle(), file.ReadSingle(), file.ReadSingle(), file.ReadInt32()));
        Path(PathKind.OuterWall, 1, 0, 0, 0.45f, [60, 5.5f, 215, 0.4f, 800], [7, 9], [], [1, 2, 3, 4, 5, 0]);
        Assert.Equal((0.5f, 0.3f, 7f, 2), (file.ReadSingle(), file.ReadSingle(), file.ReadSingle(), file.ReadInt32()));
        Path(PathKind.Thin, 0, 3, 1, 0.3f, [20, 1.5f, 240, 1, 1200], [12, 15], [5, 0, 0, 0], [0, 0, 1, 0]);
        Path(PathKind.Thin, 0, 3, 0, 0.4f, [20, 1.5f, 240, 1, 1200], [12, 15], [], [1, 0, 2, 0]);
        Assert.Equal(file.BaseStream.Length, file.BaseStream.Position);

        void Path(PathKind kind, byte closed, byte nozzle, byte pulled, float width, float[] figures, int[] lines, float[] way,
            float[] numbers)
        {
            Assert.Equal(((byte)kind, closed, nozzle, pulled), (file.ReadByte(), file.ReadByte(), file.ReadByte(), file.ReadByte()));
            Assert.Equal(width, file.ReadSingle(), 1e-6f);
            Assert.Equal(figures, figures.Select(_ => file.ReadSingle()));
            Assert.Equal(lines, lines.Select(_ => file.ReadInt32()));
            foreach (var points in new[] { way, numbers })
            {
                Assert.Equal(points.Length / 2, file.ReadInt32());
                Assert.Equal(points, points.Select(_ => file.ReadSingle()));
            }
        }
    }

    private static readonly Nozzle Bare = new() { Id = "T0" };
    private static readonly Filament Silent = new() { Name = "a" };

    private static Nozzle With(double? length = null, double? speed = null, double? lift = null, double? wipe = null) =>
        Bare with { Retraction = new() { Length = length, Speed = speed, Lift = lift, Wipe = wipe } };

    [Fact]
    public void Pulling_back_is_the_recipes_else_the_filaments_else_the_heads_else_proposed()
    {
        var nozzle = With(length: 3, speed: 30, lift: 0.3, wipe: 1);
        var filament = Silent with { Retraction = new() { Length = 2, Speed = 20, Lift = 0.2, Wipe = 2 } };
        var recipe = new Recipe { Retraction = new() { Length = 1, Speed = 10, Lift = 0.1, LeastTravel = 1.5 } };
        Assert.Equal(new Pullback(1, 10, 0.1, 2, 1.5), Pullback.Of(nozzle, filament, recipe));
        var silent = new Recipe { Retraction = new() { LeastTravel = 1.5 } };
        Assert.Equal(new Pullback(2, 20, 0.2, 2, 1.5), Pullback.Of(nozzle, filament, silent));
        Assert.Equal(new Pullback(3, 30, 0.3, 1, 1.5), Pullback.Of(nozzle, Silent, silent));
        Assert.Equal(new Pullback(0.8, 35, 0, 0, 1.5), Pullback.Of(Bare, Silent, silent));
        var tube = Bare with { Feed = new() { Kind = FeedKind.LongTube } };
        Assert.Equal(new Pullback(5, 40, 0, 0, 1.5), Pullback.Of(tube, Silent, silent));
        Assert.Equal(4.5, Pullback.Of(nozzle, filament, recipe, layers: 4.5).Length);
    }

    [Fact]
    public void A_filament_that_is_not_to_be_pulled_back_is_not()
    {
        var soft = Silent with { Retraction = new() { Length = 0 } };
        var recipe = new Recipe { Retraction = new() { Length = 1 } };
        Assert.Equal((0, 0), (Pullback.Of(Bare, soft, recipe).Length, Pullback.Of(Bare, soft, recipe, layers: 4).Length));
        Assert.False(Pullback.IsForbidden(Silent));
    }

    private static readonly Shape Foot = Shapes.Rectangle(0, 0, 20, 20);
    private static readonly LayerPlace[] Places = [.. Enumerable.Range(0, 4).Select(i => LayerHeights.At(i, 0.3, 0.2))];

    private static string[] Told(Shape[] regions, Func<int, Shape>? held = null, int gap = 0) =>
        [.. Islands.Of("arch", regions, regions, Places,
            held is null ? null : i => i - 1 - gap >= 0 ? held(i - 1 - gap) : Plane.Empty, lift: 1)
            .Select(f => f.Message)];

    [Fact]
    public void A_piece_with_nothing_below_is_told_with_layer_height_size_and_place()
    {
        var arm = Plane.Union(Foot, Shapes.Rectangle(40, 5, 4, 3));
        Assert.Equal(["arch: layer 3 (1.7 mm up) begins a piece of 12 mm² in the air at X 42, Y 6.5."], Told([Foot, Foot, arm, arm]));
        Assert.Empty(Told([Foot, Plane.Union(Foot, Shapes.Rectangle(19, 5, 9, 3)), Foot, Foot]));
        Assert.Empty(Told([Foot, Plane.Union(Foot, Shapes.Rectangle(40, 5, 0.2, 0.2)), Foot, Foot]));
    }

    [Fact]
    public void What_a_support_holds_is_not_told_where_the_gap_lets_it_hold()
    {
        var arm = Plane.Union(Foot, Shapes.Rectangle(40, 5, 4, 3));
        Shape[] regions = [Foot, Foot, arm, arm];
        Shape Below(int layer) => layer <= 1 ? Shapes.Rectangle(39, 4, 6, 5) : Plane.Empty;
        Shape Deeper(int layer) => layer <= 0 ? Shapes.Rectangle(39, 4, 6, 5) : Plane.Empty;
        Assert.Empty(Told(regions, Below));
        Assert.Empty(Told(regions, Deeper, gap: 1));
        Assert.Single(Told(regions, Deeper));
        Assert.Single(Told(regions, Below, gap: 2));
    }

    [Fact]
    public void Of_very_many_pieces_the_first_five_are_told()
    {
        var many = Plane.Union([Foot, .. Enumerable.Range(0, 9).Select(i => (Shape)Shapes.Rectangle(40 + 5 * i, 5, 2, 2))]);
        Assert.Equal(5, Told([Foot, many, many, many]).Length);
    }
}

using CsCheck;
using MillCard.Core.Clearance;
using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Core.Patterns;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Parts laid on a bed, against packings that are known and against polygons of their own.</summary>
public class ArrangementTests
{
    private static readonly Machine Bed = Cards.Bare().Machine();

    private static StandingPart Part(Mesh mesh, double x = 0, double y = 0, double turn = 0) =>
        new("part", new Footprints(mesh), x, y, turn);

    private static IReadOnlyList<Place?> Arrange(Machine machine, IReadOnlyList<StandingPart> parts, Sequence sequence = Sequence.AllAtOnce,
        Recipe? recipe = null, ModeUse? mode = null, bool mayTurn = true, params int[] held) =>
        Arrangement.Of(machine, recipe, parts, held.ToHashSet(), mayTurn, sequence, mode);

    private static Shape Seen(StandingPart part, Place place) =>
        part.Footprints.Below(double.PositiveInfinity, place.X, place.Y, place.Turn);

    [Fact]
    public void Bodies_that_belong_together_are_laid_as_one()
    {
        var (plate, letter, loose) = (Block.Of(60, 40, 2), Block.Of(20, 10, 1), Block.Of(80, 30, 10));
        StandingPart[] parts =
        [
            Part(plate, 150, 100, 90) with { Assembly = "sign" }, Part(loose),
            new("letter", new Footprints(letter, 2, default), 155, 110, 30) { Assembly = "sign" },
        ];
        var places = Arrange(Bed, parts).Select(p => p!).ToArray();
        Assert.All(places, Assert.NotNull);
        // the letter stands to the plate as it did, by the quarter that both were turned
        var quarter = places[0].Turn - 90;
        Assert.Equal(quarter, places[2].Turn - 30);
        var (sin, cos) = Placement.SinCos(quarter);
        Assert.Equal(places[0].X + cos * 5 - sin * 10, places[2].X, 1e-3);
        Assert.Equal(places[0].Y + sin * 5 + cos * 10, places[2].Y, 1e-3);
        var (sign, other) = (Seen(parts[0], places[0]), Seen(parts[1], places[1]));
        Assert.True(sign.Distance(other) >= 2);
        // a body that is held holds its fellows
        var held = Arrange(Bed, parts, held: 2);
        Assert.Equal((150, 100, 90), (held[0]!.X, held[0]!.Y, held[0]!.Turn));
    }

    [Fact]
    public void Rectangles_lie_as_densely_as_in_a_grid()
    {
        // 60 × 40 mm with 2 mm between them go 4 × 4 times on 300 × 200 mm as they are, 7 × 3 times turned
        var block = Part(Block.Of(60, 40, 10));
        Assert.InRange(Arrange(Bed, [.. Enumerable.Repeat(block, 24)]).Count(p => p is not null), 0.85 * 21, 24);
        var more = Arrangement.More(Bed, null, [block with { X = 30, Y = 20 }], 0, 500, Sequence.AllAtOnce, null);
        Assert.InRange(more.Count, 0.85 * 16 - 1, 20);
    }

    [Fact]
    public void Discs_lie_as_densely_as_in_rows_that_mesh()
    {
        // four rows of five, 52 mm from middle to middle and from row to row 52 · sin 60°
        var disc = Part(Solids.Cylinder(25, 10, 96));
        var places = Arrangement.More(Bed, null, [disc with { X = 25, Y = 25 }], 0, 500, Sequence.AllAtOnce, null);
        Assert.InRange(places.Count, 0.85 * 20 - 1, 19);
        var all = places.Append(new Place(25, 25, 0)).ToArray();
        Assert.True(all.SelectMany((a, i) => all.Take(i).Select(b => new Point(a.X, a.Y).To(new Point(b.X, b.Y)))).Min() >= 52 - 1e-6);
    }

    [Fact]
    public void What_lies_there_stays_and_what_has_no_room_is_told()
    {
        var parts = new[] { Part(Block.Of(100, 100, 10), 60, 70), Part(Block.Of(250, 150, 10)), Part(Block.Of(150, 150, 10)) };
        var places = Arrange(Bed, parts, held: 0);
        Assert.Equal(new Place(60, 70, 0), places[0]);
        Assert.Null(places[1]);
        Assert.NotNull(places[2]);
        Assert.Equal(2, Apart(Seen(parts[0], places[0]!), Seen(parts[2], places[2]!)), 0.5);
    }

    [Fact]
    public void A_single_part_goes_to_the_middle_and_a_long_one_is_turned_where_it_must()
    {
        var middle = Assert.Single(Arrange(Bed, [Part(Block.Of(30, 20, 10))]))!;
        Assert.Equal((150, 100), (Math.Round(middle.X, 6), Math.Round(middle.Y, 6)));
        var upright = Part(Block.Of(40, 280, 10));
        Assert.Equal(90, Assert.Single(Arrange(Bed, [upright]))!.Turn);
        Assert.Null(Assert.Single(Arrange(Bed, [upright], mayTurn: false)));
    }

    [Fact]
    public void The_upright_solid_over_an_outline_is_closed_and_as_large_as_it_should_be()
    {
        var outline = (NetTopologySuite.Geometries.Polygon)Shapes.Ellipse(3, 4, 20, 12, Side.Outside);
        foreach (var ring in new[] { outline, (NetTopologySuite.Geometries.Polygon)outline.Reverse() })
        {
            var solid = Prism.Of(ring, 7);
            Assert.Equal(outline.Area * 7, solid.Volume(), 0.01);
            var footprints = new Footprints(solid);
            Assert.Equal((0, 7.0), (footprints.OpenEdges, footprints.Height));
            Assert.Equal(outline.Area, footprints.Whole.Area, 0.01);
        }
    }

    private static double Apart(Shape a, Shape b) => a.Distance(b);

    [Fact]
    public void No_two_ever_overlap_and_all_lie_on_the_bed() => Gen.Select(Gen.Double[8, 90], Gen.Double[8, 90], Gen.Int[0, 3])
        .List[2, 9].Sample(sizes =>
        {
            var parts = sizes.Select(s => Part(s.Item3 == 0 ? Solids.Cylinder(s.Item1 / 2, 5, 40) : Block.Of(s.Item1, s.Item2, 5),
                turn: 17 * s.Item3)).ToArray();
            var places = Arrange(Bed, parts);
            var seen = parts.Zip(places).Where(p => p.Second is not null).Select(p => Seen(p.First, p.Second!)).ToArray();
            Assert.NotEmpty(seen);
            var bed = Plane.Offset(Bed.Usable, Plane.Touch);
            Assert.All(seen, part => Assert.True(bed.Covers(part)));
            for (var i = 0; i < seen.Length; i++)
                for (var j = 0; j < i; j++) Assert.True(Apart(seen[i], seen[j]) >= 2 - 1e-6, $"{Apart(seen[i], seen[j])} mm apart");
            // little lies there, so all of it has room
            if (sizes.Sum(s => (s.Item1 + 2) * (s.Item2 + 2)) < 0.3 * 300 * 200) Assert.DoesNotContain(null, places);
        }, iter: 40);

    [Fact]
    public void One_at_a_time_they_stand_clear_of_the_head()
    {
        var gland = Part(DemoParts.Read("cable-gland"));
        StandingPart[] parts = [gland, gland, gland, Part(DemoParts.Read("net-ring-joint")), Part(DemoParts.Read("net-ring-joint"))];
        var machine = Cards.Dunlin.Machine();
        var places = Arrange(machine, parts, Sequence.OneAtATime, Cards.Standard);
        Assert.DoesNotContain(null, places);
        StandingPart[] laid = [.. parts.Zip(places, (part, at) => part with { X = at!.X, Y = at.Y, Turn = at.Turn })];
        Assert.NotNull(new PrintOrder(machine, Cards.Standard).Of(laid).Order);
        // grown together they would stand closer
        var together = Arrange(machine, parts, Sequence.AllAtOnce, Cards.Standard);
        Assert.True(Nearest(parts, together) < Nearest(parts, places));
    }

    private static double Nearest(StandingPart[] parts, IReadOnlyList<Place?> places)
    {
        var seen = parts.Zip(places, (part, at) => Seen(part, at!)).ToArray();
        return seen.SelectMany((a, i) => seen.Take(i).Select(b => Apart(a, b))).Min();
    }

    [Theory]
    [InlineData(ModeKind.Copy)]
    [InlineData(ModeKind.Mirror)]
    public void In_a_mode_of_two_carriages_the_second_part_has_room_too(ModeKind kind)
    {
        var machine = Pattern.All.Single(p => p.Id == "two-carriages").Card.Machine();
        StandingPart[] parts = [.. Enumerable.Range(0, 4).Select(i => Part(Block.Of(40, 60 + i, 10)) with { Name = $"part {i}" })];
        var mode = new ModeUse { Kind = kind };
        var places = Arrange(machine, parts, mode: mode);
        Assert.DoesNotContain(null, places);
        StandingPart[] laid = [.. parts.Zip(places, (part, at) => part with { X = at!.X, Y = at.Y, Turn = at.Turn })];
        Assert.All(new Fit(machine).Of(laid, mode), fit => Assert.True(fit.Fits));
        // so many have room on the whole bed alone
        var many = Enumerable.Repeat(parts[0], 40).ToArray();
        Assert.True(Arrange(machine, many, mode: mode).Count(p => p is not null)
            < Arrange(machine, many, mode: new() { Kind = ModeKind.Single }).Count(p => p is not null));
    }
}

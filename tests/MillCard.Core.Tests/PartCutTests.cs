using MillCard.Core.Making;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Parts cut in two, with pegs; and how parts meet that were drawn together.</summary>
public sealed class PartCutTests
{
    private static readonly Mesh Block = Solids.Box(40, 20, 30);

    private static void Closed(Mesh mesh) => Assert.Equal(0, Neighbours.Of(mesh).OpenEdges);

    [Theory]
    [InlineData(CutAlong.X, 12, 12 * 20 * 30)]
    [InlineData(CutAlong.Y, 5, 40 * 5 * 30)]
    [InlineData(CutAlong.Z, 21, 40 * 20 * 21)]
    public void A_part_is_cut_across_the_axis_at_the_distance(CutAlong along, double at, double lower)
    {
        var cut = PartCut.Of(Block, along, at, onCutFaces: false, pegs: null);
        Assert.Equal(lower, cut.Lower.Volume(), 1e-3);
        Assert.Equal(Block.Volume() - lower, cut.Upper.Volume(), 1e-3);
        // each lies where it lay
        Assert.Equal((0, 0, 0), (cut.Lower.Box.MinX, cut.Lower.Box.MinY, cut.Lower.Box.MinZ));
        Assert.Equal((40f, 20f, 30f), (cut.Upper.Box.MaxX, cut.Upper.Box.MaxY, cut.Upper.Box.MaxZ));
        Assert.Null(cut.Peg);
    }

    [Fact]
    public void Both_sides_stand_on_their_cut_faces()
    {
        var wedge = Solids.Prism([(0, 0), (30, 0), (0, 12)], 8);
        var cut = PartCut.Of(wedge, CutAlong.X, 15, onCutFaces: true, pegs: null);
        foreach (var half in new[] { cut.Lower, cut.Upper })
        {
            Closed(half);
            var sides = FlatSides.Of(half);
            // it stands on a flat side as it is: one of 6 × 8
            Assert.Contains(sides, s => s.Tilt is { X: 0, Y: 0 } && Math.Abs(s.Area - 48) < 1e-3);
            Assert.True(half.Volume() > 0);
        }
        Assert.Equal(15, cut.Lower.Box.MaxZ - cut.Lower.Box.MinZ, 1e-4);
    }

    [Fact]
    public void Holes_for_pegs_go_into_both_sides_and_lie_opposite_each_other()
    {
        var pegs = new PegSizes { Diameter = 4, Depth = 6, Play = 0.3, Count = 2 };
        var cut = PartCut.Of(Block, CutAlong.Z, 15, onCutFaces: false, pegs);
        Closed(cut.Lower);
        Closed(cut.Upper);
        // a circle of 48 corners has a little less area than a round one
        var hole = 24 * Math.Sin(2 * Math.PI / 48) * 2.15 * 2.15 * 6;
        Assert.Equal(40 * 20 * 15 - 2 * hole, cut.Lower.Volume(), 0.05);
        Assert.Equal(40 * 20 * 15 - 2 * hole, cut.Upper.Volume(), 0.05);
        // a section one mm from the cut shows the same holes on both sides
        var (below, above) = (LevelCut.Of(cut.Lower, 14).Below, LevelCut.Of(cut.Upper, 16).Above);
        Assert.Equal(40 * 20 * 14 - 2 * hole * 5 / 6, below.Volume(), 0.05);
        Assert.Equal(below.Volume(), above.Volume(), 0.05);
        Assert.Equal(2, cut.Pegs);
        Assert.Equal((4f, 11.4f), (MathF.Round(cut.Peg!.Box.MaxX - cut.Peg.Box.MinX, 3), cut.Peg.Box.MaxZ));
    }

    [Fact]
    public void Where_there_is_no_room_for_a_peg_the_cut_is_refused()
    {
        var thin = Solids.Box(60, 5, 30);
        var refused = Assert.Throws<MeshRefusedException>(() => PartCut.Of(thin, CutAlong.Z, 15, false, new PegSizes { Diameter = 4 }));
        Assert.Contains("room for 0 of 2 pegs", refused.Message, StringComparison.Ordinal);
        Assert.Equal(2, PartCut.Of(thin, CutAlong.Z, 15, false, new PegSizes { Diameter = 2 }).Pegs);
        // a bottom that is too thin for the depth counts too
        Assert.Throws<MeshRefusedException>(() => PartCut.Of(Block, CutAlong.Z, 5, false, new PegSizes { Depth = 6 }));
    }

    [Theory]
    [InlineData(0)]
    [InlineData(30)]
    [InlineData(-2)]
    public void A_plane_beside_the_part_is_refused(double at) =>
        Assert.Contains("misses it", Assert.Throws<MeshRefusedException>(() => PartCut.Of(Block, CutAlong.Z, at, false, null)).Message,
            StringComparison.Ordinal);

    private static Mesh At(Mesh mesh, double x, double y, double z) => Solids.Placed(mesh, x, y, z);

    [Fact]
    public void Parts_meet_as_they_were_drawn()
    {
        var plate = Solids.Box(40, 40, 4);
        Assert.Equal(Meeting.Touch, Meetings.Of(plate, At(Solids.Box(10, 10, 6), 5, 5, 4)));
        Assert.Equal(Meeting.Touch, Meetings.Of(At(Solids.Box(10, 10, 6), 5, 5, 4), plate));
        Assert.Equal(Meeting.Touch, Meetings.Of(plate, At(Solids.Box(10, 40, 4), 40, 0, 0)));
        Assert.Equal(Meeting.Touch, Meetings.Of(plate, At(Solids.Box(10, 40, 4), 39.8, 0, 0)));
        Assert.Equal(Meeting.Within, Meetings.Of(plate, At(Solids.Box(10, 10, 2), 5, 5, 1)));
        Assert.Equal(Meeting.Through, Meetings.Of(plate, At(plate, 12, 9, 0)));
        Assert.Equal(Meeting.Apart, Meetings.Of(plate, At(plate, 41, 0, 0)));
        Assert.Equal(Meeting.Apart, Meetings.Of(plate, At(plate, 0, 0, 4.2)));
        // boxes that overlap say nothing: a post in the hole of a ring
        Assert.Equal(Meeting.Apart, Meetings.Of(Solids.Torus(20, 6, 48, 36), At(Solids.Cylinder(6, 30, 48), 0, 0, -10)));
    }
}

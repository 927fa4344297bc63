using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Solids cut by a level plane.</summary>
public sealed class LevelCutTests
{
    private static readonly Mesh[] Whole =
    [
        Solids.Box(10, 20, 30), Solids.Torus(20, 6, 40, 30), Solids.Mushroom, Solids.Gate, Solids.Cylinder(8, 25, 60),
        Solids.Twisted(20, 6, 25, 1.3, 60), Solids.Thread(12, 9, 2, 3, 48), DemoParts.Read("quadrat-corner"), DemoParts.Read("cable-gland"),
    ];

    private static void Closed(Mesh mesh) => Assert.Equal(0, Neighbours.Of(mesh).OpenEdges);

    /// <summary>Turned freely, so that no face lies in the plane by chance.</summary>
    private static readonly Gen<(Mesh Mesh, double At)> Cuts = Gen.Select(Gen.Int[0, Whole.Length - 1], Gen.Double[-180, 180],
        Gen.Double[-180, 180], Gen.Double[0.02, 0.98], (i, x, y, share) =>
        {
            var mesh = Placement.Oriented(Whole[i], null, new Tilt { X = x, Y = y });
            return (mesh, mesh.Box.MinZ + share * (mesh.Box.MaxZ - mesh.Box.MinZ));
        });

    [Fact]
    public void Both_sides_are_closed_and_have_the_volume_of_the_whole() => Cuts.Sample(cut =>
    {
        var sides = LevelCut.Of(cut.Mesh, cut.At);
        Assert.True(sides.IsClosed);
        Closed(sides.Below);
        Closed(sides.Above);
        var whole = cut.Mesh.Volume();
        Assert.InRange((sides.Below.Volume() + sides.Above.Volume()) / whole - 1, -1e-6, 1e-6);
        Assert.InRange(sides.Below.Volume() / whole, 0, 1);
        Assert.True(sides.Below.Box.MaxZ <= (float)cut.At && sides.Above.Box.MinZ >= (float)cut.At);
    }, iter: 150);

    [Theory]
    [InlineData(2)]
    [InlineData(3)]
    public void Faces_in_the_plane_belong_to_neither_side(double height)
    {
        // the hat's underside lies at 2: nothing of it may be left as a sheet
        var sides = LevelCut.Of(Solids.Mushroom, height);
        Assert.True(sides.IsClosed);
        Closed(sides.Below);
        Closed(sides.Above);
        Assert.Equal(Solids.Mushroom.Volume(), sides.Below.Volume() + sides.Above.Volume(), 1e-3);
        Assert.Equal(8 * 8 * 2 + 24 * 24 * (height - 2), sides.Below.Volume(), 1e-3);
    }

    [Fact]
    public void A_ring_is_closed_with_its_hole_left_open()
    {
        var ring = Solids.Torus(20, 6, 60, 40);
        var sides = LevelCut.Of(ring, ((double)ring.Box.MinZ + ring.Box.MaxZ) / 2);
        Closed(sides.Below);
        Assert.Equal(sides.Above.Volume(), sides.Below.Volume(), 1e-3 * sides.Above.Volume());
    }

    [Fact]
    public void A_plane_beside_the_solid_leaves_it_whole()
    {
        var cube = Solids.Box(10, 10, 10);
        var (over, under) = (LevelCut.Of(cube, 11), LevelCut.Of(cube, 0));
        Assert.Equal((cube.FaceCount, 0), (over.Below.FaceCount, over.Above.FaceCount));
        // the floor itself lies in the plane and is closed anew
        Assert.Equal(0, under.Below.FaceCount);
        Closed(under.Above);
        Assert.Equal(1000, under.Above.Volume(), 1e-6);
    }

    [Fact]
    public void What_cannot_be_closed_says_so()
    {
        // without one of its sides the cut has an open outline
        var cube = Solids.Box(10, 10, 10);
        var open = cube with
        {
            Faces = [.. Enumerable.Range(0, cube.FaceCount).Where(f => !IsFront(f)).SelectMany(f => cube.Faces[(3 * f)..(3 * f + 3)])]
        };
        Assert.True(open.FaceCount < cube.FaceCount);
        Assert.False(LevelCut.Of(open, 5).IsClosed);

        bool IsFront(int face) => cube.Faces[(3 * face)..(3 * face + 3)].All(corner => cube.Corners[3 * corner + 1] == 0);
    }
}

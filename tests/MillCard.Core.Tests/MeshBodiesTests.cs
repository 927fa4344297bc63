using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>The bodies of a mesh told apart.</summary>
public sealed class MeshBodiesTests
{
    private static Mesh Hollow(Mesh mesh) =>
        mesh with { Faces = [.. mesh.Faces.Chunk(3).SelectMany(f => new[] { f[0], f[2], f[1] })] };

    [Fact]
    public void Pieces_that_share_no_edge_are_bodies_of_their_own()
    {
        var (cube, ring) = (Solids.Box(10, 10, 10), Solids.Placed(Solids.Torus(20, 6, 24, 18), 60, 0, 0));
        var bodies = MeshBodies.Of(Solids.Joined(cube, ring));
        Assert.Equal([cube.FaceCount, ring.FaceCount], bodies.Select(b => b.FaceCount));
        Assert.Equal([cube.Volume(), ring.Volume()], bodies.Select(b => b.Volume()));
    }

    [Fact]
    public void A_hollow_stays_with_the_body_round_it()
    {
        var (outer, inner) = (Solids.Box(20, 20, 20), Hollow(Solids.Placed(Solids.Box(5, 5, 5), 5, 5, 5)));
        var whole = Solids.Joined(outer, inner);
        Assert.Same(whole, Assert.Single(MeshBodies.Of(whole)));
        var beside = Solids.Placed(Solids.Box(8, 8, 8), 40, 0, 0);
        Assert.Equal([8000 - 125, 512], MeshBodies.Of(Solids.Joined(outer, beside, inner)).Select(b => Math.Round(b.Volume(), 6)));
        // cut through the hollow: what is left has it as a pocket
        var half = LevelCut.Of(whole, 7);
        Assert.True(half.IsClosed);
        Assert.Equal(20 * 20 * 7 - 5 * 5 * 2, half.Below.Volume(), 1e-3);
        Assert.Equal(0, Neighbours.Of(half.Below).OpenEdges);
    }

    [Fact]
    public void What_is_one_stays_itself()
    {
        var ring = Solids.Torus(20, 6, 24, 18);
        Assert.Same(ring, Assert.Single(MeshBodies.Of(ring)));
    }
}

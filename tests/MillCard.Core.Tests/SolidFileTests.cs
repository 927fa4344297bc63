using MillCard.Core.Files;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Meshes as the pictorial view gets them, read by the words of their own description.</summary>
public sealed class SolidFileTests
{
    private sealed record Read(float[] Corners, int[] Faces, (int A, int B, int Left, int Right)[] Edges, int FacesOfFile, int[] Numbers);

    private static Read Of(byte[] bytes)
    {
        var file = new BinaryReader(new MemoryStream(bytes));
        Assert.Equal("MCS1", new string(file.ReadChars(4)));
        var (corners, faces, edges, all) = (file.ReadInt32(), file.ReadInt32(), file.ReadInt32(), file.ReadInt32());
        float[] places = [.. Enumerable.Range(0, 3 * corners).Select(_ => file.ReadSingle())];
        int[] numbers = [.. Enumerable.Range(0, 3 * faces).Select(_ => file.ReadInt32())];
        (int, int, int, int)[] ends = [.. Enumerable.Range(0, edges)
            .Select(_ => (file.ReadInt32(), file.ReadInt32(), file.ReadInt32(), file.ReadInt32()))];
        var left = (int)(file.BaseStream.Length - file.BaseStream.Position) / 4;
        return new(places, numbers, ends, all, [.. Enumerable.Range(0, left).Select(_ => file.ReadInt32())]);
    }

    [Fact]
    public void A_closed_mesh_has_every_edge_once_with_the_faces_on_both_its_sides()
    {
        var mesh = Solids.Torus(20, 6, 24, 18);
        var read = Of(SolidFile.Write(mesh));
        Assert.Equal(mesh.Corners, read.Corners);
        Assert.Equal(mesh.Faces, read.Faces);
        Assert.Empty(read.Numbers);
        Assert.Equal(mesh.FaceCount * 3 / 2, read.Edges.Length);
        Assert.Equal(read.Edges.Length, read.Edges.Select(e => (Math.Min(e.A, e.B), Math.Max(e.A, e.B))).Distinct().Count());
        Assert.All(read.Edges, edge =>
        {
            Assert.NotEqual(edge.Left, edge.Right);
            foreach (var face in new[] { edge.Left, edge.Right })
                Assert.Equal(2, mesh.Faces[(3 * face)..(3 * face + 3)].Count(corner => corner == edge.A || corner == edge.B));
        });
    }

    [Fact]
    public void An_edge_with_nothing_on_its_other_side_says_so()
    {
        var read = Of(SolidFile.Write(new Mesh([0, 0, 0, 1, 0, 0, 0, 1, 0], [0, 1, 2])));
        Assert.Equal(3, read.Edges.Length);
        Assert.All(read.Edges, edge => Assert.Equal((0, -1), (edge.Left, edge.Right)));
    }

    [Fact]
    public void A_mesh_of_very_many_faces_is_cut_down_and_its_faces_keep_their_numbers()
    {
        var mesh = Solids.Torus(40, 12, 700, 500);
        var read = Of(SolidFile.Write(mesh));
        Assert.Equal(mesh.FaceCount, read.FacesOfFile);
        Assert.InRange(read.Faces.Length / 3, SolidFile.Most / 8, SolidFile.Most);
        Assert.Equal(read.Faces.Length / 3, read.Numbers.Length);
        Assert.Equal(read.Numbers.Length, read.Numbers.Distinct().Count());
        // a face that is drawn lies where the face of that number lies
        for (var f = 0; f < read.Numbers.Length; f++)
            for (var k = 0; k < 3; k++)
                Assert.InRange(Apart(read.Faces[3 * f + k], mesh.Faces[3 * read.Numbers[f] + k]), 0, 1.2);

        double Apart(int drawn, int own) => Math.Sqrt(Enumerable.Range(0, 3)
            .Sum(axis => Math.Pow(read.Corners[3 * drawn + axis] - mesh.Corners[3 * own + axis], 2)));
    }

    [Fact]
    public void A_mesh_that_is_small_enough_stays_as_it_is()
    {
        var mesh = Solids.Box(10, 20, 30);
        Assert.Equal((mesh, null), CutDown.To(mesh, mesh.FaceCount));
        Assert.NotSame(mesh, CutDown.To(mesh, mesh.FaceCount - 1).Mesh);
    }
}

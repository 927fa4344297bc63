using System.Globalization;
using System.IO.Compression;
using System.Text;
using CsCheck;
using MillCard.Core.Files;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Files that are made to be slow: reading them takes time that grows with their size, and can be ended.</summary>
public class HostileFileTests
{
    /// <summary>An OBJ of one cube whose every face stands so many times.</summary>
    private static byte[] RepeatedCube(int times)
    {
        var cube = Block.Of(10, 10, 10);
        var text = new StringBuilder();
        for (var i = 0; i < cube.Corners.Length; i += 3)
            text.Append(CultureInfo.InvariantCulture, $"v {cube.Corners[i]} {cube.Corners[i + 1]} {cube.Corners[i + 2]}\n");
        for (var n = 0; n < times; n++)
            for (var f = 0; f < cube.Faces.Length; f += 3)
                text.Append(CultureInfo.InvariantCulture, $"f {cube.Faces[f] + 1} {cube.Faces[f + 1] + 1} {cube.Faces[f + 2] + 1}\n");
        return Encoding.ASCII.GetBytes(text.ToString());
    }

    // 600 000 faces, of which each stands 50 000 times: minutes where equal faces are looked through one by one
    [Fact]
    public void Repeated_faces_are_taken_once_and_counted()
    {
        var mesh = MeshFile.ReadOne(RepeatedCube(50_000));
        Assert.Equal((12, 12 * 49_999), (mesh.FaceCount, mesh.RepeatedFaces));
        Assert.Equal(1000, mesh.Volume(), 3);
        Assert.Equal(0, Neighbours.Of(mesh).OpenEdges);
    }

    [Fact]
    public void A_clean_mesh_has_no_repeated_faces_and_a_wall_seen_from_both_sides_keeps_both()
    {
        Assert.Equal(0, MeshFile.ReadOne(RepeatedCube(1)).RepeatedFaces);
        var wall = MeshFile.ReadOne("v 0 0 0\nv 9 0 0\nv 0 0 9\nf 1 2 3\nf 1 3 2\n"u8.ToArray());
        Assert.Equal((2, 0), (wall.FaceCount, wall.RepeatedFaces));
    }

    /// <summary>Many faces in a fan about one edge: every one of them shares it.</summary>
    [Fact]
    public void Neighbours_on_an_edge_of_many_faces_are_paired_in_the_order_met()
    {
        var (corners, faces) = (new List<float> { 0, 0, 0, 0, 0, 1 }, new List<int>());
        for (var i = 0; i < 200_000; i++)
        {
            corners.AddRange([1 + i, i % 7, 0]);
            faces.AddRange(i % 2 == 0 ? [0, 1, 2 + i] : [1, 0, 2 + i]);
        }
        var neighbours = Neighbours.Of(new Mesh([.. corners], [.. faces]));
        for (var i = 0; i < 200_000; i += 2) Assert.Equal((3 * (i + 1), 3 * i), (neighbours.Across(3 * i), neighbours.Across(3 * (i + 1))));
        Assert.True(neighbours.HasCrowdedEdges);
        Assert.False(Neighbours.Of(Block.Of(1, 2, 3)).HasCrowdedEdges);
        var same = Neighbours.Of(new Mesh([.. corners], [.. Enumerable.Range(0, 200_000).SelectMany(i => new[] { 0, 1, 2 + i })]));
        Assert.True(same.HasCrowdedEdges);
        Assert.All(Enumerable.Range(0, 200_000), i => Assert.Equal(-1, same.Across(3 * i)));
    }

    [Fact]
    public void A_3mf_of_more_parts_than_a_bed_takes_is_refused_in_a_sentence()
    {
        byte[] Packed(int items)
        {
            var file = new MemoryStream();
            using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
            {
                using var entry = new StreamWriter(archive.CreateEntry("3D/3dmodel.model").Open());
                entry.Write("""
                    <model unit="millimeter" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"><resources>
                    <object id="1"><mesh><vertices><vertex x="0" y="0" z="0"/><vertex x="9" y="0" z="0"/>
                    <vertex x="0" y="9" z="0"/><vertex x="0" y="0" z="9"/>
                    </vertices><triangles><triangle v1="0" v2="2" v3="1"/><triangle v1="0" v2="1" v3="3"/><triangle v1="1" v2="2" v3="3"/>
                    <triangle v1="2" v2="0" v3="3"/></triangles></mesh></object></resources><build>
                    """);
                for (var i = 0; i < items; i++) entry.Write("<item objectid=\"1\"/>");
                entry.Write("</build></model>");
            }
            return file.ToArray();
        }
        Assert.Equal(500, MeshFile.Read(Packed(500)).Count);
        Assert.Contains("501 parts", Assert.Throws<MeshRefusedException>(() => MeshFile.Read(Packed(501))).Message,
            StringComparison.Ordinal);
        Assert.Contains("20000 parts", Assert.Throws<MeshRefusedException>(() => MeshFile.Read(Packed(20_000))).Message,
            StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("M0 0")]
    [InlineData("M0 0z")]
    [InlineData("zzzzzzzz")]
    [InlineData("L1 1 ")]
    [InlineData("........")]
    public void A_path_of_ten_million_marks_is_read_or_refused(string marks)
    {
        var path = "M0 0 " + string.Concat(Enumerable.Repeat(marks, 10_000_000 / marks.Length));
        try { OutlineFile.Read(Encoding.ASCII.GetBytes(path)); }
        catch (OutlineException refused) { Assert.InRange(refused.Message.Length, 10, 200); }
    }

    // every tooth is needed: no coarser drawing of it has few corners
    [Fact]
    public void A_comb_that_cannot_be_drawn_with_few_corners_is_refused_in_a_sentence()
    {
        var path = new StringBuilder("M0 0");
        for (var i = 0; i < 30_000; i++) path.Append(CultureInfo.InvariantCulture, $"L{2 * i} 20000L{2 * i + 1} 1");
        var refused = Assert.Throws<OutlineException>(() => OutlineFile.Read(Encoding.ASCII.GetBytes(path.Append("L60001 0z").ToString())));
        Assert.Contains("corners", refused.Message, StringComparison.Ordinal);
    }

    // every corner that is left out lies within the error of what is drawn; seen by another library's distance
    [Fact]
    public void A_thinned_ring_stays_within_its_error() => Gen.Select(Gen.Double[0, 100].Array2D[60, 1], Gen.Double[0.1, 20])
        .Sample((heights, error) =>
    {
        Coordinate[] ring = [.. Enumerable.Range(0, 60)
            .Select(i => new Coordinate(2 * i, heights[i, 0])), new(118, -10), new(0, -10), new(0, heights[0, 0])];
        var thin = Thinning.Of(ring, error);
        var line = Plane.Factory.CreateLineString(thin);
        Assert.Equal((ring[0], ring[^1]), (thin[0], thin[^1]));
        Assert.All(ring, corner => Assert.InRange(line.Distance(Plane.Factory.CreatePoint(corner)), 0, error + 1e-9));
        Assert.All(thin, corner => Assert.Contains(corner, ring));
    });

    public static TheoryData<string> Formats => ["stl", "ascii", "obj", "3mf", "amf"];

    [Theory, MemberData(nameof(Formats))]
    public void Reading_ends_when_the_caller_leaves(string format)
    {
        var many = Solids.Torus(20, 8, 300, 200);
        using var left = new CancellationTokenSource();
        left.Cancel();
        var file = format switch
        {
            "stl" => Stl.Write(many),
            "ascii" => Encoding.ASCII.GetBytes("solid x\n"
                + string.Concat(Enumerable.Repeat(
                "facet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\n", 20_000)) + "endsolid x\n"),
            "obj" => RepeatedCube(3000),
            "3mf" => ThreeMf.Write("x", [new FilePart("x", many)]),
            _ => Encoding.ASCII.GetBytes("""<amf unit="millimeter"><object id="0"><mesh><vertices/></mesh></object></amf>"""),
        };
        Assert.ThrowsAny<OperationCanceledException>(() => MeshFile.Read(file, left.Token));
    }

    // headers of binary files hold anything, and so do their first faces
    [Theory]
    [InlineData("solid part made by hand")]
    [InlineData("v 1 2 3\nf 1 2 3\n")]
    [InlineData("<amf unit=\"inch\">")]
    [InlineData("PK\u0003\u0004")]
    public void A_binary_stl_whose_length_is_right_is_one_whatever_its_header(string header)
    {
        var file = Stl.Write(Block.Of(10, 20, 30));
        Encoding.ASCII.GetBytes(header).CopyTo(file, 0);
        Assert.Equal(6000, MeshFile.ReadOne(file).Volume(), 3);
    }
}

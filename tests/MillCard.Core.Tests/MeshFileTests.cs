using System.Globalization;
using System.IO.Compression;
using System.Text;
using CsCheck;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

public class MeshFileTests
{
    private static readonly Mesh Cube = Block.Of(10, 20, 30);

    private static byte[] Zip(params (string Name, string Text)[] entries)
    {
        var file = new MemoryStream();
        using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, text) in entries)
            {
                using var entry = archive.CreateEntry(name).Open();
                entry.Write(Encoding.UTF8.GetBytes(text));
            }
        return file.ToArray();
    }

    private static string Vertices(Mesh mesh) => string.Concat(Enumerable.Range(0, mesh.CornerCount)
        .Select(i => FormattableString.Invariant(
        $"<vertex x=\"{mesh.Corners[3 * i]}\" y=\"{mesh.Corners[3 * i + 1]}\" z=\"{mesh.Corners[3 * i + 2]}\"/>")));
    private static string Triangles(Mesh mesh) => string.Concat(Enumerable.Range(0, mesh.FaceCount)
        .Select(i => $"<triangle v1=\"{mesh.Faces[3 * i]}\" v2=\"{mesh.Faces[3 * i + 1]}\" v3=\"{mesh.Faces[3 * i + 2]}\"/>"));
    private static string Object(int id, string name = "") =>
        $"<object id=\"{id}\" "
            + $"name=\"{name}\"><mesh><vertices>{Vertices(Cube)}</vertices><triangles>{Triangles(Cube)}</triangles></mesh></object>";
    private static byte[] Model(string resources, string build, string unit = "millimeter") =>
        Zip(("3D/3dmodel.model", $"""
            <?xml version="1.0"?><model unit="{unit}" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02">
            <metadata name="Title">x</metadata><resources>{resources}</resources><build>{build}</build></model>
            """));

    private static string AmfOf(string unit = "millimeter", string more = "") => $"""
        <?xml version="1.0"?><amf unit="{unit}"><object id="1"><metadata type="name">block</metadata><mesh>
        <vertices>{AmfVertices(Cube)}</vertices><volume>{AmfTriangles(Cube)}</volume></mesh></object>{more}</amf>
        """;

    private static string AmfVertices(Mesh mesh)
    {
        string At(int i) => mesh.Corners[i].ToString(CultureInfo.InvariantCulture);
        return string.Concat(Enumerable.Range(0, mesh.CornerCount).Select(i =>
            $"<vertex><coordinates><x>{At(3 * i)}</x><y>{At(3 * i + 1)}</y><z>{At(3 * i + 2)}</z></coordinates></vertex>"));
    }

    private static string AmfTriangles(Mesh mesh) => string.Concat(Enumerable.Range(0, mesh.FaceCount)
        .Select(i => $"<triangle><v1>{mesh.Faces[3 * i]}</v1><v2>{mesh.Faces[3 * i + 1]}</v2><v3>{mesh.Faces[3 * i + 2]}</v3></triangle>"));

    private const string ObjText = "# a block\no block\nv 0 0 0\nv 10 0 0\nv 10 20 0\nv 0 20 0\nv 0 0 30\nv 10 0 30\nv 10 20 30\nv 0 "
        + "20 30\nvn 0 0 1\nf 4 3 2 1\nf 5//1 6//1 7//1 8//1\nf 1/1/1 2/1/1 6/1/1 5/1/1\nf 2 3 7 6\nf -6 -5 -1 -2\nf 4 1 5 8\n";

    public static TheoryData<string, byte[]> Good => new()
    {
        { "binary STL", Stl.Write(Cube) },
        { "3MF of ours", ThreeMf.Write("x", [new("block", Cube)]) },
        { "3MF", Model(Object(1), "<item objectid=\"1\"/>") },
        { "3MF in inches", Model(Object(1),
            "<item objectid=\"1\" transform=\"0.0393700787 0 0 0 0.0393700787 0 0 0 0.0393700787 5 5 5\"/>", "inch") },
        { "OBJ of quads", Encoding.ASCII.GetBytes(ObjText) },
        { "AMF", Encoding.ASCII.GetBytes(AmfOf()) },
        { "packed AMF in metres", Zip(("block.amf", AmfOf("meter").Replace(">10<", ">0.01<", StringComparison.Ordinal)
            .Replace(">20<", ">0.02<", StringComparison.Ordinal).Replace(">30<", ">0.03<", StringComparison.Ordinal))) },
    };

    private static readonly byte[][] Files = [.. Good.Select(row => row.Data.Item2)];

    [Theory, MemberData(nameof(Good))]
    public void Every_format_gives_the_same_block(string format, byte[] file)
    {
        var mesh = Assert.Single(MeshFile.Read(file)).Mesh;
        Assert.Equal(6000, mesh.Volume(), 0.01);
        Assert.Equal((8, 12, 0), (mesh.CornerCount, mesh.FaceCount, Neighbours.Of(mesh).OpenEdges));
        Assert.NotEmpty(format);
    }

    [Fact]
    public void Components_and_constellations_are_unfolded_and_mirrored_ones_stay_right_side_out()
    {
        var pair = Object(1, "half") + "<object id=\"2\" name=\"pair\"><components><component objectid=\"1\"/><component "
            + "objectid=\"1\" transform=\"-1 0 0 0 1 0 0 0 1 -5 0 0\"/></components></object>";
        var parts = MeshFile.Read(Model(pair, "<item objectid=\"2\" transform=\"1 0 0 0 1 0 0 0 1 100 0 0\"/><item objectid=\"1\"/>"));
        Assert.Equal(["pair", "half"], parts.Select(p => p.Name));
        Assert.Equal(12000, parts[0].Mesh.Volume(), 0.1);
        Assert.Equal((85f, 110f), (parts[0].Mesh.Box.MinX, parts[0].Mesh.Box.MaxX));

        var two = MeshFile.Read(Encoding.ASCII.GetBytes(
            AmfOf(more: "<constellation id=\"9\"><instance objectid=\"1\"><deltax>50</deltax><rz>90</rz></instance><instance "
                + "objectid=\"1\"/></constellation>")));
        Assert.Equal(2, two.Count);
        Assert.Equal((30f, 50f), (two[0].Mesh.Box.MinX, two[0].Mesh.Box.MaxX));
        Assert.Equal("block", two[0].Name);
    }

    [Fact]
    public void Faces_that_disagree_are_turned_and_a_body_that_is_inside_out_is_turned_whole()
    {
        var wrong = Cube.Faces.ToArray();
        for (var f = 0; f < 4; f++) (wrong[3 * f + 1], wrong[3 * f + 2]) = (wrong[3 * f + 2], wrong[3 * f + 1]);
        Assert.Equal(6000, MeshFile.ReadOne(Stl.Write(Cube with { Faces = wrong })).Volume(), 0.01);
        Assert.Equal(6000, MeshFile.ReadOne(Stl.Write(Cube with { Faces = [.. Cube.Faces.Reverse()] })).Volume(), 0.01);
        // a hollow keeps its inner skin
        var hollow = MeshFile.Joined(
            [Cube, new Mesh([.. Block.Of(4, 4, 4).Corners.Select(c => c + 3)], [.. Block.Of(4, 4, 4).Faces.Reverse()])]);
        Assert.Equal(6000 - 64, MeshFile.ReadOne(Stl.Write(hollow)).Volume(), 0.01);
    }

    [Fact]
    public void An_arranged_bed_is_written_and_read_back()
    {
        var parts = MeshFile.Read(ThreeMf.Write("bed <1> & more",
            [new("a", Placement.Place(Cube, 50, 60, 30)), new("b", Placement.Place(Cube, 90, 60, 0))]));
        Assert.Equal(["a", "b"], parts.Select(p => p.Name));
        Assert.Equal((85f, 95f), (parts[1].Mesh.Box.MinX, parts[1].Mesh.Box.MaxX));
    }

    // A reader of somebody else's: three.js' 3MFLoader from the npm registry, run beside this test on the file we wrote.
    [Fact]
    public async Task Another_reader_finds_the_same_volume_in_a_3MF_of_ours()
    {
        var file = Path.GetTempFileName();
        try
        {
            var mesh = DemoParts.Read("cable-gland");
            File.WriteAllBytes(file, ThreeMf.Write("x", [new("gland", mesh), new("cube", Cube)]));
            Assert.Equal(mesh.Volume() + 6000, await Reference.NumberAsync("volume-of-3mf.mjs", file), 0.5);
        }
        finally { File.Delete(file); }
    }

    private static string Nested(int depth) => Object(1)
        + string.Concat(Enumerable.Range(2, depth)
        .Select(i => $"<object id=\"{i}\"><components><component objectid=\"{i - 1}\"/></components></object>"));
    private static string Doubled(int depth) => Object(1) + string.Concat(Enumerable.Range(2, depth)
        .Select(i => $"<object id=\"{i}\"><components>{Twelve(i - 1)}</components></object>"));
    static string Twelve(int id) => string.Concat(Enumerable.Repeat($"<component objectid=\"{id}\"/>", 12));

    public static TheoryData<string, byte[], string> Broken => new()
    {
        { "nothing", [], "empty" },
        { "an archive of letters", Zip(("letter.txt", "dear")), "neither" },
        { "archive cut short", Model(Object(1), "<item objectid=\"1\"/>")[..^40], "broken" },
        { "XML cut short", Encoding.ASCII.GetBytes(AmfOf()[..900]), "cut short" },
        { "other XML", "<svg xmlns='x'><path/></svg>"u8.ToArray(), "no AMF" },
        { "entities", Encoding.ASCII.GetBytes("<!DOCTYPE amf [<!ENTITY a \"aaaaaaaaaa\">]><amf>&a;</amf>"), "not well-formed" },
        { "a corner that is not there", Model(Object(1)
            .Replace("v2=\"6\"", "v2=\"9\"", StringComparison.Ordinal), "<item objectid=\"1\"/>"), "names corner 9; there are 8" },
        { "NaN", Model(Object(1).Replace("x=\"10\"", "x=\"NaN\"", StringComparison.Ordinal), "<item objectid=\"1\"/>"), "NaN" },
        { "an object in itself", Model("<object id=\"1\"><components><component objectid=\"1\"/></components></object>",
            "<item objectid=\"1\"/>"), "nested" },
        { "nested too deep", Model(Nested(30), "<item objectid=\"31\"/>"), "nested" },
        { "unfolds to very many faces", Model(Doubled(9), "<item objectid=\"10\"/>"), "unfolds" },
        { "an object that is not there", Model(Object(1), "<item objectid=\"7\"/>"), "object 7" },
        { "nothing on the plate", Model(Object(1), ""), "nothing on its build plate" },
        { "an unknown unit", Model(Object(1), "<item objectid=\"1\"/>", "furlong"), "furlong" },
        { "a transform of eleven", Model(Object(1), "<item objectid=\"1\" transform=\"1 0 0 0 1 0 0 0 1 0 0\"/>"), "twelve" },
        { "OBJ with a word", "v 0 0 zero\nf 1 1 1\n"u8.ToArray(), "three numbers" },
        { "OBJ with a corner that is not there", "v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 4\n"u8.ToArray(), "names corner 4" },
        { "OBJ without faces", "v 0 0 0\nv 1 0 0\n"u8.ToArray(), "no face" },
    };

    [Theory, MemberData(nameof(Broken))]
    public void A_broken_file_is_refused_with_a_sentence(string what, byte[] file, string says)
    {
        var refused = Assert.Throws<MeshRefusedException>(() => MeshFile.Read(file));
        Assert.Contains(says, refused.Message, StringComparison.Ordinal);
        Assert.NotEmpty(what);
    }

    [Fact]
    public void An_archive_that_unpacks_past_its_limit_is_refused_in_bounded_memory()
    {
        var file = new MemoryStream();
        using (var archive = new ZipArchive(file, ZipArchiveMode.Create, leaveOpen: true))
        {
            using var entry = archive.CreateEntry("3D/3dmodel.model").Open();
            entry.Write("<model xmlns=\"http://schemas.microsoft.com/3dmanufacturing/core/2015/02\">"u8);
            var blank = new byte[1 << 20];
            blank.AsSpan().Fill((byte)' ');
            for (var i = 0; i < 620; i++) entry.Write(blank);
        }
        Assert.True(file.Length < 1_000_000);
        var before = GC.GetAllocatedBytesForCurrentThread();
        Assert.Throws<MeshRefusedException>(() => MeshFile.Read(file.ToArray()));
        Assert.True(GC.GetAllocatedBytesForCurrentThread() - before < 60_000_000);
    }

    [Fact]
    public void Any_bytes_are_read_or_refused() =>
        Gen.Select(Gen.Int[0, Files.Length - 1], Gen.Int[0, 2000], Gen.Byte.Array[1, 8], Gen.Bool).Sample((which, at, noise, cut) =>
    {
        var file = Files[which];
        var changed = cut ? file[..Math.Min(file.Length, at)] : [.. file];
        if (!cut) for (var i = 0; i < noise.Length && at + i < changed.Length; i++) changed[at + i] = noise[i];
        try { MeshFile.Read(changed); } catch (MeshRefusedException) { }
    }, iter: 10_000);
}

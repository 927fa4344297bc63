using System.Text;
using CsCheck;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using Xunit;

namespace MillCard.Core.Tests;

public class StlTests
{
    private static readonly Mesh Cube = Solids.Box(10, 20, 30);

    [Fact]
    public void Binary_comes_back_with_corners_shared()
    {
        var read = Stl.Read(Stl.Write(Cube));
        Assert.Equal((Cube.FaceCount, 10, 6000.0), (read.FaceCount, read.CornerCount, read.Volume()));
        Assert.Equal(0, Neighbours.Of(read).OpenEdges);
    }

    [Fact]
    public void Ascii_reads_the_same_as_binary()
    {
        var read = Stl.Read(Encoding.ASCII.GetBytes(Ascii(Cube)));
        Assert.Equal(Stl.Read(Stl.Write(Cube)).Box, read.Box);
        Assert.Equal(6000.0, read.Volume(), 1e-6);
    }

    [Fact]
    public void A_binary_file_that_begins_with_the_word_solid_is_told_apart_by_its_length()
    {
        var file = Stl.Write(Cube);
        "solid of somebody"u8.CopyTo(file);
        Assert.Equal(Cube.FaceCount, Stl.Read(file).FaceCount);
    }

    public static TheoryData<string, byte[], string> Broken => new()
    {
        { "empty", [], "empty" },
        { "a picture", [0x89, 0x50, 0x4E, 0x47, .. new byte[200]], "not an STL" },
        { "cut short", Stl.Write(Cube)[..^70], "cut short" },
        { "claims four thousand million faces", Claiming(uint.MaxValue), "not an STL" },
        { "claims more faces than it has", Claiming(500), "claims 500 faces but holds only 16" },
        { "no face", Claiming(0)[..84], "no face" },
        { "holds NaN", With(float.NaN), "not a number" },
        { "is far away", With(3e7f), "farthest" },
        { "ascii cut short", Encoding.ASCII.GetBytes(Ascii(Cube)[..900]), "cut short" },
        { "ascii with a word for a number",
            Encoding.ASCII.GetBytes(Ascii(Cube).Replace("vertex 10", "vertex ten", StringComparison.Ordinal)), "three numbers" },
    };

    [Theory, MemberData(nameof(Broken))]
    public void A_broken_file_is_refused_with_a_sentence(string what, byte[] file, string says)
    {
        var refused = Assert.Throws<MeshRefusedException>(() => Stl.Read(file));
        Assert.Contains(says, refused.Message, StringComparison.Ordinal);
        Assert.EndsWith(".", refused.Message, StringComparison.Ordinal);
        Assert.NotEmpty(what);
    }

    [Fact]
    public void Any_bytes_are_read_or_refused() => Gen.Select(Gen.Byte.Array[0, 400], Gen.Int[0, 3]).Sample((noise, kind) =>
    {
        byte[] file = kind switch
        {
            0 => noise,
            1 => [.. "solid x\nfacet normal 0 0 1\n"u8, .. noise],
            2 => [.. Stl.Write(Cube)[..200], .. noise],
            _ => [.. "solid "u8, .. Stl.Write(Cube)[6..], .. noise]
        };
        try { Stl.Read(file); } catch (MeshRefusedException) { }
    }, iter: 20_000);

    private static byte[] Claiming(uint faces)
    {
        var file = Stl.Write(Cube);
        BitConverter.TryWriteBytes(file.AsSpan(80), faces);
        return file;
    }

    private static byte[] With(float value)
    {
        var file = Stl.Write(Cube);
        BitConverter.TryWriteBytes(file.AsSpan(84 + 12), value);
        return file;
    }

    private static string Ascii(Mesh mesh)
    {
        var text = new StringBuilder("solid cube\n");
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            text.Append("facet normal 0 0 0\n outer loop\n");
            for (var k = 0; k < 3; k++)
            {
                var c = 3 * mesh.Faces[3 * f + k];
                text.Append(System.Globalization.CultureInfo.InvariantCulture,
                    $"  vertex {mesh.Corners[c]} {mesh.Corners[c + 1]} {mesh.Corners[c + 2]}\n");
            }
            text.Append(" endloop\nendfacet\n");
        }
        return text.Append("endsolid cube\n").ToString();
    }
}

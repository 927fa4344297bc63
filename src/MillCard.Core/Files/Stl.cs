using System.Buffers.Binary;
using System.Buffers.Text;
using System.Runtime.InteropServices;
using MillCard.Core.Meshes;

namespace MillCard.Core.Files;

/// <summary>Reads and writes STL, binary and ASCII, units taken as mm. Told apart by content, not by name.</summary>
public static class Stl
{
    /// <summary>Most faces that are read.</summary>
    public const int MostFaces = FaceList.Most;

    private const int Header = 84;
    private const int Record = 50;

    /// <summary>Whether this is an STL: text that begins with the word solid, or as long as its number of faces says.</summary>
    public static bool Is(ReadOnlySpan<byte> file) => IsAscii(file) || IsBinary(file);

    /// <summary>Whether this is exactly as long as a binary STL of the number of faces it names.</summary>
    public static bool IsBinary(ReadOnlySpan<byte> file) => file.Length >= Header
        && Header + (long)BinaryPrimitives.ReadUInt32LittleEndian(file[80..]) * Record == file.Length;

    /// <summary>Reads a mesh; equal corners are welded and faces without area dropped.</summary>
    /// <param name="file">The whole file.</param>
    /// <param name="stop">Ends the reading.</param>
    /// <exception cref="MeshRefusedException">Not an STL, cut short, claims more faces than it has, holds NaN, or has no face.</exception>
    public static Mesh Read(ReadOnlySpan<byte> file, CancellationToken stop = default)
    {
        if (file.Length >= Header)
        {
            var claimed = BinaryPrimitives.ReadUInt32LittleEndian(file[80..]);
            var present = (file.Length - Header) / Record;
            if (Header + (long)claimed * Record == file.Length) return ReadBinary(file, (int)claimed, stop);
            if (!IsAscii(file))
            {
                if (claimed > present && (long)claimed * Record <= (long)MostFaces * Record)
                    throw new MeshRefusedException(
                        $"This STL claims {claimed} faces but holds only {present}: it is cut short. Export it again.");
                throw new MeshRefusedException(
                    "This is not an STL file: its length does not fit the number of faces it names, and it is not text either.");
            }
        }
        if (IsAscii(file)) return ReadAscii(file, stop);
        throw new MeshRefusedException(file.Length == 0 ? "This file is empty."
            : "This is not an STL file: it begins neither as a binary one nor with the word solid.");
    }

    /// <summary>Writes binary STL.</summary>
    public static byte[] Write(Mesh mesh)
    {
        var file = new byte[Header + mesh.FaceCount * Record];
        BinaryPrimitives.WriteInt32LittleEndian(file.AsSpan(80), mesh.FaceCount);
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            var at = file.AsSpan(Header + f * Record + 12);
            for (var k = 0; k < 3; k++)
                for (var c = 0; c < 3; c++)
                    BinaryPrimitives.WriteSingleLittleEndian(at[(12 * k + 4 * c)..], mesh.Corners[3 * mesh.Faces[3 * f + k] + c]);
        }
        return file;
    }

    private static Mesh ReadBinary(ReadOnlySpan<byte> file, int count, CancellationToken stop)
    {
        if (count > MostFaces) throw new MeshRefusedException($"This STL has {count} faces; at most {MostFaces} are read.");
        if (count == 0) throw new MeshRefusedException("This STL has no face.");
        var faces = new FaceList("STL", count, stop);
        Span<float> c = stackalloc float[9];
        for (var f = 0; f < count; f++)
        {
            var at = file.Slice(Header + f * Record + 12, 36);
            if (BitConverter.IsLittleEndian) MemoryMarshal.Cast<byte, float>(at).CopyTo(c);
            else for (var i = 0; i < 9; i++) c[i] = BinaryPrimitives.ReadSingleLittleEndian(at[(4 * i)..]);
            faces.Add(c);
        }
        return faces.ToMesh();
    }

    internal static bool IsAscii(ReadOnlySpan<byte> file)
    {
        var start = 0;
        while (start < file.Length && file[start] <= ' ') start++;
        return file.Length - start >= 5 && Matches(file.Slice(start, 5), "solid"u8) && file[..Math.Min(file.Length, 2048)]
            .IndexOf((byte)0) < 0;
    }

    private static Mesh ReadAscii(ReadOnlySpan<byte> file, CancellationToken stop)
    {
        var faces = new FaceList("STL", Math.Min(MostFaces, file.Length / 200 + 16), stop);
        Span<float> corners = stackalloc float[9];
        var (have, at, line, ended) = (0, 0, 1, false);
        while (Next(file, ref at, ref line) is { Length: > 0 } word)
        {
            if (Matches(word, "vertex"u8))
            {
                if (have == 3) throw new MeshRefusedException($"Line {line} of this STL has a fourth vertex in one facet.");
                for (var i = 0; i < 3; i++)
                {
                    var number = Next(file, ref at, ref line);
                    if (!Utf8Parser.TryParse(number, out float value, out var used) || used != number.Length)
                        throw new MeshRefusedException($"Line {line} of this STL should hold three numbers after the word vertex.");
                    corners[3 * have + i] = value;
                }
                have++;
            }
            else if (Matches(word, "endfacet"u8))
            {
                if (have != 3) throw new MeshRefusedException(
                    $"The facet that ends on line {line} of this STL has {have} vertices instead of 3.");
                if (faces.Count >= MostFaces) throw new MeshRefusedException($"This STL has more than {MostFaces} faces.");
                faces.Add(corners);
                have = 0;
            }
            else if (Matches(word, "endsolid"u8)) ended = true;
            else if (Matches(word, "solid"u8) || Matches(word, "endsolid"u8)) SkipLine(file, ref at);
        }
        if (have > 0 || !ended) throw new MeshRefusedException(
            $"This STL is cut short: it ends on line {line} without the word endsolid. Export it again.");
        if (faces.Count == 0) throw new MeshRefusedException("This STL has no face.");
        return faces.ToMesh();
    }

    private static ReadOnlySpan<byte> Next(ReadOnlySpan<byte> file, ref int at, ref int line)
    {
        while (at < file.Length && file[at] <= ' ') if (file[at++] == '\n') line++;
        var start = at;
        while (at < file.Length && file[at] > ' ') at++;
        return file[start..at];
    }

    private static void SkipLine(ReadOnlySpan<byte> file, ref int at)
    {
        var end = file[at..].IndexOf((byte)'\n');
        at = end < 0 ? file.Length : at + end;
    }

    private static bool Matches(ReadOnlySpan<byte> word, ReadOnlySpan<byte> lower)
    {
        if (word.Length != lower.Length) return false;
        for (var i = 0; i < word.Length; i++) if ((word[i] | 0x20) != lower[i]) return false;
        return true;
    }
}

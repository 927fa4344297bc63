using System.Buffers.Text;
using MillCard.Core.Meshes;

namespace MillCard.Core.Files;

/// <summary>Reads OBJ, units taken as mm: corners and faces; faces of more corners are cut into a fan.</summary>
internal static class Obj
{
    private const string Format = "OBJ";
    private const int Looked = 20_000;
    private const int Beat = 1 << 14;

    /// <summary>Whether this is one: text whose first statements are an OBJ's.</summary>
    public static bool Is(ReadOnlySpan<byte> file)
    {
        var begin = file[..Math.Min(file.Length, Looked)];
        if (begin.IndexOf((byte)0) >= 0 || Stl.IsAscii(file)) return false;
        foreach (var range in begin.Split((byte)'\n'))
        {
            var line = Trimmed(begin[range]);
            if (line.Length == 0 || line[0] == '#') continue;
            var word = line[..(line.IndexOf((byte)' ') is var end and >= 0 ? end : line.Length)];
            if (word.SequenceEqual("v"u8) || word.SequenceEqual("mtllib"u8) || word.SequenceEqual("o"u8) || word.SequenceEqual("g"u8)
                || word.SequenceEqual("vn"u8) || word.SequenceEqual("vt"u8)) return true;
            return false;
        }
        return false;
    }

    /// <exception cref="MeshRefusedException">A statement cannot be read, or a face names a corner that is not there.</exception>
    public static Mesh Read(ReadOnlySpan<byte> file, CancellationToken stop)
    {
        var corners = new List<float>();
        var faces = new FaceList(Format, Math.Min(FaceList.Most, file.Length / 40 + 16), stop);
        Span<float> triangle = stackalloc float[9];
        var polygon = new List<int>();
        var number = 0;
        foreach (var range in file.Split((byte)'\n'))
        {
            if (number++ % Beat == 0) stop.ThrowIfCancellationRequested();
            var line = Trimmed(file[range]);
            if (line.Length < 2 || line[1] is not ((byte)' ' or (byte)'\t')) continue;
            if (line[0] == 'v') Corner(line[2..], number, corners);
            else if (line[0] == 'f')
            {
                Face(line[2..], number, corners.Count / 3, polygon);
                for (var i = 2; i < polygon.Count; i++)
                {
                    Put(triangle, 0, polygon[0]); Put(triangle, 1, polygon[i - 1]); Put(triangle, 2, polygon[i]);
                    faces.Add(triangle);
                }
            }
        }
        return faces.Count == 0 ? throw new MeshRefusedException("This OBJ has no face.") : faces.ToMesh();

        void Put(Span<float> into, int at, int corner)
        {
            for (var k = 0; k < 3; k++) into[3 * at + k] = corners[3 * corner + k];
        }
    }

    private static ReadOnlySpan<byte> Trimmed(ReadOnlySpan<byte> line) => line.Trim(" \t\r"u8);

    private static void Corner(ReadOnlySpan<byte> rest, int line, List<float> corners)
    {
        for (var i = 0; i < 3; i++)
        {
            rest = rest.TrimStart(" \t"u8);
            if (!Utf8Parser.TryParse(rest, out float value, out var used) || !float.IsFinite(value))
                throw new MeshRefusedException($"Line {line} of this OBJ should hold three numbers after v.");
            corners.Add(value);
            rest = rest[used..];
        }
        if (corners.Count > 9L * FaceList.Most) throw new MeshRefusedException("This OBJ has too many corners.");
    }

    private static void Face(ReadOnlySpan<byte> rest, int line, int count, List<int> polygon)
    {
        polygon.Clear();
        while ((rest = rest.TrimStart(" \t"u8)).Length > 0)
        {
            if (!Utf8Parser.TryParse(rest, out int index, out _))
                throw new MeshRefusedException($"Line {line} of this OBJ should name corners after f.");
            // negative ones count back from the last corner so far
            var corner = index > 0 ? index - 1 : count + index;
            if (index == 0 || corner < 0 || corner >= count)
                throw new MeshRefusedException($"Line {line} of this OBJ names corner {index}; there are {count} so far.");
            polygon.Add(corner);
            var end = rest.IndexOfAny((byte)' ', (byte)'\t');
            rest = end < 0 ? [] : rest[end..];
        }
        if (polygon.Count < 3) throw new MeshRefusedException($"The face on line {line} of this OBJ has {polygon.Count} corners.");
    }
}

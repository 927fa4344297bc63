using System.Runtime.InteropServices;
using MillCard.Core.Meshes;

namespace MillCard.Core.Files;

/// <summary>A mesh as a compact binary, for the pictorial view.</summary>
/// <remarks>
/// Little-endian. Header: "MCS1", int32 corners, int32 faces, int32 edges, int32 faces of the file. Then float32 x, y, z a corner;
/// int32 × 3 corner numbers a face; int32 × 4 an edge: its two corners and the faces on either side, −1 where there is none. Where fewer
/// faces stand than the file has, an int32 a face follows: its number in the file.
/// </remarks>
public static class SolidFile
{
    /// <summary>Most faces that are drawn; a mesh with more is cut down.</summary>
    public const int Most = 200_000;

    /// <summary>Writes a mesh as its file has it.</summary>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="stop">Ends it.</param>
    public static byte[] Write(Mesh mesh, CancellationToken stop = default)
    {
        var (drawn, numbers) = CutDown.To(mesh, Most, stop);
        var edges = Edges(drawn, stop);
        var file = new MemoryStream();
        file.Write("MCS1"u8);
        Ints([drawn.CornerCount, drawn.FaceCount, edges.Length / 4, mesh.FaceCount]);
        file.Write(MemoryMarshal.AsBytes(drawn.Corners.AsSpan()));
        Ints(drawn.Faces);
        Ints(edges);
        Ints(numbers ?? []);
        return file.ToArray();

        void Ints(ReadOnlySpan<int> values) => file.Write(MemoryMarshal.AsBytes(values));
    }

    private static int[] Edges(Mesh mesh, CancellationToken stop)
    {
        var across = Neighbours.Of(mesh, stop);
        var edges = new List<int>(mesh.Faces.Length * 2);
        for (var h = 0; h < mesh.Faces.Length; h++)
        {
            var other = across.Across(h);
            if (other >= 0 && other < h) continue;
            edges.AddRange([mesh.Faces[h], mesh.Faces[h % 3 == 2 ? h - 2 : h + 1], h / 3, other < 0 ? -1 : other / 3]);
        }
        return [.. edges];
    }
}

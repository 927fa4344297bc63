using MillCard.Core.Meshes;

namespace MillCard.Core.Files;

/// <summary>A part as a file has it.</summary>
/// <param name="Name">Its name; null where the file has none.</param>
/// <param name="Mesh">mm.</param>
public sealed record FilePart(string? Name, Mesh Mesh);

/// <summary>Reads mesh files of every known format, told apart by content.</summary>
public static class MeshFile
{
    /// <summary>Most parts of one file.</summary>
    public const int MostParts = 500;

    /// <summary>The parts in a file, repaired as far as that can be done without guessing.</summary>
    /// <param name="file">The whole file.</param>
    /// <param name="stop">Ends the reading.</param>
    /// <exception cref="MeshRefusedException">None of the formats, cut short, claims more than it has, holds NaN, or unpacks past its
    /// limit.</exception>
    public static IReadOnlyList<FilePart> Read(ReadOnlyMemory<byte> file, CancellationToken stop = default)
    {
        var parts = file.Span switch
        {
            // a length that fits its number of faces exactly says more than how a file begins: headers hold anything
            var stl when Stl.IsBinary(stl) => [new FilePart(null, Stl.Read(stl, stop))],
            [(byte)'P', (byte)'K', 3, 4, ..] => Packed.Read(file, stop),
            var text when StartsWith(text, "<"u8) => Amf.Read(file, stop),
            var text when Obj.Is(text) => [new FilePart(null, Obj.Read(text, stop))],
            var stl => [new FilePart(null, Stl.Read(stl, stop))],
        };
        if (parts.Count > MostParts) throw new MeshRefusedException(
            $"This file holds {parts.Count} parts; at most {MostParts} are read, as many as lie on a bed.");
        return [.. parts.Select(p => p with { Mesh = Orientation.Repaired(p.Mesh, stop) })];
    }

    /// <summary>All parts of a file as one mesh.</summary>
    /// <exception cref="MeshRefusedException">As <see cref="Read"/>.</exception>
    public static Mesh ReadOne(ReadOnlyMemory<byte> file, CancellationToken stop = default) =>
        Joined([.. Read(file, stop).Select(p => p.Mesh)]);

    /// <summary>Several meshes as one.</summary>
    public static Mesh Joined(IReadOnlyList<Mesh> meshes)
    {
        if (meshes.Count == 1) return meshes[0];
        var (corners, faces) = (new float[meshes.Sum(m => m.Corners.Length)], new int[meshes.Sum(m => m.Faces.Length)]);
        var (c, f) = (0, 0);
        foreach (var mesh in meshes)
        {
            for (var i = 0; i < mesh.Faces.Length; i++) faces[f + i] = mesh.Faces[i] + c / 3;
            mesh.Corners.CopyTo(corners, c);
            (c, f) = (c + mesh.Corners.Length, f + mesh.Faces.Length);
        }
        return new Mesh(corners, faces) { RepeatedFaces = meshes.Sum(m => m.RepeatedFaces) };
    }

    internal static bool StartsWith(ReadOnlySpan<byte> file, ReadOnlySpan<byte> word)
    {
        if (file.StartsWith("\uFEFF"u8)) file = file[3..];
        while (file.Length > 0 && file[0] <= ' ') file = file[1..];
        return file.StartsWith(word);
    }
}

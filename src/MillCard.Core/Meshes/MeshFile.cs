namespace MillCard.Core.Meshes;

/// <summary>A part as a file has it.</summary>
/// <param name="Name">Its name; null where the file has none.</param>
/// <param name="Mesh">mm.</param>
public sealed record FilePart(string? Name, Mesh Mesh);

/// <summary>Reads mesh files of every known format, told apart by content.</summary>
public static class MeshFile
{
    /// <summary>The parts in a file, repaired as far as that can be done without guessing.</summary>
    /// <param name="file">The whole file.</param>
    /// <exception cref="MeshRefusedException">None of the formats, cut short, claims more than it has, holds NaN, or unpacks past its limit.</exception>
    public static IReadOnlyList<FilePart> Read(ReadOnlyMemory<byte> file)
    {
        var parts = file.Span switch
        {
            [(byte)'P', (byte)'K', 3, 4, ..] => Packed.Read(file),
            var text when StartsWith(text, "<"u8) => Amf.Read(file),
            var text when Obj.Is(text) => [new FilePart(null, Obj.Read(text))],
            var stl => [new FilePart(null, Stl.Read(stl))],
        };
        return [.. parts.Select(p => p with { Mesh = Orientation.Repaired(p.Mesh) })];
    }

    /// <summary>All parts of a file as one mesh.</summary>
    /// <exception cref="MeshRefusedException">As <see cref="Read"/>.</exception>
    public static Mesh ReadOne(ReadOnlyMemory<byte> file) => Joined([.. Read(file).Select(p => p.Mesh)]);

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
        return new Mesh(corners, faces);
    }

    internal static bool StartsWith(ReadOnlySpan<byte> file, ReadOnlySpan<byte> word)
    {
        if (file.StartsWith("\uFEFF"u8)) file = file[3..];
        while (file.Length > 0 && file[0] <= ' ') file = file[1..];
        return file.StartsWith(word);
    }
}

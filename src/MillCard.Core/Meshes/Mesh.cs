namespace MillCard.Core.Meshes;

/// <summary>A triangle mesh with shared corners, mm.</summary>
/// <param name="Corners">x, y, z of corner 0, then of corner 1, …</param>
/// <param name="Faces">Three corner numbers a face, counter-clockwise seen from outside.</param>
public sealed record Mesh(float[] Corners, int[] Faces)
{
    private (float, float, float, float, float, float)? _box;

    /// <summary>Faces that stood in the file more than once and were taken once.</summary>
    public int RepeatedFaces { get; init; }

    /// <summary>Number of faces.</summary>
    public int FaceCount => Faces.Length / 3;

    /// <summary>Number of corners.</summary>
    public int CornerCount => Corners.Length / 3;

    /// <summary>Least and greatest x, y, z.</summary>
    public (float MinX, float MinY, float MinZ, float MaxX, float MaxY, float MaxZ) Box => _box ??= ComputeBox();

    /// <summary>Volume enclosed, mm³: the sum of the signed tetrahedra under the faces.</summary>
    public double Volume()
    {
        var six = 0.0;
        for (var f = 0; f < Faces.Length; f += 3)
        {
            var (a, b, c) = (3 * Faces[f], 3 * Faces[f + 1], 3 * Faces[f + 2]);
            double ax = Corners[a], ay = Corners[a + 1], az = Corners[a + 2];
            double bx = Corners[b], by = Corners[b + 1], bz = Corners[b + 2];
            double cx = Corners[c], cy = Corners[c + 1], cz = Corners[c + 2];
            six += ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx);
        }
        return six / 6;
    }

    private (float, float, float, float, float, float) ComputeBox()
    {
        if (Corners.Length == 0) return default;
        float minX = float.MaxValue, minY = float.MaxValue, minZ = float.MaxValue, maxX = float.MinValue, maxY = float.MinValue,
            maxZ = float.MinValue;
        for (var i = 0; i < Corners.Length; i += 3)
        {
            minX = Math.Min(minX, Corners[i]); maxX = Math.Max(maxX, Corners[i]);
            minY = Math.Min(minY, Corners[i + 1]); maxY = Math.Max(maxY, Corners[i + 1]);
            minZ = Math.Min(minZ, Corners[i + 2]); maxZ = Math.Max(maxZ, Corners[i + 2]);
        }
        return (minX, minY, minZ, maxX, maxY, maxZ);
    }
}

namespace MillCard.Core.Meshes;

/// <summary>Makes a mesh of many faces smaller, so that it can be drawn: corners in one cell of a grid become one.</summary>
public static class CutDown
{
    private const int FirstCells = 1024;

    /// <summary>The mesh with at most so many faces, and the numbers that its faces have in the whole one.</summary>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="most">Most faces.</param>
    /// <param name="stop">Ends it.</param>
    /// <returns>The mesh itself and no numbers where it has no more faces than that.</returns>
    public static (Mesh Mesh, int[]? Faces) To(Mesh mesh, int most, CancellationToken stop = default)
    {
        if (mesh.FaceCount <= most) return (mesh, null);
        var box = mesh.Box;
        var longest = Math.Max(1e-6, Math.Max(box.MaxX - box.MinX, Math.Max(box.MaxY - box.MinY, box.MaxZ - box.MinZ)));
        for (var cells = FirstCells; ; cells = cells * 3 / 4)
        {
            stop.ThrowIfCancellationRequested();
            var made = Clustered(mesh, cells / longest);
            if (made.Faces.Length <= most) return made;
        }
    }

    private static (Mesh Mesh, int[] Faces) Clustered(Mesh mesh, double cellsAMillimetre)
    {
        var (corners, box) = (mesh.Corners, mesh.Box);
        var (firstOf, stands) = (new Dictionary<(int, int, int), int>(), new int[mesh.CornerCount]);
        for (var i = 0; i < stands.Length; i++)
        {
            var cell = (Cell(corners[3 * i], box.MinX), Cell(corners[3 * i + 1], box.MinY), Cell(corners[3 * i + 2], box.MinZ));
            if (!firstOf.TryGetValue(cell, out stands[i])) firstOf[cell] = stands[i] = i;
        }
        var (faces, numbers) = (new List<int>(), new List<int>());
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            var (a, b, c) = (stands[mesh.Faces[3 * f]], stands[mesh.Faces[3 * f + 1]], stands[mesh.Faces[3 * f + 2]]);
            if (a == b || b == c || c == a) continue;
            faces.AddRange([a, b, c]);
            numbers.Add(f);
        }
        return (new Mesh(corners, [.. faces]), [.. numbers]);

        int Cell(float value, float least) => (int)((value - least) * cellsAMillimetre);
    }
}

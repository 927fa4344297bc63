namespace MillCard.Core.Meshes;

/// <summary>Faces of a part that lie in one plane and look down, above its floor.</summary>
/// <param name="Area">mm².</param>
/// <param name="Height">Of its lowest point above the part's floor, mm.</param>
/// <param name="Lean">From the upright, degrees: 90 for a flat underside.</param>
/// <param name="Width">Along X as the part stands, mm.</param>
/// <param name="Depth">Along Y as the part stands, mm.</param>
/// <param name="Faces">Numbers of its faces, counted from 0.</param>
public sealed record Underside(double Area, double Height, double Lean, double Width, double Depth, IReadOnlyList<int> Faces);

/// <summary>Finds the undersides of a part, where supports can be marked as wanted or unwanted.</summary>
public static class Undersides
{
    private const double Floor = 0.01;
    private const double LeastArea = 1;
    private const double LeastLean = 10;

    /// <summary>The undersides, largest first.</summary>
    /// <param name="mesh">The part as it stands.</param>
    /// <param name="most">How many at most.</param>
    public static IReadOnlyList<Underside> Of(Mesh mesh, int most = 30)
    {
        var planes = new Dictionary<(int, int, int, int), List<int>>();
        var floor = mesh.Box.MinZ;
        var steepest = -Math.Sin(LeastLean * Math.PI / 180);
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            var (nx, ny, nz) = FlatSides.Normal(mesh, f);
            var twice = Math.Sqrt(nx * nx + ny * ny + nz * nz);
            if (twice < 1e-9 || nz / twice > steepest) continue;
            var (x, y, z) = (nx / twice, ny / twice, nz / twice);
            var at = 3 * mesh.Faces[3 * f];
            var offset = x * mesh.Corners[at] + y * mesh.Corners[at + 1] + z * mesh.Corners[at + 2];
            if (Math.Abs(z + 1) < 1e-6 && mesh.Corners[at + 2] - floor < Floor) continue;
            var key = ((int)Math.Round(x * 200), (int)Math.Round(y * 200), (int)Math.Round(z * 200), (int)Math.Round(offset * 20));
            if (!planes.TryGetValue(key, out var faces)) planes[key] = faces = [];
            faces.Add(f);
        }
        return [.. planes.Values.Select(faces => Of(mesh, faces, floor)).Where(u => u.Area >= LeastArea).OrderByDescending(u => u.Area)
            .Take(most)];
    }

    private static Underside Of(Mesh mesh, List<int> faces, double floor)
    {
        var (area, down) = (0.0, 0.0);
        var (minX, minY, minZ, maxX, maxY) = (double.MaxValue, double.MaxValue, double.MaxValue, double.MinValue, double.MinValue);
        foreach (var f in faces)
        {
            var (nx, ny, nz) = FlatSides.Normal(mesh, f);
            area += Math.Sqrt(nx * nx + ny * ny + nz * nz) / 2;
            down -= nz / 2;
            for (var k = 0; k < 3; k++)
            {
                var at = 3 * mesh.Faces[3 * f + k];
                (minX, maxX) = (Math.Min(minX, mesh.Corners[at]), Math.Max(maxX, mesh.Corners[at]));
                (minY, maxY) = (Math.Min(minY, mesh.Corners[at + 1]), Math.Max(maxY, mesh.Corners[at + 1]));
                minZ = Math.Min(minZ, mesh.Corners[at + 2]);
            }
        }
        return new Underside(area, minZ - floor, Math.Asin(Math.Clamp(down / area, 0, 1)) * 180 / Math.PI, maxX - minX, maxY - minY, faces);
    }
}

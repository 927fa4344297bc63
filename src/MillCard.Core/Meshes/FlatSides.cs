using MillCard.Core.Documents;

namespace MillCard.Core.Meshes;

/// <summary>A flat side on which a part can stand.</summary>
/// <param name="Area">Area of the faces that touch the plate, mm².</param>
/// <param name="Tilt">The tilt that sets the part on it.</param>
/// <param name="Height">Height of the part when it stands on it, mm.</param>
public sealed record FlatSide(double Area, Tilt Tilt, double Height);

/// <summary>Finds the flat sides on which a part can stand: planes with faces in them and nothing of the part beyond.</summary>
public static class FlatSides
{
    private const double Beyond = 0.01;
    private const int Tried = 400;

    /// <summary>The sides, largest first.</summary>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="most">How many at most.</param>
    public static IReadOnlyList<FlatSide> Of(Mesh mesh, int most = 24)
    {
        var planes = new Dictionary<(int, int, int, int), (double Area, double X, double Y, double Z)>();
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            var (nx, ny, nz) = Normal(mesh, f);
            var twice = Math.Sqrt(nx * nx + ny * ny + nz * nz);
            if (twice < 1e-9) continue;
            var (x, y, z) = (nx / twice, ny / twice, nz / twice);
            var at = 3 * mesh.Faces[3 * f];
            var offset = x * mesh.Corners[at] + y * mesh.Corners[at + 1] + z * mesh.Corners[at + 2];
            var key = ((int)Math.Round(x * 500), (int)Math.Round(y * 500), (int)Math.Round(z * 500), (int)Math.Round(offset * 20));
            var sum = planes.GetValueOrDefault(key);
            planes[key] = (sum.Area + twice / 2, sum.X + nx, sum.Y + ny, sum.Z + nz);
        }
        return [.. planes.Values.OrderByDescending(p => p.Area).Take(Tried).Select(p => Side(mesh, p)).OfType<FlatSide>().Take(most)];
    }

    private static FlatSide? Side(Mesh mesh, (double Area, double X, double Y, double Z) plane)
    {
        var length = Math.Sqrt(plane.X * plane.X + plane.Y * plane.Y + plane.Z * plane.Z);
        if (length < 1e-9) return null;
        var (x, y, z) = (plane.X / length, plane.Y / length, plane.Z / length);
        var tilt = Down(x, y, z);
        var stood = Placement.Oriented(mesh, null, tilt);
        var floor = stood.Box.MinZ;
        var touching = 0.0;
        for (var f = 0; f < stood.FaceCount; f++)
        {
            if (Z(stood, f, 0) - floor > Beyond || Z(stood, f, 1) - floor > Beyond || Z(stood, f, 2) - floor > Beyond) continue;
            touching -= Normal(stood, f).Z / 2;
        }
        return touching < 0.5 * plane.Area ? null : new FlatSide(touching, tilt, stood.Box.MaxZ - floor);
    }

    /// <summary>The tilt that sets a part on one of its faces; null where there is no such face, or it has no area.</summary>
    /// <param name="mesh">As its file has it.</param>
    /// <param name="scale">Ratios; null for none.</param>
    /// <param name="face">Its number, counted from 0.</param>
    public static Tilt? OnFace(Mesh mesh, PartScale? scale, int face)
    {
        if (face < 0 || face >= mesh.FaceCount) return null;
        var (x, y, z) = Normal(Placement.Oriented(mesh, scale, null), face);
        var twice = Math.Sqrt(x * x + y * y + z * z);
        return twice < 1e-9 ? null : Down(x / twice, y / twice, z / twice);
    }

    /// <summary>The tilt that turns a direction straight down: about X until it lies in the XZ plane, then about Y.</summary>
    public static Tilt Down(double x, double y, double z)
    {
        // about X by a: y' = y cos a − z sin a = 0 with z' = y sin a + z cos a ≤ 0; about Y by b: x'' = x cos b + z' sin b = 0
        var a = Math.Abs(y) < 1e-12 && z <= 0 ? 0 : Math.Atan2(-y, -z);
        var down = y * Math.Sin(a) + z * Math.Cos(a);
        var b = Math.Atan2(x, -down);
        return new Tilt { X = Degrees(a), Y = Degrees(b) };
    }

    private static double Degrees(double radians) => Math.Round(radians * 180 / Math.PI, 6) + 0.0;

    internal static double Z(Mesh mesh, int face, int k) => mesh.Corners[3 * mesh.Faces[3 * face + k] + 2];

    internal static (double X, double Y, double Z) Normal(Mesh mesh, int face)
    {
        var (a, b, c) = (3 * mesh.Faces[3 * face], 3 * mesh.Faces[3 * face + 1], 3 * mesh.Faces[3 * face + 2]);
        var p = mesh.Corners;
        var (ux, uy, uz) = ((double)p[b] - p[a], (double)p[b + 1] - p[a + 1], (double)p[b + 2] - p[a + 2]);
        var (vx, vy, vz) = ((double)p[c] - p[a], (double)p[c + 1] - p[a + 1], (double)p[c + 2] - p[a + 2]);
        return (uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
    }
}

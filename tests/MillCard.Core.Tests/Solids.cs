using MillCard.Core.Files;
using MillCard.Core.Meshes;

namespace MillCard.Core.Tests;

/// <summary>Solids with known volumes and sections.</summary>
internal static class Solids
{
    public static Mesh Box(double w, double d, double h) => Prism([(0, 0), (w, 0), (w, d), (0, d)], h);

    public static Mesh Cylinder(double r, double h, int n = 720) =>
        Prism([.. Enumerable.Range(0, n).Select(i => (r * Math.Cos(2 * Math.PI * i / n), r * Math.Sin(2 * Math.PI * i / n)))], h);

    /// <summary>A prism over a star-shaped outline about its first corners' mean.</summary>
    public static Mesh Prism((double X, double Y)[] outline, double h)
    {
        var n = outline.Length;
        var (cx, cy) = (outline.Average(p => p.X), outline.Average(p => p.Y));
        var corners = new List<float>();
        foreach (var z in new[] { 0, h })
        {
            foreach (var (x, y) in outline) corners.AddRange(
            [(float)x, (float)y, (float)z]); corners.AddRange([(float)cx, (float)cy, (float)z]);
        }
        var faces = new List<int>();
        for (var i = 0; i < n; i++)
        {
            var j = (i + 1) % n;
            faces.AddRange([j, i, n, i + n + 1, j + n + 1, 2 * n + 1, i, j, j + n + 1, i, j + n + 1, i + n + 1]);
        }
        return new Mesh([.. corners], [.. faces]);
    }

    /// <summary>A closed surface of revolution about Z from (radius, z) points that begin and end at radius 0.</summary>
    public static Mesh Revolved(Func<double, (double R, double Z)> profile, int rings, int n)
    {
        var corners = new List<float>();
        for (var k = 0; k <= rings; k++)
        {
            var (r, z) = profile((double)k / rings);
            for (var i = 0; i < n; i++)
                corners.AddRange([(float)(r * Math.Cos(2 * Math.PI * i / n)), (float)(r * Math.Sin(2 * Math.PI * i / n)), (float)z]);
        }
        return Grid(corners, rings, n, wrap: false);
    }

    public static Mesh Torus(double ring, double tube, int rings, int n)
    {
        var corners = new List<float>();
        for (var k = 0; k < rings; k++)
        {
            var (r, z) = (ring + tube * Math.Cos(2 * Math.PI * k / rings), tube + tube * Math.Sin(2 * Math.PI * k / rings));
            for (var i = 0; i < n; i++)
                corners.AddRange([(float)(r * Math.Cos(2 * Math.PI * i / n)), (float)(r * Math.Sin(2 * Math.PI * i / n)), (float)z]);
        }
        return Grid(corners, rings, n, wrap: true);
    }

    private static Mesh Grid(List<float> corners, int rings, int n, bool wrap)
    {
        var rows = corners.Count / 3 / n;
        var faces = new List<int>();
        for (var k = 0; k < rings; k++)
            for (var i = 0; i < n; i++)
            {
                var (a, b, c, d) = (k * n + i, k * n + (i + 1) % n, (k + 1) % rows * n + (i + 1) % n, (k + 1) % rows * n + i);
                if (!wrap && k + 1 > rings) continue;
                faces.AddRange([a, b, c, a, c, d]);
            }
        // welding drops the faces that shrink to a point at the poles
        return Stl.Read(Stl.Write(new Mesh([.. corners], [.. faces])));
    }
}

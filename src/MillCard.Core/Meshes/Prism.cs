using NetTopologySuite.Geometries;

namespace MillCard.Core.Meshes;

/// <summary>Upright solids over convex outlines.</summary>
public static class Prism
{
    /// <summary>The solid over an outline, from z = 0 up.</summary>
    /// <param name="outline">Convex.</param>
    /// <param name="height">mm.</param>
    public static Mesh Of(Polygon outline, double height)
    {
        var ring = outline.ExteriorRing.Coordinates[..^1];
        if (!NetTopologySuite.Algorithm.Orientation.IsCCW(outline.ExteriorRing.Coordinates)) Array.Reverse(ring);
        var n = ring.Length;
        var corners = new List<float>(6 * n);
        foreach (var z in new[] { 0f, (float)height })
            foreach (var corner in ring) corners.AddRange([(float)corner.X, (float)corner.Y, z]);
        var faces = new List<int>(12 * n);
        for (var i = 0; i < n; i++)
        {
            var next = (i + 1) % n;
            faces.AddRange([i, next, n + next, i, n + next, n + i]);
            if (i is > 0 && i < n - 1) faces.AddRange([0, next, i, n, n + i, n + next]);
        }
        return new Mesh([.. corners], [.. faces]);
    }
}

using MillCard.Core.Documents;

namespace MillCard.Core.Meshes;

/// <summary>Puts a mesh where a trial says.</summary>
public static class Placement
{
    /// <summary>The mesh turned about Z, the middle of its bounding box at x, y in the bed frame, its lowest point at z = 0.</summary>
    public static Mesh Place(Mesh mesh, TrialPart part) => Place(mesh, part.X, part.Y, part.Turn);

    /// <summary>The mesh turned about Z, the middle of its bounding box at x, y in the bed frame, its lowest point at z = 0.</summary>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="x">mm.</param>
    /// <param name="y">mm.</param>
    /// <param name="turn">Degrees, counter-clockwise.</param>
    public static Mesh Place(Mesh mesh, double x, double y, double turn)
    {
        var turned = Turned(mesh, turn);
        var box = turned.Box;
        var (dx, dy, dz) = (x - ((double)box.MinX + box.MaxX) / 2, y - ((double)box.MinY + box.MaxY) / 2, -(double)box.MinZ);
        var corners = turned.Corners.ToArray();
        for (var i = 0; i < corners.Length; i += 3)
        {
            corners[i] = (float)(corners[i] + dx);
            corners[i + 1] = (float)(corners[i + 1] + dy);
            corners[i + 2] = (float)(corners[i + 2] + dz);
        }
        return new Mesh(corners, turned.Faces);
    }

    private static Mesh Turned(Mesh mesh, double turn)
    {
        if (turn % 360 == 0) return mesh;
        var (sin, cos) = SinCos(turn);
        var corners = mesh.Corners.ToArray();
        for (var i = 0; i < corners.Length; i += 3)
        {
            var (px, py) = ((double)corners[i], (double)corners[i + 1]);
            corners[i] = (float)(cos * px - sin * py);
            corners[i + 1] = (float)(sin * px + cos * py);
        }
        return new Mesh(corners, mesh.Faces);
    }

    /// <summary>Sine and cosine, exact at quarter turns.</summary>
    internal static (double Sin, double Cos) SinCos(double degrees) => (((degrees % 360) + 360) % 360) switch
    {
        0 => (0, 1),
        90 => (1, 0),
        180 => (0, -1),
        270 => (-1, 0),
        var rest => Math.SinCos(rest * Math.PI / 180),
    };
}

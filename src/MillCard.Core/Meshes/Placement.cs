using MillCard.Core.Documents;

namespace MillCard.Core.Meshes;

/// <summary>Puts a mesh where a trial says.</summary>
public static class Placement
{
    /// <summary>The mesh turned about Z, the middle of its bounding box at x, y in the bed frame, its lowest point as high as the part is
    /// lifted.</summary>
    public static Mesh Place(Mesh mesh, TrialPart part) =>
        Place(Oriented(mesh, part.Scale, part.Tilt), part.X, part.Y, part.Turn, part.Lift);

    /// <summary>The mesh mirrored, scaled along its own axes, then tilted about X, then about Y.</summary>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="scale">Ratios, and whether it is mirrored; null for none.</param>
    /// <param name="tilt">Degrees; null for none.</param>
    public static Mesh Oriented(Mesh mesh, PartScale? scale, Tilt? tilt)
    {
        var isMirrored = scale?.Mirrored == true;
        var (sx, sy, sz) = ((scale?.X ?? 1) * (isMirrored ? -1 : 1), scale?.Y ?? 1, scale?.Z ?? 1);
        var ((sinX, cosX), (sinY, cosY)) = (SinCos(tilt?.X ?? 0), SinCos(tilt?.Y ?? 0));
        if ((sx, sy, sz, sinX, cosX, sinY, cosY) == (1, 1, 1, 0, 1, 0, 1)) return mesh;
        var corners = new float[mesh.Corners.Length];
        for (var i = 0; i < corners.Length; i += 3)
        {
            var (x, y, z) = (sx * mesh.Corners[i], sy * mesh.Corners[i + 1], sz * mesh.Corners[i + 2]);
            (y, z) = (cosX * y - sinX * z, sinX * y + cosX * z);
            (x, z) = (cosY * x + sinY * z, cosY * z - sinY * x);
            (corners[i], corners[i + 1], corners[i + 2]) = ((float)x, (float)y, (float)z);
        }
        return new Mesh(corners, isMirrored ? TurnedRound(mesh.Faces) : mesh.Faces);
    }

    /// <summary>Faces seen from their other side; each keeps its number.</summary>
    private static int[] TurnedRound(int[] faces)
    {
        var turned = faces.ToArray();
        for (var f = 0; f < turned.Length; f += 3) (turned[f + 1], turned[f + 2]) = (turned[f + 2], turned[f + 1]);
        return turned;
    }

    /// <summary>The mesh turned about Z, the middle of its bounding box at x, y in the bed frame, its lowest point at a height.</summary>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="x">mm.</param>
    /// <param name="y">mm.</param>
    /// <param name="turn">Degrees, counter-clockwise.</param>
    /// <param name="lift">Of its lowest point, mm.</param>
    public static Mesh Place(Mesh mesh, double x, double y, double turn, double lift = 0)
    {
        var turned = Turned(mesh, turn);
        var box = turned.Box;
        var (dx, dy, dz) = (x - ((double)box.MinX + box.MaxX) / 2, y - ((double)box.MinY + box.MaxY) / 2, lift - (double)box.MinZ);
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

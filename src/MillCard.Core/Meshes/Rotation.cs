using MillCard.Core.Documents;

namespace MillCard.Core.Meshes;

/// <summary>A rotation in space by its matrix, rows first.</summary>
internal readonly record struct Rotation(double XX, double XY, double XZ, double YX, double YY, double YZ, double ZX, double ZY, double ZZ)
{
    /// <summary>How a part stands: tilted about X, then about Y, then turned about Z.</summary>
    public static Rotation Of(double turn, Tilt? tilt)
    {
        var (sinX, cosX) = Placement.SinCos(tilt?.X ?? 0);
        var (sinY, cosY) = Placement.SinCos(tilt?.Y ?? 0);
        var (sinZ, cosZ) = Placement.SinCos(turn);
        var aboutX = new Rotation(1, 0, 0, 0, cosX, -sinX, 0, sinX, cosX);
        var aboutY = new Rotation(cosY, 0, sinY, 0, 1, 0, -sinY, 0, cosY);
        var aboutZ = new Rotation(cosZ, -sinZ, 0, sinZ, cosZ, 0, 0, 0, 1);
        return aboutZ.After(aboutY.After(aboutX));
    }

    /// <summary>The way back.</summary>
    public Rotation Back => new(XX, YX, ZX, XY, YY, ZY, XZ, YZ, ZZ);

    /// <summary>Another one, then this one.</summary>
    public Rotation After(Rotation first) => new(
        XX * first.XX + XY * first.YX + XZ * first.ZX, XX * first.XY + XY * first.YY + XZ * first.ZY,
        XX * first.XZ + XY * first.YZ + XZ * first.ZZ,
        YX * first.XX + YY * first.YX + YZ * first.ZX, YX * first.XY + YY * first.YY + YZ * first.ZY,
        YX * first.XZ + YY * first.YZ + YZ * first.ZZ,
        ZX * first.XX + ZY * first.YX + ZZ * first.ZX, ZX * first.XY + ZY * first.YY + ZZ * first.ZY,
        ZX * first.XZ + ZY * first.YZ + ZZ * first.ZZ);

    /// <summary>Turn about Z (0 to 360°) and tilts about X and Y that come to the same: yaw, roll and pitch. Upright on Y, where turn and
    /// tilt about X are one, all of it is turn.</summary>
    public (double Turn, Tilt Tilt) Angles
    {
        get
        {
            var upright = Math.Abs(ZX) > 1 - 1e-12;
            var turn = upright ? Math.Atan2(-XY, YY) : Math.Atan2(YX, XX);
            var tilt = new Tilt
            {
                X = upright ? 0 : Degrees(Math.Atan2(ZY, ZZ)),
                Y = upright ? -90 * Math.Sign(ZX) : Degrees(Math.Atan2(-ZX, Math.Sqrt(XX * XX + YX * YX))),
            };
            return ((Degrees(turn) + 360) % 360, tilt);
        }
    }

    /// <summary>A mesh turned about a point of the bed.</summary>
    public Mesh About(Mesh mesh, double x, double y)
    {
        var corners = new float[mesh.Corners.Length];
        for (var i = 0; i < corners.Length; i += 3)
        {
            var (px, py, pz) = (mesh.Corners[i] - x, mesh.Corners[i + 1] - y, (double)mesh.Corners[i + 2]);
            corners[i] = (float)(XX * px + XY * py + XZ * pz + x);
            corners[i + 1] = (float)(YX * px + YY * py + YZ * pz + y);
            corners[i + 2] = (float)(ZX * px + ZY * py + ZZ * pz);
        }
        return new Mesh(corners, mesh.Faces);
    }

    private static double Degrees(double radians) => Math.Round(radians * 180 / Math.PI, 6) + 0.0;
}

using System.Globalization;

namespace MillCard.Core.Meshes;

/// <summary>A turn, a size and a displacement of a mesh: the upper three columns of a 4 × 4 matrix that row vectors are multiplied
/// with.</summary>
internal readonly record struct Placing(double A, double B, double C, double D, double E, double F, double G, double H, double I, double X,
    double Y, double Z)
{
    /// <summary>Leaves everything where it is.</summary>
    public static Placing None { get; } = new(1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0);

    /// <summary>From the twelve numbers of a 3MF transform attribute.</summary>
    /// <exception cref="MeshRefusedException">They are not twelve finite numbers.</exception>
    public static Placing Parse(string? text)
    {
        if (text is null) return None;
        var words = text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        var n = new double[12];
        for (var i = 0; i < 12; i++)
            if (words.Length != 12 || !double.TryParse(words[i], NumberStyles.Float, CultureInfo.InvariantCulture, out n[i])
                || !double.IsFinite(n[i]))
                throw new MeshRefusedException("A transform of this 3MF is not made of twelve numbers.");
        return new(n[0], n[1], n[2], n[3], n[4], n[5], n[6], n[7], n[8], n[9], n[10], n[11]);
    }

    /// <summary>Turns about X, then Y, then Z, degrees, then a displacement.</summary>
    public static Placing Of(double rx, double ry, double rz, double x, double y, double z)
    {
        var ((sx, cx), (sy, cy), (sz, cz)) = (Placement.SinCos(rx), Placement.SinCos(ry), Placement.SinCos(rz));
        var aboutX = new Placing(1, 0, 0, 0, cx, sx, 0, -sx, cx, 0, 0, 0);
        var aboutY = new Placing(cy, 0, -sy, 0, 1, 0, sy, 0, cy, 0, 0, 0);
        var aboutZ = new Placing(cz, sz, 0, -sz, cz, 0, 0, 0, 1, x, y, z);
        return aboutX.Then(aboutY).Then(aboutZ);
    }

    /// <summary>This first, then another.</summary>
    public Placing Then(Placing o) => new(
        A * o.A + B * o.D + C * o.G, A * o.B + B * o.E + C * o.H, A * o.C + B * o.F + C * o.I,
        D * o.A + E * o.D + F * o.G, D * o.B + E * o.E + F * o.H, D * o.C + E * o.F + F * o.I,
        G * o.A + H * o.D + I * o.G, G * o.B + H * o.E + I * o.H, G * o.C + H * o.F + I * o.I,
        X * o.A + Y * o.D + Z * o.G + o.X, X * o.B + Y * o.E + Z * o.H + o.Y, X * o.C + Y * o.F + Z * o.I + o.Z);

    /// <summary>A point where it comes to lie.</summary>
    public (double X, double Y, double Z) Of(double x, double y, double z) =>
        (x * A + y * D + z * G + X, x * B + y * E + z * H + Y, x * C + y * F + z * I + Z);

    /// <summary>Whether it mirrors: then faces have to be turned round.</summary>
    public bool Mirrors => A * (E * I - F * H) - B * (D * I - F * G) + C * (D * H - E * G) < 0;
}

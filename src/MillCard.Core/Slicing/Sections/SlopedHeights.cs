using MillCard.Core.Documents;
using MillCard.Core.Meshes;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Sections;

/// <summary>Layers as high as the surface allows: where it is steep they may be high, where it is flat they show as steps.</summary>
/// <remarks>
/// The error of a layer is its cusp height, the distance of the step's edge from the surface: h·|n·z| for a face of normal n
/// (A. Dolenc and I. Mäkelä, Slicing procedures for layered manufacturing techniques, Computer-Aided Design 26, 1994).
/// </remarks>
internal sealed class SlopedHeights
{
    /// <summary>Faces this flat lie on the top or underside of a layer, whatever its height: the sine of their slope.</summary>
    private const double Flat = 0.02;

    /// <summary>Rungs finer than positions are written to are none; where there are none, heights go by hundredths, mm.</summary>
    private const double FinestRung = 0.0025, CommonRung = 0.01;

    private readonly HeightRange _range;
    private readonly double[] _allowed;

    /// <param name="meshes">All that is printed in them, as it stands on the bed.</param>
    /// <param name="layers">Of a complete recipe, which says how far a step's edge may stand off.</param>
    /// <param name="step">A full step of Z, mm; null where it is not known.</param>
    public SlopedHeights(IReadOnlyList<Mesh> meshes, LayerSizes layers, double? step)
    {
        var (lowest, highest) = layers.Range;
        var rung = step is > FinestRung and var full && full <= highest ? full : CommonRung;
        var least = Math.Max(1, (int)Math.Ceiling(lowest / rung - 0.01));
        _range = new(rung, least, Math.Max(least, (int)(highest / rung + 0.01)), layers.Error!.Value);
        _allowed = Allowed(meshes, _range, meshes.Max(m => (double)m.Box.MaxZ));
    }

    /// <summary>Height of the layer that begins at a height, mm.</summary>
    public double Over(double below)
    {
        var steps = _range.Greatest;
        while (steps > _range.Least && !Fits(below, steps * _range.Step)) steps--;
        return steps * _range.Step;
    }

    /// <summary>The greatest height of a layer by slices of one step, mm; infinite where only upright faces are.</summary>
    private static double[] Allowed(IReadOnlyList<Mesh> meshes, HeightRange range, double top)
    {
        var allowed = new double[(int)(top / range.Step) + 2];
        Array.Fill(allowed, double.PositiveInfinity);
        foreach (var mesh in meshes)
            for (var f = 0; f < mesh.Faces.Length; f += 3)
            {
                var (low, high, flatness) = Slope(mesh, f);
                if (high <= 0 || double.IsNaN(flatness) || 1 - flatness * flatness < Flat * Flat) continue;
                var height = range.Error / flatness;
                if (height >= range.Greatest * range.Step) continue;
                for (var i = (int)(Math.Max(0, low) / range.Step); i <= Math.Min(allowed.Length - 1, (int)(high / range.Step)); i++)
                    allowed[i] = Math.Min(allowed[i], height);
            }
        return allowed;
    }

    /// <summary>Lowest and highest point of a face, mm, and |n·z| of its unit normal.</summary>
    [Formula("Layer height on a slope", "h = e / |n·z|",
        "Elementary geometry.",
        Where = "e error of the surface, n unit normal of the face")]
    private static (double Low, double High, double Flatness) Slope(Mesh mesh, int face)
    {
        var (a, b, c) = (3 * mesh.Faces[face], 3 * mesh.Faces[face + 1], 3 * mesh.Faces[face + 2]);
        var p = mesh.Corners;
        double ux = p[b] - p[a], uy = p[b + 1] - p[a + 1], uz = p[b + 2] - p[a + 2];
        double vx = p[c] - p[a], vy = p[c + 1] - p[a + 1], vz = p[c + 2] - p[a + 2];
        var (nx, ny, nz) = (uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
        return (Math.Min(p[a + 2], Math.Min(p[b + 2], p[c + 2])), Math.Max(p[a + 2], Math.Max(p[b + 2], p[c + 2])),
            Math.Abs(nz) / Math.Sqrt(nx * nx + ny * ny + nz * nz));
    }

    private bool Fits(double from, double height)
    {
        for (var i = (int)(from / _range.Step + 1e-6); i < _allowed.Length && i * _range.Step < from + height - 1e-9; i++)
            if (_allowed[i] < height - 1e-9) return false;
        return true;
    }
}

/// <summary>Heights that layers may have.</summary>
/// <param name="Step">Of which they are multiples, mm.</param>
/// <param name="Least">Lowest, in steps.</param>
/// <param name="Greatest">Highest, in steps.</param>
/// <param name="Error">How far a step's edge may stand off the surface, mm.</param>
internal sealed record HeightRange(double Step, int Least, int Greatest, double Error);

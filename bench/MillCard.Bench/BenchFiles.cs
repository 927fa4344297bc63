using System.Globalization;
using System.Text;
using MillCard.Core.Files;
using MillCard.Core.Meshes;

namespace MillCard.Bench;

/// <summary>The files that both sides of a comparison read: tori as binary STL, and a program of plain moves.</summary>
public static class BenchFiles
{
    public static string Folder { get; } = Environment.GetEnvironmentVariable("BENCH_FILES") is { Length: > 0 } given
        ? given : Path.Combine(Path.GetTempPath(), "mill-card-bench");

    /// <summary>A torus of about so many faces, standing on z = 0, 30 mm high.</summary>
    public static Mesh Torus(int faces)
    {
        var m = (int)Math.Sqrt(faces / 4.0);
        var n = 2 * m;
        const double big = 45, small = 15;
        var corners = new float[3 * n * m];
        for (var i = 0; i < n; i++)
            for (var j = 0; j < m; j++)
            {
                var (sinU, cosU) = Math.SinCos(2 * Math.PI * i / n);
                var (sinV, cosV) = Math.SinCos(2 * Math.PI * j / m);
                var at = 3 * (i * m + j);
                corners[at] = (float)((big + small * cosV) * cosU);
                corners[at + 1] = (float)((big + small * cosV) * sinU);
                corners[at + 2] = (float)(small + small * sinV);
            }
        var list = new int[6 * n * m];
        for (int i = 0, at = 0; i < n; i++)
            for (var j = 0; j < m; j++)
            {
                var (a, b, c, d) = (i * m + j, (i + 1) % n * m + j, (i + 1) % n * m + (j + 1) % m, i * m + (j + 1) % m);
                foreach (var corner in (ReadOnlySpan<int>)[a, b, c, a, c, d]) list[at++] = corner;
            }
        return new Mesh(corners, list);
    }

    /// <summary>So many plain moves round a spiral, relative extrusion.</summary>
    public static byte[] PlainMoves(int lines)
    {
        var text = new StringBuilder("G28\nM109 S200\nG90\nM83\nG1 X90 Y80 Z0.2 F6000\n");
        for (var i = 0; i < lines; i++)
        {
            var (sin, cos) = Math.SinCos(i * 0.05);
            text.Append(CultureInfo.InvariantCulture, $"G1 X{90 + 40 * cos:0.###} Y{80 + 40 * sin:0.###} E{0.0714:0.####}\n");
        }
        return Encoding.ASCII.GetBytes(text.ToString());
    }

    public static string TorusFile(int faces) => Path.Combine(Folder, $"torus-{faces}.stl");

    /// <summary>Writes the mesh files that are not there yet.</summary>
    public static void Make()
    {
        Directory.CreateDirectory(Folder);
        foreach (var faces in Sizes)
            if (!File.Exists(TorusFile(faces))) File.WriteAllBytes(TorusFile(faces), Stl.Write(Torus(faces)));
        Console.WriteLine(Folder);
    }

    public static int[] Sizes { get; } = [10_000, 100_000, 1_000_000];
}

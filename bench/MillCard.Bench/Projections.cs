using System.Diagnostics;
using System.Globalization;
using MillCard.Core.Meshes;

namespace MillCard.Bench;

/// <summary>How the projection of parts whose faces overlap many times grows with their faces.</summary>
internal static class Projections
{
    /// <summary>Twisted bars, springs and loose triangles, each size once after an unmeasured one.</summary>
    public static void Run(params int[] sizes)
    {
        foreach (var (name, make) in new (string, Func<int, Mesh>)[] { ("bar twisted beside itself", faces => Bar(faces, 100)),
            ("bar whose turns differ", faces => Bar(faces, 100 / Math.Sqrt(2))), ("spring", Spring), ("loose triangles", Loose) })
        {
            Time(make(sizes[0]));
            foreach (var faces in sizes)
            {
                var mesh = make(faces);
                var (seconds, corners) = Time(mesh);
                Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                    $"{name,26} {mesh.FaceCount,8} faces: {seconds:0.00} s, {1e6 * seconds / mesh.FaceCount:0.0} µs a face, "
                        + $"{corners} corners"));
            }
        }
    }

    private static (double Seconds, int Corners) Time(Mesh mesh)
    {
        var neighbours = Neighbours.Of(mesh);
        var clock = Stopwatch.StartNew();
        var corners = 0;
        try
        {
            corners = Projection.Below(mesh, neighbours, double.PositiveInfinity).Area.NumPoints;
        }
        catch (MeshRefusedException refused)
        {
            Console.WriteLine(refused.Message);
        }
        return (clock.Elapsed.TotalSeconds, corners);
    }

    /// <summary>A square bar whose middle runs round an axis beside it, so many steps a turn.</summary>
    private static Mesh Bar(int faces, double steps) => Swept(faces / 8, 4, (i, corner) =>
    {
        var (turn, around) = (2 * Math.PI * i / steps, Math.PI / 2 * corner + Math.PI / 4);
        var (x, y) = (10 + 4 * Math.Cos(around), 4 * Math.Sin(around));
        return (x * Math.Cos(turn) - y * Math.Sin(turn), x * Math.Sin(turn) + y * Math.Cos(turn), 0.2 * i);
    });

    /// <summary>A round wire that climbs as it goes round, twelve sides, two hundred steps a turn.</summary>
    private static Mesh Spring(int faces) => Swept(faces / 24, 12, (i, corner) =>
    {
        var (turn, around) = (2 * Math.PI * i / 200, 2 * Math.PI * corner / 12);
        var r = 20 + 2 * Math.Cos(around);
        return (r * Math.Cos(turn), r * Math.Sin(turn), 0.04 * i + 2 * Math.Sin(around));
    });

    private static Mesh Swept(int steps, int sides, Func<int, int, (double X, double Y, double Z)> at)
    {
        var (corners, list) = (new List<float>(3 * sides * steps), new List<int>(6 * sides * steps));
        for (var i = 0; i < steps; i++)
            for (var k = 0; k < sides; k++)
            {
                var (x, y, z) = at(i, k);
                corners.AddRange([(float)x, (float)y, (float)z]);
                if (i == 0) continue;
                var next = (k + 1) % sides;
                var (a, b, c, d) = ((i - 1) * sides + k, (i - 1) * sides + next, i * sides + next, i * sides + k);
                list.AddRange([a, b, c, a, c, d]);
            }
        return new Mesh([.. corners], [.. list]);
    }

    /// <summary>Triangles of about a millimetre all over a bed, all of them looking down.</summary>
    private static Mesh Loose(int faces)
    {
        var random = new Random(3);
        var corners = new float[9 * faces];
        for (var f = 0; f < faces; f++)
        {
            var (x, y, z) = (200 * random.NextSingle(), 200 * random.NextSingle(), 100 * random.NextSingle());
            corners.AsSpan(9 * f, 9).Clear();
            (corners[9 * f], corners[9 * f + 1], corners[9 * f + 2]) = (x, y, z);
            (corners[9 * f + 3], corners[9 * f + 4], corners[9 * f + 5]) = (x, y + 1, z);
            (corners[9 * f + 6], corners[9 * f + 7], corners[9 * f + 8]) = (x + 1, y, z + 0.5f);
        }
        return new Mesh(corners, [.. Enumerable.Range(0, 3 * faces)]);
    }
}

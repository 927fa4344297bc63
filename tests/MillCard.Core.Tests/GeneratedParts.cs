using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Tests;

/// <summary>Parts drawn by a number: ten kinds of shape, each with sizes of its own.</summary>
internal static class GeneratedParts
{
    /// <summary>How many kinds of shape there are; numbers that differ by a multiple of it are of one kind.</summary>
    public const int Kinds = 10;

    public static string KindOf(int number) => (number % Kinds) switch
    {
        0 => "outline",
        1 => "vase",
        2 => "twisted bar",
        3 => "thread",
        4 => "torus",
        5 => "heap of blocks",
        6 => "lumpy ball",
        7 => "ribs",
        8 => "cone",
        _ => "comb",
    };

    public static Mesh Of(int number)
    {
        var random = new Random(number);
        double Between(double low, double high) => low + (high - low) * random.NextDouble();
        return (number % Kinds) switch
        {
            0 => Solids.Extruded(Rough(random, Between(8, 14)), Between(3, 6)),
            1 => Vase(Between(4, 9), Between(1, 3), Between(1, 3), Between(8, 16)),
            2 => Solids.Twisted(Between(2, 8), Between(4, 8), Between(8, 14), Between(0.1, 0.6), 60),
            3 => Solids.Thread(Between(5, 9), Between(4, 4.8), random.Next(1, 4), Between(3, 6), 72),
            4 => Solids.Torus(Between(6, 10), Between(2, 4), 60, 120),
            5 => Heap(random, Between(8, 14)),
            6 => LumpyBall(random, Between(5, 9), 4000),
            7 => Ribs(random),
            8 => Solids.Leaning(Between(5, 40), Between(4, 9)),
            _ => Comb(Between(1.2, 4), Between(3, 7), Between(3, 6)),
        };
    }

    /// <summary>An outline as nobody would draw it, with a hole.</summary>
    private static Polygon Rough(Random random, double radius)
    {
        Polygon Ring(double r, int n) => Plane.Factory.CreatePolygon([.. Enumerable.Range(0, n + 1).Select(i => i % n).Select(i =>
            (r * (0.75 + 0.25 * Math.Sin(i * 7.0) * random.NextDouble()), 2 * Math.PI * i / n))
            .Select(p => new Coordinate(p.Item1 * Math.Cos(p.Item2), p.Item1 * Math.Sin(p.Item2))).ToArray() is var ring
                ? ring[..^1].Append(ring[0]) : []]);
        return (Polygon)Ring(radius, 40).Difference(Ring(radius * 0.4, 12));
    }

    private static Mesh Vase(double radius, double wave, double waves, double high) => Solids.Revolved(t => t switch
    {
        < 0.1 => (10 * t * radius, 0),
        > 0.9 => (10 * (1 - t) * (radius + wave * Math.Sin(waves)), high),
        _ => (radius + wave * Math.Sin(waves * (t - 0.1) / 0.8), (t - 0.1) / 0.8 * high),
    }, 60, 96);

    private static Mesh Heap(Random random, double side) => Solids.Joined([Block.Of(side, side, 3), .. Enumerable.Range(0, 6).Select(_ =>
        Solids.Placed(Block.Of(1 + random.NextDouble() * side / 2, 1 + random.NextDouble() * side / 2, 2 + random.NextDouble() * 5),
            random.NextDouble() * side / 2, random.NextDouble() * side / 2, 1.003))]);

    /// <summary>A ball with lumps and a rough skin, cut off flat below.</summary>
    private static Mesh LumpyBall(Random random, double radius, int faces)
    {
        var (m, shift) = ((int)Math.Sqrt(faces / 4.0), random.NextDouble() * 6);
        var lumps = Solids.Revolved(t => (radius * Math.Sin(Math.PI * t), radius * (1 - Math.Cos(Math.PI * t))), m, 2 * m);
        var corners = new float[lumps.Corners.Length];
        for (var i = 0; i < corners.Length; i += 3)
        {
            var (x, y, z) = (lumps.Corners[i], lumps.Corners[i + 1], lumps.Corners[i + 2] - radius);
            var swell = 1 + 0.08 * Math.Sin(x + shift) * Math.Cos(1.3 * y) * Math.Sin(z + 1) + 0.01 * (random.NextDouble() - 0.5);
            (corners[i], corners[i + 1]) = ((float)(x * swell), (float)(y * swell));
            corners[i + 2] = (float)Math.Max(0, z * swell + 0.8 * radius);
        }
        return new Mesh(corners, lumps.Faces);
    }

    /// <summary>A plate with ribs of any thickness on it.</summary>
    private static Mesh Ribs(Random random) => Solids.Joined([Block.Of(20, 14, 1), .. Enumerable.Range(0, 5).Select(i =>
        Solids.Placed(Block.Of(0.5 + 2.5 * random.NextDouble(), 12, 4), 1 + 3.8 * i, 1, 0.503))]);

    /// <summary>Posts and a lintel over them.</summary>
    private static Mesh Comb(double post, double gap, double high) => Solids.Joined([.. Enumerable.Range(0, 3).Select(i =>
        Solids.Placed(Block.Of(post, 8, high), i * (post + gap), 0, 0)),
        Solids.Placed(Block.Of(3 * post + 2 * gap, 8, 2), 0, 0, high - 0.003)]);
}

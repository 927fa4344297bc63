using System.Diagnostics;
using System.Globalization;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Bench;

/// <summary>A whole slice of what a scanner would have seen: a lumpy ball whose surface is rough all over, 90 mm high.</summary>
internal static class RoughBall
{
    private const double Radius = 45, Lumps = 4, Roughness = 0.03;

    /// <summary>Unmeasured slices before the others: until then methods are compiled anew beside the work, on one of its
    /// processors.</summary>
    private const int WarmUps = 6;

    /// <summary>Slices of each size with one thread and with two, in turn: the middle one counts.</summary>
    private const int Rounds = 5;

    /// <summary>Slices balls of several sizes with one thread and with two.</summary>
    public static void Run(params int[] sizes)
    {
        var small = Ball(10_000);
        for (var i = 0; i < WarmUps; i++) Slice(small, 2);
        foreach (var faces in sizes)
        {
            var mesh = Ball(faces);
            var rounds = Enumerable.Range(0, Rounds).Select(_ => (Two: Slice(mesh, 2), One: Slice(mesh, 1).Seconds)).ToArray();
            var (two, result, peak) = rounds.OrderBy(r => r.Two.Seconds).ElementAt(Rounds / 2).Two;
            var one = rounds.Select(r => r.One).Order().ElementAt(Rounds / 2);
            var moves = result.Run!.Moves.Length;
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"{mesh.FaceCount,8} faces {result.Layers.Count} layers {moves,8} moves: {two:0.00} s, one thread {one:0.00} s "
                    + $"({one / two:0.00} ×); {mesh.FaceCount / two:0} faces/s, {result.Layers.Count / two:0} layers/s, "
                    + $"{moves / two:0} moves/s, heap {peak:0} MB"));
        }
    }

    private static (double Seconds, SliceResult Result, double Peak) Slice(Mesh mesh, int threads)
    {
        var card = DocumentReader.Read<Card>(Examples.Of("card")).Document!;
        card = card with { Envelope = card.Envelope with { KeepOuts = [] } };
        var recipe = DocumentReader.Read<Recipe>(Examples.Of("recipe")).Document! with { Layers = new() { First = 0.2, Others = 0.2 } };
        GC.Collect();
        var (peak, running) = (0L, true);
        var watch = new Thread(() =>
            { while (Volatile.Read(ref running)) { peak = Math.Max(peak, GC.GetTotalMemory(false)); Thread.Sleep(2); } });
        watch.Start();
        var clock = Stopwatch.StartNew();
        var result = Slicer.Slice(new SliceJob("ball", Machine.Of(card), DocumentReader.Read<Filament>(Examples.Of("filament")).Document!,
            recipe, [new PartToSlice(new TrialPart { Name = "ball", File = "ball", X = 90, Y = 80 }, mesh, new Footprints(mesh))])
        { Threads = threads });
        var seconds = clock.Elapsed.TotalSeconds;
        Volatile.Write(ref running, false);
        watch.Join();
        return result.Sliced ? (seconds, result, peak / 1048576.0)
            : throw new InvalidOperationException(string.Join(' ', result.Findings.Select(f => f.Message)));
    }

    /// <summary>A ball of about so many faces with lumps and a rough skin, cut off flat below so that it stands.</summary>
    private static Mesh Ball(int faces)
    {
        var m = (int)Math.Sqrt(faces / 4.0);
        var n = 2 * m;
        var random = new Random(1);
        var corners = new float[3 * n * (m + 1)];
        for (var j = 0; j <= m; j++)
            for (var i = 0; i < n; i++)
            {
                var (sinU, cosU) = Math.SinCos(2 * Math.PI * i / n);
                var (sinV, cosV) = Math.SinCos(Math.PI * j / m);
                var lumps = Math.Sin(7 * cosV) * Math.Sin(5 * cosU + 2) * Math.Sin(6 * sinU);
                var r = Radius - Lumps / 2 + Lumps / 2 * lumps + (j is 0 || j == m ? 0 : Roughness * (2 * random.NextDouble() - 1));
                var at = 3 * (j * n + i);
                corners[at] = (float)(r * sinV * cosU);
                corners[at + 1] = (float)(r * sinV * sinU);
                corners[at + 2] = (float)Math.Max(0, Radius - 2 - r * cosV);
            }
        var list = new List<int>(6 * n * m);
        for (var j = 0; j < m; j++)
            for (var i = 0; i < n; i++)
            {
                var (a, b, c, d) = (j * n + i, j * n + (i + 1) % n, (j + 1) * n + (i + 1) % n, (j + 1) * n + i);
                if (j > 0) list.AddRange([a, b, c]);
                if (j < m - 1) list.AddRange([a, c, d]);
            }
        return new Mesh(corners, [.. list]);
    }
}

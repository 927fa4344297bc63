using System.Diagnostics;
using System.Globalization;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Bench;

/// <summary>How cross-sections grow with faces, crossing segments and layers, and how much memory a million faces take.</summary>
internal static class Growth
{
    private const int Runs = 7, Turns = 25, Unmeasured = 5;

    /// <summary>Fits time = a·faces + b·segments + c·layers by least squares of relative errors, and says how far the fit is off.</summary>
    public static void Fit()
    {
        BenchFiles.Make();
        var rows = new List<(double[] X, double Ms)>();
        Warm();
        foreach (var faces in BenchFiles.Sizes)
        {
            var mesh = Stl.Read(File.ReadAllBytes(BenchFiles.TorusFile(faces)));
            var neighbours = Neighbours.Of(mesh);
            foreach (var layers in new[] { 50, 150, 450 })
            {
                double[] heights = [.. Enumerable.Range(0, layers).Select(i => (i + 0.5) * 30 / layers)];
                var segments = new CrossSections(mesh, neighbours, heights).All().Sum(c => c.Points.Length);
                rows.Add(([mesh.FaceCount, segments, layers], Least(() => new CrossSections(mesh, neighbours, heights).All())));
            }
        }
        var fit = Solve(rows);
        foreach (var (x, ms) in rows)
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"{x[0],9:0} faces {x[1],9:0} segments {x[2],4:0} layers: {ms,7:0.0} ms, fit "
                    + $"{fit.Zip(x, (a, b) => a * b).Sum(),7:0.0} ms"));
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"ns a face {1e6 * fit[0]:0.0}, a segment {1e6 * fit[1]:0.0}, a layer {1e6 * fit[2]:0}; worst "
                + $"{rows.Max(r => Math.Abs(fit.Zip(r.X, (a, b) => a * b).Sum() / r.Ms - 1)):P0}"));
    }

    /// <summary>Runs until the code is compiled for good; otherwise the smallest mesh, which comes first, pays for it.</summary>
    private static void Warm()
    {
        var mesh = Stl.Read(File.ReadAllBytes(BenchFiles.TorusFile(BenchFiles.Sizes[0])));
        var clock = Stopwatch.StartNew();
        while (clock.Elapsed < TimeSpan.FromSeconds(3))
            new CrossSections(mesh, Neighbours.Of(mesh), [.. Enumerable.Range(0, 150).Select(i => 0.1 + 0.2 * i)]).All();
    }

    /// <summary>Peak of the managed heap while a mesh of a million faces is cut at 150 heights, against the mesh's own bytes.</summary>
    public static void Memory()
    {
        BenchFiles.Make();
        var mesh = Stl.Read(File.ReadAllBytes(BenchFiles.TorusFile(1_000_000)));
        var own = 4L * (mesh.Corners.Length + mesh.Faces.Length);
        var before = GC.GetTotalMemory(forceFullCollection: true) - own;
        var (peak, running) = (0L, true);
        var watch = new Thread(() =>
            { while (Volatile.Read(ref running)) { peak = Math.Max(peak, GC.GetTotalMemory(false)); Thread.Sleep(1); } });
        watch.Start();
        var all = new CrossSections(mesh, Neighbours.Of(mesh), [.. Enumerable.Range(0, 150).Select(i => 0.1 + 0.2 * i)]).All();
        Volatile.Write(ref running, false);
        watch.Join();
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"{all.Length} sections of {mesh.FaceCount} faces: peak {(peak - before) / 1048576.0:0} MB, mesh "
                + $"{own / 1048576.0:0} MB, {(double)(peak - before) / own:0.0} ×"));
        GC.KeepAlive(mesh);
    }

    /// <summary>300 layers laid by one thread and by two, turn by turn, so that what else the machine does falls on both.</summary>
    public static void Threads()
    {
        var (one, two) = (new Layers300 { Threads = 1 }, new Layers300 { Threads = 2 });
        one.Setup();
        two.Setup();
        var (alone, both) = (new List<double>(), new List<double>());
        for (var i = -Unmeasured; i < Turns; i++)
        {
            var (a, b) = (Time(() => one.Laid()), Time(() => two.Laid()));
            if (i < 0) continue;
            alone.Add(a);
            both.Add(b);
        }
        var (median, least) = (alone.Order().ElementAt(Turns / 2) / both.Order().ElementAt(Turns / 2), alone.Min() / both.Min());
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
            $"300 layers: one thread {alone.Min():0} ms, two {both.Min():0} ms at the least of {Turns} turns, {least:0.00} ×; "
                + $"medians {median:0.00} ×"));
    }

    private static double Time(Action run)
    {
        var clock = Stopwatch.StartNew();
        run();
        return clock.Elapsed.TotalMilliseconds;
    }

    /// <summary>The least of several runs: what else the machine does only ever adds to a time.</summary>
    private static double Least(Action run) => Enumerable.Range(0, Runs).Min(_ => Time(run));

    /// <summary>Normal equations of three unknowns, rows weighted by 1 / time, by Cramer's rule.</summary>
    private static double[] Solve(List<(double[] X, double Ms)> rows)
    {
        var m = new double[3, 3];
        var v = new double[3];
        foreach (var (x, ms) in rows)
            for (var i = 0; i < 3; i++)
            {
                v[i] += x[i] / ms;
                for (var j = 0; j < 3; j++) m[i, j] += x[i] * x[j] / (ms * ms);
            }
        var whole = Determinant(m);
        return [.. Enumerable.Range(0, 3).Select(k =>
        {
            var other = (double[,])m.Clone();
            for (var i = 0; i < 3; i++) other[i, k] = v[i];
            return Determinant(other) / whole;
        })];
    }

    private static double Determinant(double[,] m) =>
        m[0, 0] * (m[1, 1] * m[2, 2] - m[1, 2] * m[2, 1]) - m[0, 1] * (m[1, 0] * m[2, 2] - m[1, 2] * m[2, 0])
            + m[0, 2] * (m[1, 0] * m[2, 1] - m[1, 1] * m[2, 0]);
}

using BenchmarkDotNet.Attributes;
using MillCard.Core.Clearance;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;

namespace MillCard.Bench;

/// <summary>The order of 100 parts that are read already, with every conflict and its cure; nothing is kept from run to run.</summary>
[MemoryDiagnoser]
public class OrderOf100
{
    private Machine? _machine;
    private StandingPart[] _apart = [], _near = [], _different = [];

    [GlobalSetup]
    public void Setup()
    {
        _machine = Machine.Of(BenchCards.Head(40));
        var part = BenchCards.Cylinder(8, 30, 96);
        _apart = [.. Enumerable.Range(0, 100).Select(i => new StandingPart($"p{i}", part, 40 + 58 * (i % 10), 40 + 58 * (i / 10), 0))];
        _near = [.. Enumerable.Range(0, 100).Select(i => new StandingPart($"p{i}", part, 40 + 36 * (i % 10), 40 + 36 * (i / 10), 0))];
        _different = [.. Enumerable.Range(0, 100)
            .Select(i => new StandingPart($"p{i}", BenchCards.Cylinder(5 + i % 13 * 0.3, 20 + i, 60 + i), 40 + 48 * (i % 10),
            40 + 48 * (i / 10), 3 * i))];
    }

    [Benchmark] public OrderResult EqualAndApart() => new PrintOrder(_machine!).Of(_apart);
    [Benchmark] public OrderResult EqualAndTooNear() => new PrintOrder(_machine!).Of(_near);
    [Benchmark] public OrderResult AllDifferent() => new PrintOrder(_machine!).Of(_different);
}

/// <summary>What a head of 40 corners makes of four clips, as drawn on the plan.</summary>
[MemoryDiagnoser]
public class RegionOf40Corners
{
    private Machine? _machine;

    [GlobalSetup] public void Setup() => _machine = Machine.Of(BenchCards.Head(40));

    [Benchmark] public double Drawn() => new Fit(_machine!).Regions.Sum(r => r.Grown.Area);
}

internal static class BenchCards
{
    /// <summary>A large bed with four clips and a head body of so many corners, not convex.</summary>
    public static Card Head(int corners)
    {
        var card = DocumentReader.Read<Card>(Examples.Of("card")).Document!;
        var outline = new PolygonOutline
        {
            Points = [.. Enumerable.Range(0, corners)
            .Select(i => (IReadOnlyList<double>)[(i % 2 == 0 ? 20 : 16) * Math.Cos(2 * Math.PI * i / corners),
            (i % 2 == 0 ? 20 : 16) * Math.Sin(2 * Math.PI * i / corners)])]
        };
        KeepOut Clip(double x, double y) => new()
        {
            Name = $"clip {x} {y}",
            Kind = KeepOutKind.Obstacle,
            Outline = new RectangleOutline { X = x, Y = y, Width = 12, Depth = 20 },
            Top = 8
        };
        return card with
        {
            Envelope = card.Envelope with
            {
                Bed = new RectangleBed { Width = 640, Depth = 640 },
                KeepOuts = [Clip(0, 0), Clip(628, 0), Clip(0, 620), Clip(628, 620)],
                Use = null
            },
            Head = card.Head with { Bodies = [new() { Name = "duct", Outline = outline, Underside = 5 }], Beams = [] },
            Motion = card.Motion with { Axes = new() },
        };
    }

    public static Footprints Cylinder(double r, double h, int n)
    {
        var corners = new List<float>();
        var faces = new List<int>();
        foreach (var z in new[] { 0, h }) for (var i = 0; i <= n; i++) corners.AddRange(i == n ? [0, 0, (float)z]
            : [(float)(r * Math.Cos(2 * Math.PI * i / n)), (float)(r * Math.Sin(2 * Math.PI * i / n)), (float)z]);
        for (var i = 0; i < n; i++)
        {
            var j = (i + 1) % n;
            faces.AddRange([j, i, n, i + n + 1, j + n + 1, 2 * n + 1, i, j, j + n + 1, i, j + n + 1, i + n + 1]);
        }
        return new Footprints(new Mesh([.. corners], [.. faces]));
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Gauges;

/// <summary>Two posts that pull back further the higher they are.</summary>
internal sealed class RetractionPair : GaugePiece
{
    private const double Apart = 30, Post = 8, Band = 4;
    private const int Bands = 6;

    public override string Id => "retraction-pair";
    public override string Name => "Retraction pair";
    public override string About(GaugeJob job) => Invariant($"Two posts. From band to band of {Band:0} mm the retraction grows: "
            + $"{string.Join(", ", Lengths(job).Select(l => Invariant($"{l:0.0}")))} mm. Count from "
            + $"below, from 1, the first band without strings between the posts.");
    public override IReadOnlyList<GaugeReading> Readings(GaugeJob job) => [new("band", "first band without strings", "", null)];
    internal override (double X, double Y) Foot(GaugeJob job) => (Apart + Post, Post);

    internal override IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y) =>
        Stack(job, Bands * Band, (_, top) => new LayerPlan(default, [.. Posts(job, x, y)])
        {
            Retraction = Lengths(job)[BandAt(top, Band, Bands)],
        });

    public override IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings) =>
        readings.TryGetValue("band", out var band) && band >= 1 && band <= Bands
            ? [new("card", "/head/nozzles/0/retraction/length", "retraction", "mm", job.Machine.Nozzle.Retraction?.Length,
                Lengths(job)[(int)band - 1])]
            : [];

    private static IEnumerable<ToolPath> Posts(GaugeJob job, double x, double y)
    {
        var spacing = ExtrudedLine.Spacing(job.Width, job.Height);
        foreach (var side in new[] { -1, 1 })
            for (var wall = 1; wall >= 0; wall--)
                yield return Square(x + side * Apart / 2, y, Post - job.Width - 2 * wall * spacing, job.Width, wall == 0
                    ? PathKind.OuterWall : PathKind.InnerWall);
    }

    /// <summary>A direct feed is tried up to 2 mm, a long tube from 3 to 7.</summary>
    private static double[] Lengths(GaugeJob job) =>
        job.Machine.Nozzle.Feed?.Kind == FeedKind.LongTube ? [3, 4, 5, 5.5, 6, 7] : [0, 0.4, 0.8, 1.2, 1.6, 2];
}

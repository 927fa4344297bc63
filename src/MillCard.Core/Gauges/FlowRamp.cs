using MillCard.Core.Flow;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Gauges;

/// <summary>A wall that is printed faster the higher it is, until the hot end no longer melts enough.</summary>
internal sealed class FlowRamp : GaugePiece
{
    private const double Long = 60, Deep = 12, Band = 2;
    private const int Bands = 10;

    public override string Id => "flow-ramp";
    public override string Name => "Flow ceiling ramp";
    public override string About(GaugeJob job) => Invariant(
        $"A long box of one wall. From band to band of {Band:0} mm the flow grows from {Flow(job, 0):0.#} to "
            + $"{Flow(job, Bands - 1):0.#} mm³/s. Count from below, from 1, the last band that is still closed and even.");
    public override IReadOnlyList<GaugeReading> Readings(GaugeJob job) => [new("band", "last good band, 1 to 10", "", null)];
    internal override (double X, double Y) Foot(GaugeJob job) => (Long, Deep);

    internal override IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y)
    {
        Point[] ring = [new(x - Long / 2, y - Deep / 2), new(x + Long / 2, y - Deep / 2), new(x + Long / 2, y + Deep / 2),
            new(x - Long / 2, y + Deep / 2)];
        return Stack(job, Bands * Band, (i, top) => new LayerPlan(default,
            [new ToolPath(PathKind.OuterWall, ring, Closed: true, job.Width)])
        {
            Speed = i == 0 ? null : Flow(job, BandAt(top, Band, Bands)) / ExtrudedLine.Area(job.Width,
                job.Height) / (job.Filament.Flow ?? 1),
        });
    }

    public override IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings) =>
        readings.TryGetValue("band", out var band) && band >= 1 && band <= Bands
            ? [new("card", "/head/nozzles/0/maxFlow", "melting limit", "mm³/s", job.Machine.Nozzle.MaxFlow,
                Math.Round(Flow(job, (int)band - 1), 1))]
            : [];

    /// <summary>From half of what is assumed now to half as much again, within what the axes do.</summary>
    private static double Flow(GaugeJob job, int band)
    {
        var assumed = job.Machine.Nozzle.MaxFlow ?? 8;
        var axes = job.Machine.Card.Motion.Axes;
        var most = Math.Min(1.5 * assumed,
            Math.Min(axes.X?.MaxSpeed ?? 150, axes.Y?.MaxSpeed ?? 150) * ExtrudedLine.Area(job.Width, job.Height));
        return assumed / 2 + (most - assumed / 2) * band / (Bands - 1);
    }
}

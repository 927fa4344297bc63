using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Gauges;

/// <summary>A box of one wall whose thickness tells the flow.</summary>
internal sealed class FlowWall : GaugePiece
{
    private const double Side = 30, Tall = 10;

    public override string Id => "flow-wall";
    public override string Name => "Line width and flow wall";
    public override string About(GaugeJob job) => Invariant(
        $"A box of a single wall of {job.Width:0.##} mm. Measure the wall in the middle of each side, above the lowest layers, "
            + $"and take the mean.");
    public override IReadOnlyList<GaugeReading> Readings(GaugeJob job) =>
        [new("wall", "thickness of the wall, mean of four", "mm", job.Width)];
    internal override (double X, double Y) Foot(GaugeJob job) => (Side, Side);
    internal override IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y) =>
        Stack(job, Tall, (_, _) => new LayerPlan(default, [Square(x, y, Side - job.Width, job.Width)]));

    public override IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings) =>
        readings.TryGetValue("wall", out var wall) && wall > 0
            ? [new("filament", "/flow", "flow", "", job.Filament.Flow, Math.Round((job.Filament.Flow ?? 1) * job.Width / wall, 3))]
            : [];
}

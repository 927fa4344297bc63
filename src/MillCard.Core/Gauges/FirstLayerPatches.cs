using MillCard.Core.Flow;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Gauges;

/// <summary>Patches of a first layer at Z offsets in steps of 0.02 mm.</summary>
internal sealed class FirstLayerPatches : GaugePiece
{
    private const double Patch = 16, Gap = 4, Step = 0.02;
    private const int Columns = 3, Rows = 3;

    public override string Id => "first-layer-patches";
    public override string Name => "First-layer patches";
    public override string About(GaugeJob job) =>
        "Nine patches of one layer, numbered from the front left along X. The first is 0.08 mm nearer to the bed than now, "
            + "each next 0.02 mm further away. Take the one that is smooth, closed and sticks.";
    public override IReadOnlyList<GaugeReading> Readings(GaugeJob job) => [new("patch", "best patch, 1 to 9", "", 5)];
    internal override (double X, double Y) Foot(GaugeJob job) => (Columns * Patch + (Columns - 1) * Gap, Rows * Patch + (Rows - 1) * Gap);

    internal override IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y)
    {
        var spacing = ExtrudedLine.Spacing(job.Width, job.First);
        return [.. Enumerable.Range(0, Columns * Rows).Select(i =>
        {
            var (px, py) = (x + (i % Columns - (Columns - 1) / 2.0) * (Patch + Gap), y + (i / Columns - (Rows - 1) / 2.0) * (Patch + Gap));
            // as much plastic as for a layer of the usual height, laid nearer to the bed or further away
            return new LayerPlan(new LayerPlace(Math.Round(job.First + Off(i), 4), job.First),
                [Filled(px, py, Patch, Patch, job.Width, spacing)]);
        })];
    }

    public override IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings) =>
        readings.TryGetValue("patch", out var patch) && patch >= 1 && patch <= Columns * Rows
            ? [new("card", "/head/probe/z", "Z offset", "mm", job.Machine.Card.Head.Probe?.Z,
                Math.Round((job.Machine.Card.Head.Probe?.Z ?? 0) + Off((int)patch - 1), 3))]
            : [];

    private static double Off(int patch) => (patch - (Columns * Rows - 1) / 2) * Step;
}

using MillCard.Core.Flow;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Gauges;

/// <summary>A tower whose steps are printed at falling temperatures.</summary>
internal sealed class TemperatureSteps : GaugePiece
{
    private const double Side = 20, Band = 5, Step = 5;
    private const int Bands = 6;

    public override string Id => "temperature-steps";
    public override string Name => "Temperature steps";
    public override string About(GaugeJob job) => $"A tower of {Bands} steps of {Band:0} mm: the lowest at {Degrees(job)[0]:0} "
        + $"°C, the highest at {Degrees(job)[^1]:0} °C. Count from below, from 1, the step that looks and holds best.";
    public override IReadOnlyList<GaugeReading> Readings(GaugeJob job) => [new("step", "best step", "", null)];
    internal override (double X, double Y) Foot(GaugeJob job) => (Side, Side);

    internal override IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y)
    {
        var (degrees, last) = (Degrees(job), -1);
        var spacing = ExtrudedLine.Spacing(job.Width, job.Height);
        return Stack(job, Bands * Band, (i, top) =>
        {
            var band = BandAt(top, Band, Bands);
            // each step stands out a little, so that they can be counted
            var side = Side - job.Width - (band % 2 == 0 ? 0 : 1);
            var layer = new LayerPlan(default,
                [Square(x, y, side - 2 * spacing, job.Width, PathKind.InnerWall), Square(x, y, side, job.Width)])
            {
                Commands = band == last || i < 2 ? [] : [Invariant($"M104 S{degrees[band]:0}")],
            };
            if (i >= 2) last = band;
            return layer;
        });
    }

    public override IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings) =>
        readings.TryGetValue("step", out var step) && step >= 1 && step <= Bands
            ? [new("filament", "/nozzle/others", "nozzle temperature", "°C", job.Filament.Nozzle.Others, Degrees(job)[(int)step - 1])]
            : [];

    /// <summary>Downwards from a little above what the filament asks for at first, within what the hot end is rated for.</summary>
    private static double[] Degrees(GaugeJob job)
    {
        var hottest = Math.Min(job.Machine.Nozzle.MaxTemperature ?? double.PositiveInfinity, job.Filament.Nozzle.First!.Value + 2 * Step);
        return [.. Enumerable.Range(0, Bands).Select(i => Math.Max(175, hottest - i * Step))];
    }
}

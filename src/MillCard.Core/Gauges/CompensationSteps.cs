using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Gauges;

/// <summary>A thin-walled box whose long sides are laid slowly, fast and slowly again, with more pressure compensation the higher it
/// is.</summary>
internal sealed class CompensationSteps : GaugePiece
{
    private const double Long = 60, Deep = 12, Band = 3, Slow = 20, Fast = 100;
    private const int Bands = 10;

    /// <summary>Greatest factor that is tried, s: filament in a long tube gives way more. Common practice, no source.</summary>
    private const double MostDirect = 0.09, MostInTube = 0.9;

    public override string Id => "compensation-steps";
    public override string Name => "Pressure compensation steps";
    public override string About(GaugeJob job) => Invariant(
        $"A long box of one wall. A third and two thirds along each long side the nozzle goes from {Slow:0} to {Fast:0} mm/s and back. ")
        + Invariant($"From band to band of {Band:0} mm the factor grows from 0 to {Factor(job, Bands - 1):0.##} s. Count from below, ")
        + "from 1, the band in which the wall is as thick before those places as behind them.";
    public override IReadOnlyList<GaugeReading> Readings(GaugeJob job) => [new("band", "evenest band, 1 to 10", "", null)];
    internal override (double X, double Y) Foot(GaugeJob job) => (Long, Deep);

    public override string? NotFor(Machine machine) => Flavour.Of(machine.Flavour).Spell("pressure-compensation", ("value", 0), ("tool", 0))
        is null ? $"{Flavour.Of(machine.Flavour).Name} has no command for pressure compensation." : null;

    internal override IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y)
    {
        var (flavour, last) = (Flavour.Of(job.Machine.Flavour), -1);
        return Stack(job, Bands * Band, (i, top) =>
        {
            var band = BandAt(top, Band, Bands);
            var said = band == last ? [] : new[]
            {
                flavour.Spell("pressure-compensation", ("value", Factor(job, band)), ("tool", 0))!,
            };
            last = band;
            return new LayerPlan(default, [Box(x, y, job.Width, i == 0)]) { Commands = said };
        });
    }

    public override IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings) =>
        readings.TryGetValue("band", out var band) && band >= 1 && band <= Bands
            ? [new("filament", "/pressureCompensation", "pressure compensation", "s", job.Filament.PressureCompensation,
                Factor(job, (int)band - 1))]
            : [];

    /// <summary>Counter-clockwise from the left end of the front; the thirds of its long sides are points of their own.</summary>
    private static ToolPath Box(double x, double y, double width, bool first)
    {
        var (w, d) = (Long - width, Deep - width);
        double[] along = [-w / 2, -w / 6, w / 6, w / 2];
        Point[] ring = [.. along.Select(a => new Point(x + a, y - d / 2)), .. along.Reverse().Select(a => new Point(x + a, y + d / 2))];
        var path = new ToolPath(PathKind.OuterWall, ring, Closed: true, width);
        return first ? path : path with
        {
            Paces = [.. Enumerable.Range(0, ring.Length).Select(k => new Pace(k % 4 == 1 ? Fast : Slow, Hangs: false))],
        };
    }

    private static double Factor(GaugeJob job, int band) =>
        Math.Round((job.Machine.Nozzle.Feed?.Kind == FeedKind.LongTube ? MostInTube : MostDirect) * band / (Bands - 1), 4);
}

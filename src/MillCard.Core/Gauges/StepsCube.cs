using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Motion;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Gauges;

/// <summary>A hollow cube whose sides tell the steps per mm. Lines that are laid too wide make it larger outside and smaller inside alike:
/// the
/// mean of both is the distance of the lines' middles, whatever width and flow are.</summary>
internal sealed class StepsCube : GaugePiece
{
    private const double Side = 30, Tall = 20;

    /// <summary>What a workshop caliper leaves open, mm; common practice, no source.</summary>
    private const double Caliper = 0.05;

    /// <summary>Share of a line's width that is not known where one side of the wall alone was measured; common practice, no
    /// source.</summary>
    private const double LineDoubt = 0.1;

    public override string Id => "steps-cube";
    public override string Name => "Steps cube";

    public override string About(GaugeJob job) => Invariant(
        $"A hollow cube of 30 × 30 × 20 mm. Measure outside and inside with a caliper, away from corners and from the lowest "
            + $"layers: their mean does not depend on width and flow of the lines. What differs by less than the caliper's "
            + $"{Caliper:0.##} mm says nothing.");

    public override IReadOnlyList<GaugeReading> Readings(GaugeJob job) =>
    [
        new("x", "along X, outside", "mm", Side), new("x-inside", "along X, inside", "mm", Inside(job)),
        new("y", "along Y, outside", "mm", Side), new("y-inside", "along Y, inside", "mm", Inside(job)),
        new("z", "height", "mm", Top(job)),
    ];

    internal override (double X, double Y) Foot(GaugeJob job) => (Side, Side);

    internal override IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y)
    {
        var spacing = ExtrudedLine.Spacing(job.Width, job.Height);
        var filled = Side - 3 * job.Width;
        return Stack(job, Tall, (i, _) => new LayerPlan(default, i < 3
            ? [Square(x, y, Side - job.Width, job.Width), Filled(x, y, filled, filled, job.Width, spacing)]
            : [Square(x, y, Side - job.Width - 2 * spacing, job.Width, PathKind.InnerWall), Square(x, y, Side - job.Width, job.Width)]));
    }

    public override IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings)
    {
        var axes = job.Machine.Card.Motion.Axes;
        var found = new List<GaugeResult>();
        foreach (var (name, axis) in new[] { ("x", axes.X), ("y", axes.Y), ("z", axes.Z) })
            if (axis?.StepsPerMm is { } old && Measured(job, name, readings) is { } side)
                found.Add(Of(name, axis, old, side));
        return found;
    }

    /// <summary>A length between the middles of lines, as commanded and as it came, with what the measurement leaves open, mm.</summary>
    private sealed record MeasuredSide(double Commanded, double Came, double Doubt)
    {
        /// <summary>Whether one face of the wall alone was measured, so that the lines' width is taken as it should be.</summary>
        public bool OneFace { get; init; }
    }

    private static MeasuredSide? Measured(GaugeJob job, string axis, IReadOnlyDictionary<string, double> readings)
    {
        double? Reading(string name) => readings.TryGetValue(name, out var value) && value > 0 ? value : null;
        return (axis, Reading(axis), Reading($"{axis}-inside")) switch
        {
            // the first layer is pressed flat by as much as half its height
            ("z", { } tall, _) => new(Top(job), tall, Caliper + job.First / 2),
            (_, { } outside, { } inside) => new((Side + Inside(job)) / 2, (outside + inside) / 2, Caliper),
            (_, { } outside, null) => new(Side - job.Width, outside - job.Width, Caliper + LineDoubt * job.Width) { OneFace = true },
            (_, null, { } inside) => new(Inside(job) + job.Width, inside + job.Width, Caliper + LineDoubt * job.Width) { OneFace = true },
            _ => null,
        };
    }

    private static GaugeResult Of(string name, Axis axis, double old, MeasuredSide side)
    {
        var result = new GaugeResult("card", JsonPointer.Axis(name) / "stepsPerMm", $"steps per mm {name.ToUpperInvariant()}", "1/mm", old,
            Math.Round(Drives.Corrected(old, side.Commanded, side.Came), 3));
        var off = Math.Abs(side.Came - side.Commanded);
        if (off <= side.Doubt + 1e-9)
            return result with
            {
                New = old,
                Says = Invariant($"{off:0.###} mm off, and the measurement leaves {side.Doubt:0.###} mm open: nothing to change."),
            };
        if (Candidate.That(axis.Drive, result.New) is { } exact && Math.Abs(exact.StepsPerMm / old - 1) > 1e-6)
            return result with
            {
                Exact = Math.Round(exact.StepsPerMm, 3),
                Says = Invariant($"its parts with 1/{exact.Microsteps} microsteps")
            };
        return side.OneFace ? result with { Says = "if its lines are as wide as they should be: measure the other face too" } : result;
    }

    /// <summary>Between the inner faces of its walls of two lines, mm.</summary>
    private static double Inside(GaugeJob job) => Math.Round(Side - 2 * job.Width - 2 * ExtrudedLine.Spacing(job.Width, job.Height), 3);

    private static double Top(GaugeJob job) =>
        Math.Round(job.First + Math.Floor((Tall + job.Height / 2 - job.First) / job.Height) * job.Height, 4);
}

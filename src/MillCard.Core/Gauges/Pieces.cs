using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Machines;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;

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
            Retraction = Lengths(job)[Math.Clamp((int)((top - 1e-6) / Band), 0, Bands - 1)],
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
            var band = Math.Clamp((int)((top - 1e-6) / Band), 0, Bands - 1);
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
        return Stack(job, Bands * Band, (i, top) => new LayerPlan(default, [new ToolPath(PathKind.OuterWall, ring, true, job.Width)])
        {
            Speed = i == 0 ? null : Flow(job, Math.Clamp((int)((top - 1e-6) / Band), 0, Bands - 1)) / ExtrudedLine.Area(job.Width,
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

/// <summary>Two scales of lines, one by each nozzle, whose coinciding lines tell the offset between them.</summary>
internal sealed class OffsetVernier : GaugePiece
{
    private const double Pitch = 3, Finer = 0.1, Line = 8, Gap = 1;
    private const int Half = 8;

    public override string Id => "offset-vernier";
    public override string Name => "XY offset vernier";
    public override string About(GaugeJob job) => $"Two scales along X and two along Y, the inner one by {Called(job, 0)}, the "
        + $"outer one by {Called(job, job.Second)}, whose lines lie 0.1 mm further apart. The longer line is 0; count to the "
        + $"pair that coincides, to the right or back positive.";
    public override IReadOnlyList<GaugeReading> Readings(GaugeJob job) =>
        [new("x", "coinciding pair along X", "", 0), new("y", "coinciding pair along Y", "", 0)];
    public override string? NotFor(Machine machine) => machine.Nozzles.Count < 2 ? "It takes two nozzles." : null;
    internal override (double X, double Y) Foot(GaugeJob job) => (Size, Size);

    internal override IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y) =>
        Stack(job, job.First + job.Height / 4, (_, _) => new LayerPlan(default, [.. Scale(job, x, y, 0), .. Scale(job, x, y, job.Second)]));

    /// <summary>Where pair n coincides, the second nozzle lies n · 0.1 mm to the low side of where it should.</summary>
    public override IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings)
    {
        if (job.Second >= job.Machine.Nozzles.Count) return [];
        var offset = job.Machine.Nozzles[job.Second].Offset ?? new();
        var found = new List<GaugeResult>();
        foreach (var (name, old) in new[] { ("x", offset.X), ("y", offset.Y) })
            if (readings.TryGetValue(name, out var pair) && Math.Abs(pair) <= Half)
                found.Add(new("card", JsonPointer.Nozzle(job.Second) / "offset" / name,
                    $"offset {name.ToUpperInvariant()} of nozzle {job.Machine.Nozzles[job.Second].Id}", "mm", old,
                        Math.Round(old - pair * Finer, 3)));
        return found;
    }

    private static string Called(GaugeJob job, int nozzle) => nozzle < job.Machine.Nozzles.Count
        ? $"nozzle {job.Machine.Nozzles[nozzle].Id}" : "the second";

    private const double Size = 2 * Half * (Pitch + Finer) + 2 * Line + 2;

    private static IEnumerable<ToolPath> Scale(GaugeJob job, double x, double y, int nozzle)
    {
        var pitch = nozzle == 0 ? Pitch : Pitch + Finer;
        for (var k = -Half; k <= Half; k++)
        {
            var length = k == 0 ? Line : Line - 3;
            // the scale along X at the front, the scale along Y at the left; the second nozzle's beside the first's, outwards
            var (near, far) = nozzle == 0 ? (Gap / 2, Gap / 2 + length) : (-Gap / 2, -Gap / 2 - length);
            yield return new ToolPath(PathKind.OuterWall,
                [new(x + k * pitch, y - Size / 2 + Line + 1 + near), new(x + k * pitch, y - Size / 2 + Line + 1 + far)], false,
                job.Width)
            { Nozzle = nozzle };
            yield return new ToolPath(PathKind.OuterWall,
                [new(x - Size / 2 + Line + 1 + near, y + k * pitch), new(x - Size / 2 + Line + 1 + far, y + k * pitch)], false,
                job.Width)
            { Nozzle = nozzle };
        }
    }
}

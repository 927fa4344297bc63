using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Gauges;

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
                [new(x + k * pitch, y - Size / 2 + Line + 1 + near), new(x + k * pitch, y - Size / 2 + Line + 1 + far)], Closed: false,
                job.Width)
            { Nozzle = nozzle };
            yield return new ToolPath(PathKind.OuterWall,
                [new(x - Size / 2 + Line + 1 + near, y + k * pitch), new(x - Size / 2 + Line + 1 + far, y + k * pitch)], Closed: false,
                job.Width)
            { Nozzle = nozzle };
        }
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Gauges;

/// <summary>What a gauge piece is made for.</summary>
/// <param name="Machine">The machine.</param>
/// <param name="Recipe">Heights, width and speeds of its lines.</param>
/// <param name="Filament">What it is printed with.</param>
public sealed record GaugeJob(Machine Machine, Recipe Recipe, Filament Filament)
{
    /// <summary>Index of the nozzle whose offset from the first is measured; only the vernier asks.</summary>
    public int Second { get; init; } = 1;

    /// <summary>Width of its lines, mm.</summary>
    internal double Width => Recipe.LineWidth!.Value;
    /// <summary>Height of its layers, mm.</summary>
    internal double Height => Recipe.Layers.Others!.Value;
    /// <summary>Height of its first layer, mm.</summary>
    internal double First => Recipe.Layers.First ?? Height;
}

/// <summary>A figure that is read off a printed gauge piece.</summary>
/// <param name="Name">Its name in an answer.</param>
/// <param name="Label">What to measure, and with what.</param>
/// <param name="Unit">Unit; empty for a count.</param>
/// <param name="Nominal">What it would be if all were right; null where there is no such figure.</param>
public sealed record GaugeReading(string Name, string Label, string Unit, double? Nominal);

/// <summary>A fact that follows from a printed gauge piece.</summary>
/// <param name="Document">Where it stands: card or filament.</param>
/// <param name="Pointer">Its place in that document.</param>
/// <param name="Label">Its name.</param>
/// <param name="Unit">Its unit.</param>
/// <param name="Old">What it is now; null where nobody has said.</param>
/// <param name="New">What it should be.</param>
public sealed record GaugeResult(string Document, string Pointer, string Label, string Unit, double? Old, double New)
{
    /// <summary>A round figure that the measurement means, such as what the parts of a drive give; null where there is none.</summary>
    public double? Exact { get; init; }
    /// <summary>Where the exact figure comes from, or why nothing is changed; null where there is nothing to say.</summary>
    public string? Says { get; init; }
}

/// <summary>A small test print made directly for a card, with a sheet for what is measured on it.</summary>
public abstract class GaugePiece
{
    /// <summary>Short name, kebab-case.</summary>
    public abstract string Id { get; }
    /// <summary>What it is called.</summary>
    public abstract string Name { get; }
    /// <summary>What it shows and how to read it, for a job.</summary>
    public abstract string About(GaugeJob job);
    /// <summary>What is measured on it.</summary>
    public abstract IReadOnlyList<GaugeReading> Readings(GaugeJob job);
    /// <summary>Size of its foot along X and Y, mm.</summary>
    internal abstract (double X, double Y) Foot(GaugeJob job);
    /// <summary>Its layers, their middle at (x, y) of the bed frame.</summary>
    internal abstract IReadOnlyList<LayerPlan> Plan(GaugeJob job, double x, double y);
    /// <summary>Facts that follow from what was measured; readings that are missing are left out.</summary>
    public abstract IReadOnlyList<GaugeResult> Result(GaugeJob job, IReadOnlyDictionary<string, double> readings);
    /// <summary>Why it makes no sense on a machine; null where it does.</summary>
    public virtual string? NotFor(Machine machine) => null;

    /// <summary>Number of the band in which a layer lies, counted from 0.</summary>
    /// <param name="top">Of the layer, mm.</param>
    /// <param name="height">Of a band, mm.</param>
    /// <param name="count">How many there are.</param>
    internal static int BandAt(double top, double height, int count) => Math.Clamp((int)((top - 1e-6) / height), 0, count - 1);

    /// <summary>A closed square about a place.</summary>
    internal static ToolPath Square(double x, double y, double side, double width, PathKind kind = PathKind.OuterWall) =>
        new(kind, [new(x - side / 2, y - side / 2), new(x + side / 2, y - side / 2), new(x + side / 2, y + side / 2),
            new(x - side / 2, y + side / 2)], Closed: true, width);

    /// <summary>Parallel lines that fill a rectangle about a place, laid to and fro.</summary>
    internal static ToolPath Filled(double x, double y, double along, double across, double width, double spacing)
    {
        var points = new List<Point>();
        var count = Math.Max(1, (int)(across / spacing));
        for (var k = 0; k < count; k++)
        {
            var at = y - across / 2 + (k + 0.5) * across / count;
            var (from, to) = k % 2 == 0 ? (x - along / 2, x + along / 2) : (x + along / 2, x - along / 2);
            points.Add(new(from, at));
            points.Add(new(to, at));
        }
        return new ToolPath(PathKind.Solid, [.. points], Closed: false, width);
    }

    /// <summary>Layers up to a height; the first as high as the recipe's first.</summary>
    internal static IReadOnlyList<LayerPlan> Stack(GaugeJob job, double height, Func<int, double, LayerPlan> make)
    {
        var layers = new List<LayerPlan>();
        for (var i = 0; ; i++)
        {
            var top = job.First + i * job.Height;
            if (top > height + job.Height / 2) return layers;
            var layer = make(i, top);
            layers.Add(layer with { Place = i == 0 ? new LayerPlace(job.First, job.First) : new LayerPlace(top, job.Height) });
        }
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Routines.Previews;

/// <summary>A few lines for a routine, made from the card's facts, to be inserted and adapted.</summary>
/// <param name="Id">Kebab-case.</param>
/// <param name="Title">What it does.</param>
/// <param name="About">How, with the numbers of this machine.</param>
/// <param name="Moment">The routine it belongs to.</param>
/// <param name="Text">G-code with Liquid.</param>
public sealed record Passage(string Id, string Title, string About, string Moment, string Text);

/// <summary>The passages for a machine.</summary>
public static class Passages
{
    private const double Inset = 4;
    private const double Shortest = 30;
    private const double Longest = 140;

    /// <summary>All that make sense on a machine.</summary>
    public static IReadOnlyList<Passage> For(Machine machine)
    {
        var card = machine.Card;
        var flavour = Flavour.Of(machine.Flavour);
        string Spelled(string what, string value) => flavour.Spell(what, ("value", value))!;
        var heated = card.Envelope.Heated == true;
        var passages = new List<Passage>
        {
            new("warm-together", "Warm both together, wait late", heated
                ? "The bed heats while the nozzle waits at standby, where it does not ooze."
                : "The nozzle warms to standby while the machine homes.", "start", Lines(
                "; warm together, wait late", heated ? Spelled("bed-set", "{{ heat.bed }}")
                    : null, Spelled("nozzle-set", "{{ heat.standby }}"), "G28",
                heated ? Spelled("bed-wait", "{{ heat.bed }}") : null, Spelled("nozzle-wait", "{{ heat.nozzle }}"))),
            new("home", "Home", "Words are positions, lengths in mm, E words are lengths.", "start",
                Lines("; home", flavour.Find('G', 21) is null ? null : "G21", "G90", "M83", "G28")),
        };
        if (card.Head.Probe is { Kind: not (null or ProbeKind.None) } && flavour.Spell("level") is { } level)
            passages.Add(new("level", "Level after home", flavour.HomeDropsMesh
                ? "Homing forgets the mesh on this flavour: probe after it, or switch the stored mesh on."
                : "Probe after homing.", "start",
                Lines("; level after home", "G28", level, flavour.HomeDropsMesh ? flavour.Spell("mesh-restore") : null)));
        if (PrimeLine(machine) is { } prime) passages.Add(prime);
        if (Wiper(machine) is { } wipe) passages.Add(wipe);
        passages.Add(Present(machine));
        passages.Add(new("all-off", "All off", "Heaters, fan and motors.", "end", Lines("; all off",
            string.Join('\n', machine.Nozzles.Count > 1 ? machine.Nozzles.Select((_, i) => $"M104 T{i} S0")
                : [Spelled("nozzle-set", "0")]), heated ? Spelled("bed-set", "0")
                : null, flavour.Spell("fan-off"), flavour.Spell("motors-off"))));
        return passages;
    }

    private static string Lines(params string?[] lines) => string.Join('\n', lines.Where(l => l is not null)) + "\n";

    /// <summary>A line along the edge that leaves most room, clear of every keep-out as the head with its bodies needs it.</summary>
    private static Passage? PrimeLine(Machine machine)
    {
        var box = machine.Bed.EnvelopeInternal;
        var free = machine.Usable;
        foreach (var forbidden in Forbidden.All(machine, 0.2)) free = Plane.Difference(free, forbidden.Grown);
        // above whatever stands, so that the head with its bodies passes
        var over = Math.Max(5, machine.KeepOuts.Where(k => k.KeepOut.Kind == KeepOutKind.Obstacle).Select(k => k.KeepOut.Top ?? 0)
            .DefaultIfEmpty().Max() + machine.Clearance + 1);
        var lift = Invariant($"G1 Z{over:0.##} F600");
        // a round bed has room for a line only further in
        foreach (var (name, alongX, at) in Enumerable.Range(0, 14).Select(i => Inset + 2 * i)
            .SelectMany(inset => new[] { ("front", true, box.MinY + inset), ("left", false, box.MinX + inset),
            ("back", true, box.MaxY - inset), ("right", false, box.MaxX - inset) }))
        {
            var line = alongX ? Line(box.MinX + Inset, at, box.MaxX - Inset, at) : Line(at, box.MinY + Inset, at, box.MaxY - Inset);
            var clear = free.Intersection(line);
            var longest = Enumerable.Range(0, clear.NumGeometries).Select(clear.GetGeometryN).OfType<LineString>()
                .OrderByDescending(l => l.Length).FirstOrDefault();
            if (longest is null || longest.Length < Shortest) continue;
            var (from, to) = (longest.Coordinates[0], longest.Coordinates[^1]);
            var middle = alongX ? (from.X + to.X) / 2 : (from.Y + to.Y) / 2;
            var half = Math.Min(longest.Length, Longest) / 2;
            var (min, max) = (middle - half, middle + half);
            var nearest = machine.KeepOuts.Select(k =>
                (k.KeepOut.Name, Distance: k.Outline.Distance(alongX ? Line(min, at, max, at) : Line(at, min, at, max))))
                .OrderBy(k => k.Distance).FirstOrDefault();
            string X(double x) => FromEdge("bed.min_x", x - box.MinX);
            string Y(double y) => FromEdge("bed.min_y", y - box.MinY);
            var width = machine.Nozzle.Diameter!.Value * 1.5;
            var feed = (max - min) * width * 0.3 / (Math.PI / 4 * Math.Pow(machine.Nozzle.FilamentDiameter ?? 1.75, 2));
            var about = Invariant($"{max - min:0} mm along the {name} "
                    + $"edge{(nearest.Name is null ? "" : $", {nearest.Distance:0} mm clear of {nearest.Name}")}.");
            return new Passage("prime-line", "Prime along an edge", about, "start", Lines(
                $"; prime along the {name}, clear of every keep-out", "G92 E0", lift,
                    $"G1 X{X(alongX ? min : at)} Y{Y(alongX ? at : min)} F6000", "G1 Z{{ first.height }} F600",
                Invariant($"G1 {(alongX ? $"X{X(max)}" : $"Y{Y(max)}")} E{feed:0.#} F1200"), lift,
                    "G92 E0"));
        }
        return null;
    }

    private static LineString Line(double x0, double y0, double x1, double y1) =>
        Plane.Factory.CreateLineString([new Coordinate(x0, y0), new Coordinate(x1, y1)]);

    private static string FromEdge(string name, double distance) =>
        Invariant($"{{{{ {name} | plus: {distance:0.##} | mm }}}}");

    /// <summary>Three strokes over a reserved place that is named a wiper.</summary>
    private static Passage? Wiper(Machine machine)
    {
        if (machine.KeepOuts.FirstOrDefault(k => k.KeepOut.Kind == KeepOutKind.Reserved
            && k.KeepOut.Name?.Contains("wip", StringComparison.OrdinalIgnoreCase) == true) is not { } wiper) return null;
        var box = wiper.Outline.EnvelopeInternal;
        var (low, high) = (machine.Frames.ToMachine(new Point(box.MinX, box.MinY)),
            machine.Frames.ToMachine(new Point(box.MaxX, box.MaxY)));
        var middle = (low.Y + high.Y) / 2;
        string Stroke(double x) => Invariant($"G1 X{x:0.##} Y{middle:0.##} F6000");
        return new Passage("wipe", "Wipe the nozzle", $"Three strokes over {wiper.KeepOut.Name}.", "start",
            Lines("; wipe", "G1 Z{{ first.height | plus: 5 | mm }} F600", Stroke(low.X), "G1 Z1 F600", Stroke(high.X), Stroke(low.X),
            Stroke(high.X), "G1 Z5 F600"));
    }

    /// <summary>Up first, then the part where it can be taken.</summary>
    private static Passage Present(Machine machine)
    {
        var layout = machine.Card.Motion.Layout;
        var (way, about) = layout switch
        {
            MotionLayout.Delta => ("G28", "Up to the end-stops; on a delta that leads away from the part."),
            MotionLayout.MovingBed => ("G1 X{{ bed.min_x | plus: 5 | mm }} Y{{ bed.max_y | minus: 5 | mm }} F6000",
                "The bed comes forward, the head goes to the left."),
            _ => ("G1 X{{ bed.min_x | plus: 5 | mm }} Y{{ bed.max_y | minus: 5 | mm }} F6000", "The head goes to the back left."),
        };
        return new Passage("present", "Present the part", about, "end",
            Lines("; up first, then aside", "M83", "G1 E-2 F2100", layout == MotionLayout.Delta ? null
            : "G1 Z{{ clear.z | mm }} F600", way));
    }
}

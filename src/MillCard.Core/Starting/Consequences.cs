using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Reach;

namespace MillCard.Core.Starting;

/// <summary>One thing that follows from a card.</summary>
/// <param name="Title">What it is about.</param>
/// <param name="Says">A sentence with numbers.</param>
/// <param name="Pointer">The fact that decides it most.</param>
public sealed record Consequence(string Title, string Says, string Pointer);

/// <summary>What follows at once from a complete card: what is left of the bed, what can be reached, how wide, how high and how fast a line
/// may be.</summary>
public static class Consequences
{
    /// <summary>In the order of the sheet.</summary>
    /// <param name="card">A complete card.</param>
    /// <param name="recipe">The recipe that is proposed for it.</param>
    public static IReadOnlyList<Consequence> Of(Card card, Recipe recipe)
    {
        var machine = Machine.Of(card);
        var fit = new Fit(machine, recipe);
        var free = Plane.Intersection(machine.Usable, machine.Travel());
        var lost = Plane.Union([.. fit.Regions.Select(r => r.Grown)]);
        var left = Plane.Difference(free, lost);
        var nozzle = machine.Nozzle;
        var d = nozzle.Diameter!.Value;
        return
        [
            new("bed", Bed(left.Area, free.Area, machine.Bed.Area), "/envelope/keepOuts"),
            new("height", Invariant($"Parts may be {machine.Height:0.##} mm high."), "/envelope/height"),
            new("frame", Frame(machine), "/envelope/origin"),
            new("lines", Lines(d), "/head/nozzles/0/diameter"),
            new("flow", Flow(nozzle, recipe), "/head/nozzles/0/maxFlow"),
            new("filament", Filament(nozzle.FilamentDiameter!.Value), "/head/nozzles/0/filamentDiameter"),
            new("bed heat", BedHeat(card), "/envelope/heated"),
        ];
    }

    private static string Bed(double left, double free, double all) => Invariant(
        $"{left / 100:0.#} of {all / 100:0.#} cm² are left to print on; {(all - free) / 100:0.#} cm² go to margins and reach, "
            + $"{(free - left) / 100:0.#} cm² to keep-outs and what the head needs round them.");

    private static string Lines(double d) => Invariant(
        $"A {d:0.##} mm nozzle lays lines of {NozzleBounds.LeastWidth * d:0.##} to {NozzleBounds.MostWidth * d:0.##} mm, "
            + $"in layers of {NozzleBounds.LeastHeight * d:0.##} to {NozzleBounds.MostHeight * d:0.##} mm (common practice).");

    private static string Frame(Machine machine)
    {
        // the polygon of a round bed lies up to 0.01 mm within it: the document's own size is said
        var (width, depth) = machine.Card.Envelope.Bed switch
        {
            RectangleBed { Width: { } w, Depth: { } d } => (w, d),
            EllipseBed { Width: { } w, Depth: { } d } => (w, d),
            _ => (machine.Bed.EnvelopeInternal.Width, machine.Bed.EnvelopeInternal.Height),
        };
        var (a, b) = (machine.Frames.ToMachine(new(0, 0)), machine.Frames.ToMachine(new(width, depth)));
        return Invariant($"In G-code the bed runs from X {a.X:0.##} to {b.X:0.##} and from Y {a.Y:0.##} to {b.Y:0.##}.");
    }

    private static string Flow(Nozzle nozzle, Recipe recipe)
    {
        var (width, height) = (recipe.LineWidth!.Value, recipe.Layers.Others!.Value);
        string Melts(double flow, double speed) =>
            Invariant($"{flow:0.#} mm³/s melt {speed:0} mm/s of lines {width:0.##} wide and {height:0.##} high.");
        return nozzle.MaxFlow is { } most
            ? Melts(most, ExtrudedLine.FastestSpeed(most, width, height, 1))
            : "How fast the hot end melts is not said; speeds are not capped.";
    }

    private static string Filament(double diameter)
    {
        var other = diameter < 2.3 ? 2.85 : 1.75;
        var share = 100 * FedDiameter.Share(other, diameter);
        return Invariant($"Fed with {other:0.##} mm filament by mistake, it would put out {share:0.#} % of the plastic.");
    }

    private static string BedHeat(Card card)
    {
        if (card.Envelope.Heated != true)
            return "The bed is not heated: PLA and TPU hold on a cold plate, most others do not (common practice).";
        return card.Heat.Bed is { } bed && (bed.Best ?? bed.Max) is { } hottest
            ? Invariant($"The bed reaches {hottest:0} °C: enough for {Materials(hottest)} (common practice).")
            : "How hot the bed gets is not said; no target is checked against it.";
    }

    private static string Materials(double bed) =>
        string.Join(", ", new[] { ("PLA", 40), ("TPU", 30), ("PETG", 60), ("PA", 70), ("ABS", 90), ("ASA", 90),
            ("PC", 90) }.Where(m => m.Item2 <= bed).Select(m => m.Item1).DefaultIfEmpty("nothing that wants a warm bed"));

}

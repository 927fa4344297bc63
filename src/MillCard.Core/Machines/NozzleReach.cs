using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Motion;
using MillCard.Core.Wording;

namespace MillCard.Core.Machines;

/// <summary>Where nozzles can really go: the carriage's travel moved by the nozzle's offset, (A ⊕ o) ∩ bed.</summary>
public static class NozzleReach
{
    /// <summary>Where a nozzle's tip can go, on the bed or beside it; bed frame.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="nozzle">Index of the nozzle.</param>
    public static Shape Travel(this Machine machine, int nozzle = 0)
    {
        var offset = nozzle < machine.Nozzles.Count ? machine.Nozzles[nozzle].Offset : null;
        return TravelAt(machine, nozzle, offset?.X ?? 0, offset?.Y ?? 0);
    }

    /// <summary>Where the levelling probe can go; empty where there is none.</summary>
    public static Shape OfProbe(Machine machine) =>
        machine.Card.Head.Probe is { Kind: not (null or ProbeKind.None) } probe
            ? Plane.Intersection(machine.Bed, TravelAt(machine, 0, probe.X ?? 0, probe.Y ?? 0))
            : Plane.Empty;

    /// <summary>Where a part may stand that a set of nozzles prints, within the bed.</summary>
    [Formula("Reach of a set of nozzles", "⋂ᵢ (A ⊕ oᵢ) ∩ B",
        "Minkowski sum; elementary geometry.", Where = "A travel of the carriage, oᵢ offset of a nozzle, B bed")]
    public static Shape Of(Machine machine, IEnumerable<int> nozzles) =>
        nozzles.Aggregate((Shape)machine.Bed, (left, i) => Plane.Intersection(left, machine.Travel(i)));

    private static Shape TravelAt(Machine machine, int nozzle, double dx, double dy)
    {
        var (x, y) = (machine.Card.Motion.Axes.X, machine.Card.Motion.Axes.Y);
        var (frames, box) = (machine.Frames, machine.Bed.EnvelopeInternal);
        if (machine.Card.Motion.Layout == MotionLayout.Delta)
        {
            var radius = Math.Min(x?.Max ?? Math.Max(box.Width, box.Height) / 2, DeltaGeometry.Of(machine.Card)?.ReachRadius
                ?? double.PositiveInfinity);
            return Shapes.Ellipse(frames.ZeroX + dx, frames.ZeroY + dy, radius, radius, Side.Outside);
        }
        var carriage = machine.CarriageOf(nozzle);
        var minX = (carriage?.Min ?? x?.Min) + frames.ZeroX ?? box.MinX;
        var maxX = (carriage?.Max ?? x?.Max) + frames.ZeroX ?? box.MaxX;
        var minY = y?.Min + frames.ZeroY ?? box.MinY;
        var maxY = y?.Max + frames.ZeroY ?? box.MaxY;
        return Shapes.Rectangle(minX + dx, minY + dy, Math.Max(0, maxX - minX), Math.Max(0, maxY - minY));
    }

    /// <summary>The carriage that carries a nozzle, where there are two.</summary>
    internal static Carriage? CarriageOf(this Machine machine, int nozzle) =>
        machine.HasTwoCarriages ? machine.Card.Head.Carriages.FirstOrDefault(c => machine.NozzleNamed(c.Nozzle) == nozzle) : null;
}

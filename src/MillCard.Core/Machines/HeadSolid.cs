using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Machines;

/// <summary>Something of the head that can hit a standing thing while a nozzle prints; solid from its underside upward.</summary>
/// <param name="Name">What its owner calls it.</param>
/// <param name="Outline">About the printing nozzle's tip, mm; a beam's is a strip longer than any machine.</param>
/// <param name="Underside">Above the printing nozzle's tip, mm; an idle nozzle may hang lower.</param>
/// <param name="Along">The axis a beam lies along; null for what moves with the nozzle in both.</param>
public sealed record HeadSolid(string Name, Polygon Outline, double Underside, BeamAxis? Along = null)
{
    private const double Far = 10_000;
    private const double Thinnest = 0.01;
    private readonly Lazy<IReadOnlyList<Polygon>> _pieces = new(() => [.. MinkowskiSum.ConvexPieces(Outline)]);

    /// <summary>The outline as convex pieces.</summary>
    public IReadOnlyList<Polygon> Pieces => _pieces.Value;

    /// <summary>An idle nozzle with the heater block above it counts as a disc of this radius; common practice, no source.</summary>
    private const double IdleNozzle = 3.5;

    /// <summary>Bodies, idle nozzles and beams as the given nozzle sees them.</summary>
    /// <param name="head">The head.</param>
    /// <param name="nozzle">Index of the nozzle that prints.</param>
    /// <exception cref="OutlineException">An outline crosses itself.</exception>
    internal static IReadOnlyList<HeadSolid> Of(Head head, int nozzle)
    {
        var solids = new List<HeadSolid>();
        // on two carriages a body hangs beside its own nozzle; on one all hang about the first
        var own = head.Carriages.Count == 2 && head.Nozzles?.Count >= 2;
        var (x, y, z) = own ? (0, 0, 0) : Between(head, nozzle, 0);
        for (var i = 0; i < head.Bodies.Count; i++)
        {
            var body = head.Bodies[i];
            if (own && body.On is not null && body.On != head.Nozzles![nozzle].Id) continue;
            var outline = OutlineException.Naming(JsonPointer.Body(i) / "outline", body.Name, () => Shapes.Of(body.Outline, Side.Outside));
            solids.Add(new HeadSolid(body.Name, (Polygon)Plane.Moved(outline, x, y), body.Underside + z));
        }
        // parked tools are not on the head
        for (var other = 0; !own && head.Changer != true && other < (head.Nozzles?.Count ?? 0); other++)
        {
            if (other == nozzle) continue;
            var (dx, dy, dz) = Between(head, nozzle, other);
            solids.Add(new HeadSolid($"nozzle {head.Nozzles![other].Id}", Shapes.Ellipse(dx, dy, IdleNozzle, IdleNozzle, Side.Outside),
                dz));
        }
        foreach (var beam in head.Beams)
        {
            var (near, width) = (Math.Min(beam.Near, beam.Far), Math.Max(Thinnest, Math.Abs(beam.Far - beam.Near)));
            solids.Add(new HeadSolid("beam", beam.Along == BeamAxis.X
                ? Shapes.Rectangle(-Far, near + y, 2 * Far, width)
                : Shapes.Rectangle(near + x, -Far, width, 2 * Far), beam.Underside + z, beam.Along));
        }
        return solids;
    }

    /// <summary>From one nozzle's tip to another's.</summary>
    private static (double X, double Y, double Z) Between(Head head, int from, int to)
    {
        if (from == to) return (0, 0, 0);
        var (a, b) = (head.Nozzles![from].Offset ?? new(), head.Nozzles[to].Offset ?? new());
        return (b.X - a.X, b.Y - a.Y, b.Z - a.Z);
    }
}

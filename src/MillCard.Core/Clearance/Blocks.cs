using System.Collections.Concurrent;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using NetTopologySuite.Geometries;
using NetTopologySuite.Simplify;

namespace MillCard.Core.Clearance;

/// <summary>Where parts may be, and what of that one part takes from another, each computed once a shape and turn.</summary>
/// <param name="fit">Tells where parts fit.</param>
/// <param name="plan">Of a mode of two carriages; null where there is none.</param>
/// <param name="apart">Gap between parts, mm.</param>
/// <param name="plainer">Outlines are made plainer by this much, to the safe side, mm.</param>
/// <param name="order">Tells what the head would hit, where parts are printed one at a time; else null.</param>
/// <param name="apron">What is grown round each part where they are.</param>
/// <param name="stop">Ends the computation.</param>
internal sealed class Blocks(Fit fit, ModePlan? plan, double apart, double plainer, PrintOrder? order, Apron apron, CancellationToken stop)
{
    private readonly ConcurrentDictionary<(Footprints, double Turn), Polygon> _hulls = new();
    private readonly ConcurrentDictionary<(Footprints, double Turn, string Nozzles), Lazy<Shape>> _free = new();
    private readonly ConcurrentDictionary<(Footprints, double, Footprints, double, string Nozzles), Shape> _blocked = new();

    /// <summary>The hull of a part with its middle at (0, 0); with what is grown round it where parts are printed one at a time.</summary>
    public Polygon HullOf(StandingPart part) => _hulls.GetOrAdd((part.Footprints, part.Turn), key => Plainer((Polygon)Shapes.Hull(
        key.Item1.Below(double.PositiveInfinity, 0, 0, key.Turn, order is null ? default : apron, stop))));

    /// <summary>Where the middle of a part may be, other parts left out; of one with many corners by the upright solid that holds it: no
    /// more places than there are, and quickly found.</summary>
    public Shape FreeOf(StandingPart part) => _free.GetOrAdd((part.Footprints, part.Turn, NozzlesOf(part)),
        _ => new(() => part.Footprints.Whole.NumPoints <= FewCorners ? fit.FreePlaces(part, plan, stop) : ByHull(part))).Value;

    private Shape ByHull(StandingPart part)
    {
        var whole = part.Footprints.Below(double.PositiveInfinity, 0, 0, part.Turn, stop: stop);
        var hull = Plainer((Polygon)Shapes.Hull(whole));
        var solid = part with { Turn = 0, Footprints = new Footprints(Prism.Of(hull, part.Footprints.Height), stop) };
        // its middle is not quite that of the part
        var middle = hull.EnvelopeInternal.Centre;
        return Plane.Moved(fit.FreePlaces(solid, plan, stop), -middle.X, -middle.Y);
    }

    private const int FewCorners = 64;

    /// <summary>Places of a second part, seen from the first, which stands or is printed before it, at which it is in the way.</summary>
    public Shape Of(StandingPart first, StandingPart then) => _blocked.GetOrAdd(
        (first.Footprints, first.Turn, then.Footprints, then.Turn, $"{NozzlesOf(first)}|{NozzlesOf(then)}"), _ =>
        {
            var touches = (Shape)MinkowskiSum.OfConvexPair(MinkowskiSum.Grown(HullOf(first), apart),
                (Polygon)MinkowskiSum.Negated(HullOf(then)));
            return order is null ? touches : Plane.Union(touches, order.BlockedBy(first, then));
        });

    private static string NozzlesOf(StandingPart part) => string.Join(' ', part.Nozzles ?? []);

    /// <summary>A hull with few corners that holds it.</summary>
    private Polygon Plainer(Polygon hull) => hull.NumPoints <= 12 ? hull
        : (Polygon)Shapes.Hull(Plane.Offset(DouglasPeuckerSimplifier.Simplify(hull, plainer), plainer, 1));
}

using System.Collections.Concurrent;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Where a nozzle may lay lines that are not the part's own: within bed and reach, clear of keep-outs.</summary>
internal sealed class AllowedGround(SliceJob job)
{
    private readonly ModePlan? _plan = new Fit(job.Machine, job.Recipe).PlanOf(job.Standing, job.Mode);
    private readonly ConcurrentDictionary<(int Nozzle, int Forbidding), Shape> _known = new();
    private readonly ConcurrentDictionary<int, IReadOnlyList<Forbidden>> _forbidden = new();

    /// <summary>Where lines may run.</summary>
    /// <param name="nozzle">Index of the nozzle.</param>
    /// <param name="bottom">Underside of the layer, mm.</param>
    public Shape Of(int nozzle, double bottom)
    {
        var all = _forbidden.GetOrAdd(nozzle, n => Forbidden.All(job.Machine, job.Recipe.Layers.FirstHeight, n));
        // the higher, the fewer forbid: their number tells which
        return _known.GetOrAdd((nozzle, all.Count(f => f.Below > bottom)), _ => all.Where(f => f.Below > bottom)
            .Aggregate(Plane.Intersection(job.Machine.Usable, _plan?.RegionOf(nozzle) ?? job.Machine.Travel(nozzle)),
                (ground, forbidden) => Plane.Difference(ground, forbidden.Grown)));
    }
}

using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Order;

/// <summary>Continuous walls that climb.</summary>
internal static class Spirals
{
    /// <summary>Every climbing ring begins where the one below it ended.</summary>
    public static IEnumerable<LayerPlan> Of(IEnumerable<LayerPlan> plans)
    {
        Point? here = null;
        foreach (var plan in plans)
        {
            var paths = plan.Paths.Select(path =>
            {
                if (!path.Climbs || here is not { } end) return path;
                var best = 0;
                for (var i = 1; i < path.Points.Length; i++) if (path.Points[i].To(end) < path.Points[best].To(end)) best = i;
                return path.From(best);
            }).ToArray();
            if (paths.Length > 0) here = paths[^1].End;
            yield return plan with { Paths = paths };
        }
    }
}

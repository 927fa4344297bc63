using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing;

/// <summary>Puts every layer's lines in the order in which they are printed: skirt, then nozzle by nozzle and part by part, walls from the inside out, then fill.</summary>
internal static class LayerOrder
{
    /// <summary>Each part to its top before the next begins.</summary>
    public static IReadOnlyList<LayerPlan> OneAtATime(SliceJob job, IReadOnlyList<Layering.Layer[]> parts, IReadOnlyList<int> order, CancellationToken stop) =>
        [.. order.Where(i => parts[i].Length > 0).SelectMany(i => Of(job with { Parts = [job.Parts[i]] }, [parts[i]], stop).Select(plan => plan with { Part = i }))];

    /// <summary>Layer by layer through all parts.</summary>
    public static IReadOnlyList<LayerPlan> Of(SliceJob job, IReadOnlyList<Layering.Layer[]> parts, CancellationToken stop)
    {
        var nozzles = job.Parts.Select(p => job.Machine.NozzlesOf(p.Part.Nozzles)[0]).ToArray();
        var inUse = nozzles.Distinct().Order().ToArray();
        var recipe = job.Recipe;
        var count = parts.Max(p => p.Length);
        var first = recipe.Layers.FirstHeight;
        var plans = new LayerPlan[count];
        // every layer starts where the machine's zero is nearest: layers stay independent of each other and can be ordered in parallel
        var zero = new Point(job.Machine.Frames.ZeroX, job.Machine.Frames.ZeroY);
        Parallel.For(0, count, new ParallelOptions { CancellationToken = stop }, i =>
        {
            var paths = new List<ToolPath>();
            var here = zero;
            if (i == 0) foreach (var path in Skirt(job, parts)) { paths.Add(path with { Nozzle = inUse[0] }); here = path.Points[0]; }
            // every other layer begins with the nozzle that the layer below ended with
            foreach (var nozzle in i % 2 == 0 ? inUse : inUse.Reverse())
                foreach (var (part, index) in ByDistance([.. parts.Index().Where(p => nozzles[p.Index] == nozzle && i < p.Item.Length && !p.Item[i].Region.IsEmpty).Select(p => (p.Item[i], p.Index))], here))
                    foreach (var path in OfPart(part, here))
                    {
                        paths.Add(path with { Nozzle = nozzle, Part = index });
                        here = path.Closed ? path.Points[0] : path.Points[^1];
                    }
            plans[i] = new LayerPlan(i == 0 ? new LayerPlace(first, first) : new LayerPlace(first + i * recipe.Layers.Others!.Value, recipe.Layers.Others.Value), paths);
        });
        return plans;
    }

    private static IEnumerable<(Layering.Layer Layer, int Index)> ByDistance(IReadOnlyList<(Layering.Layer Layer, int Index)> parts, Point start)
    {
        var left = parts.ToList();
        while (left.Count > 0)
        {
            var next = left.MinBy(p => new Point(p.Layer.Region.Centroid.X, p.Layer.Region.Centroid.Y).To(start));
            left.Remove(next);
            start = new Point(next.Layer.Region.Centroid.X, next.Layer.Region.Centroid.Y);
            yield return next;
        }
    }

    private static IEnumerable<ToolPath> OfPart(Layering.Layer layer, Point here)
    {
        for (var wall = layer.Walls.Count - 1; wall >= 0; wall--)
            foreach (var path in TravelOrder.Of(layer.Walls[wall], here)) { here = path.Points[0]; yield return path; }
        foreach (var path in TravelOrder.Of([.. layer.Fill.Where(p => p.Kind == PathKind.Solid)], here)) { here = path.Points[^1]; yield return path; }
        foreach (var path in TravelOrder.Of([.. layer.Fill.Where(p => p.Kind == PathKind.Infill)], here)) yield return path;
    }

    private static IEnumerable<ToolPath> Skirt(SliceJob job, IReadOnlyList<Layering.Layer[]> parts)
    {
        var recipe = job.Recipe;
        if (recipe.Skirt.Rounds == 0) yield break;
        var width = recipe.LineWidth!.Value;
        var spacing = ExtrudedLine.Spacing(width, recipe.Layers.FirstHeight);
        var foot = Plane.Union([.. parts.Where(p => p.Length > 0).Select(p => p[0].Region)]);
        for (var round = recipe.Skirt.Rounds - 1; round >= 0; round--)
            foreach (var outline in Plane.Polygons(Plane.Offset(foot, recipe.Skirt.Gap + width / 2 + round * spacing)))
                foreach (var ring in Walls.Rings(Plane.Factory.CreatePolygon((LinearRing)outline.ExteriorRing), PathKind.Skirt, width)) yield return ring;
    }
}

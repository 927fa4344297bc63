using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Supporting;
using MillCard.Core.Slicing.Walls;

namespace MillCard.Core.Slicing;

/// <summary>A part's own lines that know where they hang, with its supports, in the part's own frame.</summary>
/// <param name="Layers">From the bottom up; without paces.</param>
internal sealed record HeldLines(PartLayer[] Layers)
{
    /// <summary>What supports do not reach.</summary>
    public BareOverhangs? Bare { get; private init; }

    /// <summary>The lowest layer that is laid right upon supports.</summary>
    public int? Welded { get; private init; }

    /// <summary>The highest layer of supports under what hangs on each layer, below 0 where there is no room for any; null where nothing is
    /// supported.</summary>
    public IReadOnlyList<int>? Tops { get; private init; }

    /// <summary>Holds up what hangs, layers in parallel.</summary>
    /// <param name="own">The part's own lines.</param>
    /// <param name="carriers">The part's cross-sections with what else carries what is laid over them.</param>
    /// <param name="recipe">What lines are laid by, with the settings of supports.</param>
    /// <param name="places">The layers.</param>
    /// <param name="task">What is to be held; null for nothing.</param>
    /// <param name="options">How parallel, and when to stop.</param>
    public static HeldLines Of(OwnLines own, Shape[] carriers, Recipe recipe, LayerPlace[] places, SupportTask? task,
        ParallelOptions options)
    {
        var (regions, layers) = (own.Regions, new PartLayer[own.Layers.Length]);
        var branching = recipe.Supports.Pattern == SupportPattern.Branching;
        var areas = task switch
        {
            null => null,
            _ when branching => Branches.Of(task, options),
            _ => Columns.Of(task, options),
        };
        Parallel.For(0, layers.Length, options, i =>
        {
            layers[i] = CarriedAt(i) is { } carried ? Marked(own.Layers[i], carried, recipe.WidthOn(i, PathKind.OuterWall)) : own.Layers[i];
            if (areas is not null)
                layers[i] = layers[i] with
                {
                    Supports = [.. SupportLines.Of(areas.Body[i], areas.Interface[i], recipe, places[i], i)],
                    Held = areas.On(i),
                };
        });
        return new(layers)
        {
            Tops = task?.Tops,
            Bare = task is null ? null : BareOverhangs.Of(task, areas!),
            Welded = task is null ? null : WeldedRoofs.Of(task, areas!),
        };

        // what lies below a layer and carries it; null where that is all of it
        Shape? CarriedAt(int layer)
        {
            if (layer == 0 || ReferenceEquals(regions[layer], regions[layer - 1])) return null;
            return task is not null && task.TopFor(layer) is >= 0 and var top ? Plane.Union(carriers[layer - 1], areas!.On(top))
                : carriers[layer - 1];
        }
    }

    private static PartLayer Marked(PartLayer layer, Shape carried, double width)
    {
        using var over = new OverAir(carried, width);
        return layer with { Walls = [.. layer.Walls.Select(All)], Thin = All(layer.Thin) };

        IReadOnlyList<ToolPath> All(IReadOnlyList<ToolPath> paths) => [.. paths.Select(path => path.Climbs ? path : over.Marked(path))];
    }

    /// <summary>The same elsewhere; equal neighbours stay one shape.</summary>
    /// <param name="x">mm.</param>
    /// <param name="y">mm.</param>
    /// <param name="options">How parallel, and when to stop.</param>
    public PartLayer[] Moved(double x, double y, ParallelOptions options)
    {
        var regions = PartSections.Mapped([.. Layers.Select(l => l.Region)], region => Plane.Moved(region, x, y));
        var layers = new PartLayer[Layers.Length];
        Parallel.For(0, layers.Length, options, i => layers[i] = Layers[i].Moved(regions[i], x, y));
        return layers;
    }

    /// <summary>What it takes in memory beside the lines that it is made from, about.</summary>
    public long Bytes => PartSections.BytesOf([.. Layers.Select(l => l.Held)])
        + ToolPath.BytesOf(Layers.SelectMany(l => l.Paths.Where(p => p.Hanging is not null).Concat(l.Supports)));
}

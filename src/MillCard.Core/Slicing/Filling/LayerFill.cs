using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Filling;

/// <summary>What the inside of walls is filled with.</summary>
/// <param name="Groups">Lines, in groups in the order in which they are laid.</param>
/// <param name="Sparse">Where there is infill or nothing.</param>
internal sealed record LaidFill(IReadOnlyList<IReadOnlyList<ToolPath>> Groups, Shape Sparse);

/// <summary>Fills the inside of walls: bridges, solid, sparse, top and its second pass.</summary>
/// <param name="regions">The part's cross-sections.</param>
/// <param name="carriers">The same with what else carries what is laid over them.</param>
/// <param name="places">Its layers.</param>
/// <param name="common">What runs of them have in common.</param>
/// <param name="nozzle">Diameter of the nozzle, mm.</param>
internal sealed class LayerFill(Shape[] regions, Shape[] carriers, LayerPlace[] places, CommonToNeighbours common, double nozzle)
{
    private readonly bool _isEven = places.Skip(1).All(p => Math.Abs(p.Height - places[1].Height) < 1e-6);

    /// <summary>Diameter of the nozzle, mm.</summary>
    public double Nozzle => nozzle;

    /// <summary>The lines.</summary>
    /// <param name="layer">Number of the layer.</param>
    /// <param name="recipe">What holds there.</param>
    /// <param name="inside">Where the lines' middles may lie.</param>
    [Formula("Cross-section of a bridge's strand", "A = k·π·d²/4",
        "A strand in the air is round; common practice, no source.",
        Where = "d nozzle, k flow of bridges")]
    public LaidFill Of(int layer, Recipe recipe, Shape inside)
    {
        if (inside.IsEmpty) return new([], Plane.Empty);
        var place = places[layer];
        var width = recipe.WidthOn(layer, PathKind.Solid);
        var angle = Straight.Across(recipe.Infill.Angle, layer);
        var density = recipe.Infill.Density;
        var full = FullAt(layer, recipe, PathKind.Solid);
        var (sparse, solid) = density >= 1 || recipe.Spiral ? (Plane.Empty, inside) : Parted(layer, recipe, inside, width);

        var bridges = recipe.Bridges && layer > 0 && recipe.BottomLayers > 0 && !ReferenceEquals(regions[layer], regions[layer - 1])
            ? Bridges.Of(inside, carriers[layer - 1], width).ToArray() : [];
        foreach (var bridge in bridges) solid = Plane.Difference(solid, bridge.Area);
        var top = recipe.TopLayers > 0 && (recipe.Top.OneDirection || recipe.Top.Smooth || recipe.Speeds.Top is not null)
            ? TopOf(layer, solid, width) : Plane.Empty;
        if (!top.IsEmpty) (top, solid) = (Plane.Intersection(top, solid), Plane.Difference(solid, top));

        var groups = new List<IReadOnlyList<ToolPath>>
        {
            bridges.SelectMany(b => Hatch.Of(b.Area, b.Angle, nozzle, PathKind.Bridge, nozzle))
                .Select(p => p with { Section = recipe.BridgeFlow * Math.PI * nozzle * nozzle / 4 }).ToArray(),
            full.Of(solid, PathKind.Solid),
        };
        if (!sparse.IsEmpty) groups.AddRange(Sparse(layer, recipe, sparse));
        groups.Add(full.Of(top, PathKind.Top, recipe.Top.OneDirection ? Joining.None : Joining.Near));
        if (recipe.Top is { Smooth: true, SmoothPlastic: > 0 } && !top.IsEmpty)
            groups.Add([.. Hatch.Of(top, -angle, recipe.Top.SmoothSpacing * nozzle, PathKind.Smoothing, width)
                .Select(p => p with { Section = recipe.Top.SmoothPlastic * recipe.Top.SmoothSpacing * nozzle * place.Height })]);
        return new(groups, sparse);
    }

    /// <summary>Infill, near the skin with a density of its own where the recipe has one.</summary>
    private IEnumerable<IReadOnlyList<ToolPath>> Sparse(int layer, Recipe recipe, Shape sparse)
    {
        var (infill, skin) = (recipe.Infill, Plane.Empty);
        if (infill.NearSkin is { } near && near != infill.Density)
        {
            skin = Plane.Intersection(NearSkin(layer, sparse, infill.SkinDepth), sparse);
            sparse = Plane.Difference(sparse, skin);
            if (near > 0 && !skin.IsEmpty) yield return Filled(skin, near);
        }
        if (infill.Density > 0 && !sparse.IsEmpty) yield return Filled(sparse, infill.Density);

        IReadOnlyList<ToolPath> Filled(Shape area, double density) => density < 1
            ? [.. Infills.Of(infill.Pattern, PlaceOf(layer, recipe, area, density))]
            : FullAt(layer, recipe, PathKind.Infill).Of(area, PathKind.Infill);
    }

    private SolidFill FullAt(int layer, Recipe recipe, PathKind kind)
    {
        var width = recipe.WidthOn(layer, kind);
        double? least = recipe.Wall.FillThin ? Math.Min(recipe.Wall.LeastLine * nozzle, width) : null;
        return new(Straight.Across(recipe.Infill.Angle, layer), width, places[layer].Height, least,
            Math.Max(recipe.Wall.GreatestLine * nozzle, width));
    }

    private FillPlace PlaceOf(int layer, Recipe recipe, Shape sparse, double density)
    {
        var width = recipe.WidthOn(layer, PathKind.Infill);
        var place = places[layer];
        return new FillPlace(sparse, () => NearSkin(layer, sparse, recipe.Infill.SkinDepth), layer, place.Middle,
            ExtrudedLine.Spacing(width, place.Height), density, width, recipe.Infill.Angle, recipe.Infill.Anchor);
    }

    /// <summary>What is near the skin, to the sides, above or below.</summary>
    private Shape NearSkin(int layer, Shape sparse, double depth)
    {
        var away = (int)Math.Ceiling(depth / places[^1].Height);
        var deep = Plane.Offset(regions[layer], -depth);
        // a few layers away stand for all between: the skin is thicker than a slope is long
        foreach (var other in new[] { layer - away, layer - away / 2, layer + away / 2, layer + away })
            deep = other < 0 || other >= regions.Length ? Plane.Empty : Plane.Intersection(deep, regions[other]);
        return Plane.Difference(sparse, deep);
    }

    /// <summary>The inside, parted into what is covered from above and below by as many layers as must be solid, and the rest with a line's
    /// width more.</summary>
    private (Shape Sparse, Shape Solid) Parted(int layer, Recipe recipe, Shape inside, double width)
    {
        var (tops, bottoms) = (Count(layer, 1, recipe.TopLayers, recipe), Count(layer, -1, recipe.BottomLayers, recipe));
        using var edges = new Edges(inside);
        var (above, below) = (Bare(layer + 1, tops), Bare(layer - bottoms, bottoms));
        if (ReferenceEquals(above, inside) || ReferenceEquals(below, inside)) return (Plane.Empty, inside);
        var bare = Plane.Union(above, below);
        if (bare.IsEmpty) return (inside, bare);
        // the band itself is taken away, not what of it lies inside: edges that coincide are slow to overlay
        var band = Plane.Offset(Plane.Offset(bare, -width / 4), width);
        return (Plane.Difference(inside, band), Plane.Intersection(band, inside));

        Shape Bare(int first, int count) => count == 0 || common.ClearlyHolds(first, count, inside, edges)
            ? Plane.Empty : Plane.Difference(inside, common.Of(first, count));
    }

    /// <summary>How many layers above or below make as thick a shell as so many of the usual height.</summary>
    private int Count(int layer, int way, int layers, Recipe recipe)
    {
        var usual = recipe.Layers.Others!.Value;
        if (_isEven && places.Length > 1 && Math.Abs(places[1].Height - usual) < 1e-6) return layers;
        var (thick, count) = (layers * usual, 0);
        for (var sum = 0.0; sum < thick - 1e-6; count++)
        {
            var next = layer + way * (count + 1);
            if (next < 0 || next >= places.Length) return count + 1;
            sum += places[next].Height;
        }
        return count;
    }

    /// <summary>Where nothing lies on the solid area, with half a line's width more all round.</summary>
    private Shape TopOf(int layer, Shape solid, double width)
    {
        if (layer + 1 >= regions.Length) return solid;
        if (ReferenceEquals(regions[layer], regions[layer + 1])) return Plane.Empty;
        var open = Plane.Offset(Plane.Difference(solid, regions[layer + 1]), -width / 2);
        return Plane.Offset(open, width);
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Filling;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Walls;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>The lines of a layer's supports.</summary>
internal static class SupportLines
{
    /// <summary>Sparse lines in the body, dense ones across them in the interface; the first layer is dense, so that it holds.</summary>
    public static IEnumerable<ToolPath> Of(Shape body, Shape dense, Recipe recipe, LayerPlace place, int layer)
    {
        var (supports, width) = (recipe.Supports, recipe.WidthOn(layer, PathKind.Support));
        var (spacing, half) = (ExtrudedLine.Spacing(width, place.Height), width / 2);
        foreach (var path in Body(Plane.Offset(body, -half, 4), recipe, layer, spacing, width)) yield return path;
        if (dense.IsEmpty) yield break;
        foreach (var path in Hatch.Of(Plane.Offset(dense, -half, 4), 90, spacing + supports.InterfaceSpacing, PathKind.Interface, width,
            joining: Joining.Far)) yield return path;
    }

    private static IEnumerable<ToolPath> Body(Shape middles, Recipe recipe, int layer, double spacing, double width)
    {
        if (middles.IsEmpty) return [];
        var density = layer == 0 ? Math.Max(0.5, recipe.Supports.Density) : recipe.Supports.Density;
        return recipe.Supports.Pattern switch
        {
            SupportPattern.Continuous => Hatch.Of(middles, 0, spacing / density, PathKind.Support, width, joining: Joining.Far),
            SupportPattern.Branching => [.. WallLines.Rings(middles, PathKind.Support, width), .. layer == 0
                ? Hatch.Of(Plane.Offset(middles, -spacing, 4), 45, spacing, PathKind.Support, width) : []],
            _ => Hatch.Of(middles, layer % 2 == 0 ? 0 : 90, spacing / density, PathKind.Support, width),
        };
    }
}

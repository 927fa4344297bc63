using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Walls;

/// <summary>How thick a recipe's walls come to be.</summary>
public static class WallThickness
{
    /// <summary>From the part's surface to the inner side of its innermost wall, mm, where the walls have their usual widths. Neighbours
    /// overlap by their round sides (<see cref="ExtrudedLine.Spacing"/>), as the engine lays them.</summary>
    /// <param name="recipe">With its line width in mm.</param>
    /// <param name="height">Of the layer, mm.</param>
    public static double Of(Recipe recipe, double height)
    {
        if (recipe.Walls == 0) return 0;
        var (outer, inner) = (recipe.WidthOf(PathKind.OuterWall), recipe.WidthOf(PathKind.InnerWall));
        if (recipe.Walls == 1) return outer;
        var (beside, between) = (ExtrudedLine.Spacing(outer, height), ExtrudedLine.Spacing(inner, height));
        return outer / 2 + (beside + between) / 2 + (recipe.Walls - 2) * between + inner / 2;
    }
}

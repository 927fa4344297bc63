using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Tops that have one wall alone.</summary>
internal static class OneWallTops
{
    /// <summary>The pieces of a layer, their tops apart where their settings ask for one wall there.</summary>
    /// <param name="pieces">By the settings that hold.</param>
    /// <param name="above">The area of the layer above.</param>
    public static IReadOnlyList<Piece> Apart(IReadOnlyList<Piece> pieces, Shape above) =>
        [.. pieces.SelectMany(piece => Apart(piece, above))];

    /// <summary>A top is as wide at least as the walls that go.</summary>
    private static IEnumerable<Piece> Apart(Piece piece, Shape above)
    {
        var (recipe, area) = (piece.Recipe, piece.Area);
        if (recipe is { Top.OneWall: true, Walls: > 1, Spiral: false } && !ReferenceEquals(area, above))
        {
            var least = recipe.Walls * recipe.WidthOf(PathKind.InnerWall);
            var open = Plane.Offset(Plane.Offset(Plane.Difference(area, above), -least), least);
            if (!open.IsEmpty)
            {
                yield return piece with
                {
                    Recipe = recipe with { Walls = 1, Wall = recipe.Wall with { Alternate = false } },
                    Area = Plane.Intersection(open, area),
                };
                area = Plane.Difference(area, open);
                if (area.IsEmpty) yield break;
            }
        }
        yield return piece with { Area = area };
    }
}

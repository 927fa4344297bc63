using MillCard.Core.Slicing.Paths;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Patterns of straight rows.</summary>
internal static class Straight
{
    private const int SparserInside = 4;

    /// <summary>One direction a layer, the next across it.</summary>
    public static IEnumerable<ToolPath> Lines(FillPlace place) => place.Rows(Across(place), place.Spacing / place.Density);

    /// <summary>Both directions on every layer, each with half of the plastic.</summary>
    public static IEnumerable<ToolPath> Grid(FillPlace place) =>
        [.. place.Rows(place.Angle, 2 * place.Spacing / place.Density), .. place.Rows(place.Angle - 90, 2 * place.Spacing / place.Density)];

    /// <summary>Three directions on every layer, each with a third of the plastic.</summary>
    public static IEnumerable<ToolPath> Triangles(FillPlace place) => Three(place, 0);

    /// <summary>Cubes that stand on a corner: three families of planes at right angles to each other. In a layer they are three directions
    /// of rows, which move sideways by z/√2.</summary>
    [Formula("How far rows of cubic infill move from layer to layer", "Δz/√2",
        "Elementary geometry, of cubes that stand on a corner.")]
    public static IEnumerable<ToolPath> Cubic(FillPlace place) => Three(place, place.Z / Math.Sqrt(2));

    /// <summary>Near the skin at full density; inside it every fourth row.</summary>
    public static IEnumerable<ToolPath> Graded(FillPlace place)
    {
        var (near, spacing) = (place.NearSkin(), place.Spacing / place.Density);
        var deep = Geometry.Plane.Difference(place.Area, near);
        return [.. place.Rows(near, Across(place), spacing), .. place.Rows(deep, Across(place), SparserInside * spacing)];
    }

    /// <summary>Direction of a layer's rows where every other layer lies across the ones below, degrees from X.</summary>
    /// <param name="angle">Of the even layers.</param>
    /// <param name="layer">Counted from 0.</param>
    public static double Across(double angle, int layer) => angle - (layer % 2 == 0 ? 0 : 90);

    private static double Across(FillPlace place) => Across(place.Angle, place.Layer);

    private static IEnumerable<ToolPath> Three(FillPlace place, double phase)
    {
        // one of them lies halfway between the two of crossed lines
        var (spacing, first) = (3 * place.Spacing / place.Density, place.Angle - 45);
        return [.. Enumerable.Range(0, 3).SelectMany(k => place.Rows(first + 120 * k, spacing, phase))];
    }
}

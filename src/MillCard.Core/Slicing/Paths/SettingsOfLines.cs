using MillCard.Core.Documents;

namespace MillCard.Core.Slicing.Paths;

/// <summary>Widths and speeds of a recipe by kind of line.</summary>
internal static class SettingsOfLines
{
    /// <summary>Width of a kind of line above the first layer, mm.</summary>
    /// <param name="recipe">Complete.</param>
    /// <param name="kind">The kind.</param>
    public static double WidthOf(this Recipe recipe, PathKind kind) => recipe.LineWidth!.Value * (RatioOf(recipe.Widths, kind) ?? 1);

    /// <summary>Width of a kind of line on the first layer, mm.</summary>
    public static double FirstWidthOf(this Recipe recipe, PathKind kind) =>
        recipe.LineWidth!.Value * (recipe.Widths.First ?? RatioOf(recipe.Widths, kind) ?? 1);

    /// <summary>Width of a kind of line on a layer, counted from 0, mm.</summary>
    public static double WidthOn(this Recipe recipe, int layer, PathKind kind) =>
        layer == 0 ? recipe.FirstWidthOf(kind) : recipe.WidthOf(kind);

    private static double? RatioOf(LineWidths widths, PathKind kind) => kind switch
    {
        PathKind.OuterWall => widths.OuterWall,
        PathKind.InnerWall => widths.InnerWall,
        PathKind.Solid or PathKind.Top => widths.Solid,
        PathKind.Infill => widths.Infill,
        PathKind.Support or PathKind.Interface => widths.Support,
        _ => null,
    };

    /// <summary>Speed of a kind of line above the slow layers, mm/s.</summary>
    public static double SpeedOf(this Recipe recipe, PathKind kind)
    {
        var speeds = recipe.Speeds;
        return kind switch
        {
            PathKind.OuterWall => speeds.OuterWall,
            PathKind.InnerWall => speeds.InnerWall,
            PathKind.Infill => speeds.Infill,
            PathKind.Top or PathKind.Smoothing => speeds.Top ?? speeds.Solid,
            PathKind.Bridge => speeds.Bridge,
            PathKind.Thin => speeds.Thin,
            PathKind.Support or PathKind.Shield or PathKind.Tower => speeds.Support,
            PathKind.Interface => speeds.Interface,
            _ => speeds.Solid,
        };
    }

    /// <summary>Acceleration of a kind of line, mm/s²; null where nothing is said.</summary>
    /// <param name="recipe">Any.</param>
    /// <param name="layer">The layer, counted from 0.</param>
    /// <param name="kind">The kind.</param>
    public static double? AccelerationOn(this Recipe recipe, int layer, PathKind kind)
    {
        var all = recipe.Accelerations;
        if (layer == 0 && all.FirstLayer is { } slow) return slow;
        return kind switch
        {
            PathKind.OuterWall => all.OuterWall,
            PathKind.InnerWall => all.InnerWall,
            PathKind.Solid or PathKind.Top or PathKind.Smoothing => all.Solid,
            _ => all.Infill,
        };
    }

    /// <summary>Speed of a line on one of the slow layers at the bottom: it rises evenly from the first layer's, mm/s.</summary>
    /// <param name="speeds">Of the recipe.</param>
    /// <param name="speed">What the line has above them.</param>
    /// <param name="number">The layer, counted from 1.</param>
    public static double OnLayer(this Speeds speeds, double speed, int number) =>
        number > speeds.SlowLayers || speed <= speeds.FirstLayer ? speed
            : speeds.FirstLayer + (speed - speeds.FirstLayer) * (number - 1) / speeds.SlowLayers;
}

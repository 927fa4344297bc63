using MillCard.Core.Documents;

namespace MillCard.Core.Slicing.Paths;

/// <summary>Widths and speeds of a recipe by kind of line.</summary>
internal static class SettingsOfLines
{
    /// <summary>Width of a kind of line, mm.</summary>
    /// <param name="recipe">Complete.</param>
    /// <param name="kind">The kind.</param>
    /// <param name="first">Whether it lies on the first layer.</param>
    public static double WidthOf(this Recipe recipe, PathKind kind, bool first)
    {
        var widths = recipe.Widths;
        var ratio = kind switch
        {
            PathKind.OuterWall => widths.OuterWall,
            PathKind.InnerWall => widths.InnerWall,
            PathKind.Solid or PathKind.Top => widths.Solid,
            PathKind.Infill => widths.Infill,
            PathKind.Support or PathKind.Interface => widths.Support,
            _ => null,
        };
        return recipe.LineWidth!.Value * ((first ? widths.First : null) ?? ratio ?? 1);
    }

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
    public static double? AccelerationOf(this Recipe recipe, PathKind kind, bool first)
    {
        var all = recipe.Accelerations;
        if (first && all.FirstLayer is { } slow) return slow;
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

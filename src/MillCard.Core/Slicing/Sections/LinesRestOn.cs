using MillCard.Core.Documents;

namespace MillCard.Core.Slicing.Sections;

/// <summary>What of a recipe bears on where a part's own lines lie.</summary>
internal static class LinesRestOn
{
    /// <summary>The recipe with nothing else in it: lines that are laid by it stay right whatever else changes.</summary>
    public static Recipe ForLines(this Recipe recipe) => new()
    {
        Layers = recipe.Layers,
        LineWidth = recipe.LineWidth,
        Widths = recipe.Widths,
        Deviation = recipe.Deviation,
        Arcs = recipe.Arcs,
        Walls = recipe.Walls,
        Wall = recipe.Wall,
        TopLayers = recipe.TopLayers,
        BottomLayers = recipe.BottomLayers,
        Top = recipe.Top,
        Bridges = recipe.Bridges,
        BridgeFlow = recipe.BridgeFlow,
        Spiral = recipe.Spiral,
        Infill = recipe.Infill,
        // tops with a speed of their own are laid apart
        Speeds = new Speeds { Top = recipe.Speeds.Top is null ? null : new Speeds().Solid },
    };
}

using MillCard.Core.Documents;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing.Paths;

/// <summary>What a line of plastic is for, in the order of their bytes in the binary of layers.</summary>
public enum PathKind : byte
{
    /// <summary>Round the first layer, to get the flow going.</summary>
    Skirt,
    /// <summary>The outermost wall.</summary>
    OuterWall,
    /// <summary>Another wall.</summary>
    InnerWall,
    /// <summary>Solid fill.</summary>
    [Word("solid fill")] Solid,
    /// <summary>Sparse infill.</summary>
    Infill,
    /// <summary>The uppermost layer's fill.</summary>
    Top,
    /// <summary>Hangs between two banks.</summary>
    Bridge,
    /// <summary>A single line in a thin place or a gap.</summary>
    [Word("thin line")] Thin,
    /// <summary>The second pass over the uppermost layer.</summary>
    [Word("second pass")] Smoothing,
    /// <summary>Holds up what would hang in the air.</summary>
    Support,
    /// <summary>The dense layers between support and part.</summary>
    Interface,
    /// <summary>The border that holds the foot.</summary>
    Brim,
    /// <summary>Under the part.</summary>
    Raft,
    /// <summary>Where a nozzle primes after a change.</summary>
    Tower,
    /// <summary>The wall that catches what drips.</summary>
    Shield,
}

/// <summary>What follows from a kind of line alone.</summary>
public static class PathKinds
{
    /// <summary>Whether it belongs to the part itself, not to what is torn off or thrown away.</summary>
    public static bool IsPart(this PathKind kind) =>
        kind is PathKind.OuterWall or PathKind.InnerWall or PathKind.Solid or PathKind.Infill
            or PathKind.Top or PathKind.Bridge or PathKind.Thin or PathKind.Smoothing;
}

/// <summary>One layer in the order in which it is printed.</summary>
/// <param name="Place">Its top and height.</param>
/// <param name="Paths">Its lines.</param>
/// <param name="Part">Index of the part it belongs to, where parts are printed one at a time; null where they grow together.</param>
public sealed record LayerPlan(LayerPlace Place, IReadOnlyList<ToolPath> Paths, int? Part = null)
{
    /// <summary>Lines of G-code that come before its paths, such as a temperature of its own.</summary>
    public IReadOnlyList<string> Commands { get; init; } = [];
    /// <summary>Speed of all its paths, mm/s, in place of the recipe's and without the cap of the melting limit; null for none.</summary>
    public double? Speed { get; init; }
    /// <summary>Retraction on it, mm of filament, in place of the recipe's; null for none.</summary>
    public double? Retraction { get; init; }
}

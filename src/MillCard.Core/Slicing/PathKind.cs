namespace MillCard.Core.Slicing;

/// <summary>What a line of plastic is for.</summary>
public enum PathKind : byte
{
    /// <summary>Round the first layer, to get the flow going.</summary>
    Skirt,
    /// <summary>The outermost wall.</summary>
    OuterWall,
    /// <summary>Another wall.</summary>
    InnerWall,
    /// <summary>Solid fill.</summary>
    Solid,
    /// <summary>Sparse infill.</summary>
    Infill,
}

/// <summary>A line of plastic.</summary>
/// <param name="Kind">What it is for.</param>
/// <param name="Points">Its middle, mm, bed frame; a closed one does not repeat its first point.</param>
/// <param name="Closed">Whether it runs back to its first point.</param>
/// <param name="Width">mm.</param>
public sealed record ToolPath(PathKind Kind, Point[] Points, bool Closed, double Width)
{
    /// <summary>Index of the nozzle that lays it.</summary>
    public int Nozzle { get; init; }
    /// <summary>Index of the part it belongs to; null where it belongs to none.</summary>
    public int? Part { get; init; }

    /// <summary>Length of the middle, mm.</summary>
    public double Length
    {
        get
        {
            var sum = Closed ? Points[^1].To(Points[0]) : 0;
            for (var i = 1; i < Points.Length; i++) sum += Points[i - 1].To(Points[i]);
            return sum;
        }
    }
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

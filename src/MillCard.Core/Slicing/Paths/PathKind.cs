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

/// <summary>A line of plastic.</summary>
/// <param name="Kind">What it is for.</param>
/// <param name="Points">Its middle, mm, bed frame; a closed one does not repeat its first point.</param>
/// <param name="Closed">Whether it runs back to its first point.</param>
/// <param name="Width">mm.</param>
public sealed record ToolPath(PathKind Kind, Point[] Points, bool Closed, double Width)
{
    /// <summary>Speed that its settings ask for, mm/s; that of its kind in the job's recipe where it is null.</summary>
    public double? Speed { get; init; }
    /// <summary>Cross-section of the strand, mm², where it is not that of a line of its width and the layer's height.</summary>
    public double? Section { get; init; }
    /// <summary>Whether the nozzle climbs by a layer along it.</summary>
    public bool Climbs { get; init; }
    /// <summary>Corners of a way to its first point that stays within the part, from the end of the path before it; null where there is
    /// none.</summary>
    public Point[]? Approach { get; init; }
    /// <summary>Index of the nozzle that lays it.</summary>
    public int Nozzle { get; init; }
    /// <summary>Index of the part it belongs to; null where it belongs to none.</summary>
    public int? Part { get; init; }

    /// <summary>The same line begun at another of its corners; an open one begun at its end is turned round.</summary>
    public ToolPath From(int corner)
    {
        if (corner == 0) return this;
        var points = new Point[Points.Length];
        if (Closed)
        {
            Array.Copy(Points, corner, points, 0, Points.Length - corner);
            Array.Copy(Points, 0, points, Points.Length - corner, corner);
        }
        else
        {
            Points.CopyTo(points, 0);
            Array.Reverse(points);
        }
        return this with { Points = points };
    }

    /// <summary>Where the nozzle is when it has been laid.</summary>
    public Point End => Closed ? Points[0] : Points[^1];

    /// <summary>Cross-section of the strand in a layer of a height, mm².</summary>
    public double SectionAt(double height) => Section ?? Flow.ExtrudedLine.Area(Width, height);

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

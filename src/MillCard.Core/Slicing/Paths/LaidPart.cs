using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing.Paths;

/// <summary>One layer's areas and lines of one part.</summary>
/// <param name="Region">The cross-section.</param>
/// <param name="Walls">Walls, outermost first; each entry is one wall's rings.</param>
/// <param name="Thin">Single lines in thin places and gaps.</param>
/// <param name="Fill">Groups in the order in which they are laid: bridges, solid, sparse, top, smoothing.</param>
/// <param name="Supports">Supports and their interface.</param>
internal sealed record PartLayer(Shape Region, IReadOnlyList<IReadOnlyList<ToolPath>> Walls, IReadOnlyList<ToolPath> Thin,
    IReadOnlyList<IReadOnlyList<ToolPath>> Fill, IReadOnlyList<ToolPath> Supports)
{
    /// <summary>What its supports cover.</summary>
    public Shape Held { get; init; } = Plane.Empty;

    /// <summary>Places that no line fits into.</summary>
    public IReadOnlyList<TooThin> Missing { get; init; } = [];

    /// <summary>All its lines.</summary>
    public IEnumerable<ToolPath> Paths => Walls.SelectMany(wall => wall).Concat(Thin).Concat(Fill.SelectMany(group => group))
        .Concat(Supports);

    /// <summary>The same elsewhere.</summary>
    /// <param name="region">Its cross-section there.</param>
    /// <param name="x">mm.</param>
    /// <param name="y">mm.</param>
    public PartLayer Moved(Shape region, double x, double y) => new(region, [.. Walls.Select(wall => Moved(wall, x, y))], Moved(Thin, x, y),
        [.. Fill.Select(group => Moved(group, x, y))], Moved(Supports, x, y))
    {
        Held = Held.IsEmpty ? Held : Plane.Moved(Held, x, y),
        Missing = [.. Missing.Select(m => m with { At = new Point(m.At.X + x, m.At.Y + y) })],
    };

    private static IReadOnlyList<ToolPath> Moved(IReadOnlyList<ToolPath> paths, double x, double y) =>
        [.. paths.Select(p => p.Moved(x, y))];
}

/// <summary>A part cut and laid.</summary>
/// <param name="Layers">From the bottom up.</param>
/// <param name="Places">Where the layers lie.</param>
/// <param name="Recipe">Its own settings.</param>
/// <param name="Findings">What was noticed.</param>
internal sealed record LaidPart(PartLayer[] Layers, LayerPlace[] Places, Recipe Recipe, IReadOnlyList<Finding> Findings);

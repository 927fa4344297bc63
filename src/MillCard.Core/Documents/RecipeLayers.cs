namespace MillCard.Core.Documents;

/// <summary>Heights of layers, mm.</summary>
public sealed record LayerSizes : OpenRecord
{
    /// <summary>The first layer; as the others where nothing is said.</summary>
    [Field("first layer's height", "mm", AtLeast = 0.01, AtMost = 2)] public double? First { get; init; }
    /// <summary>Every layer after the first.</summary>
    [Field("layer height", "mm", AtLeast = 0.01, AtMost = 2, Needed = true)] public double? Others { get; init; }

    /// <summary>The height as a number of full steps of Z; on a machine whose ladder is known it goes before the height in mm.</summary>
    [Field("layer height in rungs", "", AtLeast = 1, AtMost = 1000)] public int? Rungs { get; init; }
    /// <summary>The first layer's height as a number of full steps of Z.</summary>
    [Field("first layer's height in rungs", "", AtLeast = 1, AtMost = 1000)] public int? FirstRungs { get; init; }
    /// <summary>Whether heights in mm mean about so much: the nearest whole or half step of Z is taken, unless the ladder is too
    /// coarse.</summary>
    [Field("heights on a rung")] public bool OnRung { get; init; }

    /// <summary>Height of the first layer of a complete recipe, mm.</summary>
    internal double FirstHeight => First ?? Others!.Value;
}

/// <summary>Widths of single kinds of line as ratios of the line width; 1 where nothing is said.</summary>
public sealed record LineWidths : OpenRecord
{
    /// <summary>Every line of the first layer; goes before the ratio of its kind.</summary>
    [Field("first layer's line width", "", AtLeast = 0.5, AtMost = 2.5)] public double? First { get; init; }
    /// <summary>Outermost wall.</summary>
    [Field("outer wall's width", "", AtLeast = 0.5, AtMost = 2)] public double? OuterWall { get; init; }
    /// <summary>Other walls.</summary>
    [Field("inner walls' width", "", AtLeast = 0.5, AtMost = 2)] public double? InnerWall { get; init; }
    /// <summary>Solid fill.</summary>
    [Field("solid fill's width", "", AtLeast = 0.5, AtMost = 2)] public double? Solid { get; init; }
    /// <summary>Sparse infill.</summary>
    [Field("infill's width", "", AtLeast = 0.5, AtMost = 2)] public double? Infill { get; init; }
    /// <summary>Supports.</summary>
    [Field("supports' width", "", AtLeast = 0.5, AtMost = 2)] public double? Support { get; init; }
}

/// <summary>How walls are laid.</summary>
public sealed record WallUse : OpenRecord
{
    /// <summary>Which comes first.</summary>
    [Field("order of walls")] public WallOrder Order { get; init; } = WallOrder.InsideOut;
    /// <summary>Where rings begin.</summary>
    [Field("seam")] public Seam Seam { get; init; } = Seam.Aligned;
    /// <summary>Whether places too thin for a wall on both sides get one line, and gaps between walls are filled.</summary>
    [Field("single lines in thin places")] public bool FillThin { get; init; } = true;
}

/// <summary>Order of the walls of one outline.</summary>
public enum WallOrder
{
    /// <summary>The outer wall last.</summary>
    InsideOut,
    /// <summary>The outer wall first.</summary>
    OutsideIn,
}

/// <summary>Where a ring begins and ends.</summary>
public enum Seam
{
    /// <summary>Above the seam of the layer below.</summary>
    Aligned,
    /// <summary>At the back.</summary>
    Back,
    /// <summary>At the sharpest corner.</summary>
    Sharpest,
    /// <summary>Scattered over the outline.</summary>
    Scattered,
}

/// <summary>How much contours are moved outwards, mm; negative inwards.</summary>
public sealed record Compensation : OpenRecord
{
    /// <summary>On every layer.</summary>
    [Field("XY compensation", "mm", AtLeast = -2, AtMost = 2)] public double Xy { get; init; }
    /// <summary>On the first layer, beside that of every layer.</summary>
    [Field("first layer's compensation", "mm", AtLeast = -2, AtMost = 2)] public double FirstLayer { get; init; }
}

/// <summary>How the uppermost layer's lines are laid.</summary>
public sealed record TopSurface : OpenRecord
{
    /// <summary>Whether all lines run in one direction.</summary>
    [Field("top in one direction")] public bool OneDirection { get; init; }
    /// <summary>Whether the nozzle passes over it once more with very little plastic.</summary>
    [Field("second pass over the top")] public bool Smooth { get; init; }
}

/// <summary>Sparse infill.</summary>
public sealed record Infill : OpenRecord
{
    /// <summary>Share of the inside that is plastic, 0 to 1.</summary>
    [Field("infill", "", AtLeast = 0, AtMost = 1)] public double Density { get; init; } = 0.2;
    /// <summary>How it is laid.</summary>
    [Field("infill pattern")] public InfillPattern Pattern { get; init; } = InfillPattern.Lines;
}

/// <summary>Infill patterns.</summary>
public enum InfillPattern
{
    /// <summary>Parallel lines, turned by 90° every layer.</summary>
    Lines,
    /// <summary>Lines both ways on every layer.</summary>
    Grid,
    /// <summary>Lines in three directions on every layer.</summary>
    Triangles,
    /// <summary>Rings along the contour.</summary>
    Concentric,
    /// <summary>Hexagonal cells; the walls of neighbouring rows are double.</summary>
    Honeycomb,
    /// <summary>The gyroid, a surface that divides space in two.</summary>
    Gyroid,
    /// <summary>Cubes standing on a corner.</summary>
    Cubic,
    /// <summary>Lines, close together near the skin and sparser away from it.</summary>
    Graded,
}

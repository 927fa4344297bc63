namespace MillCard.Core.Documents;

/// <summary>Print settings.</summary>
public sealed record Recipe : OpenRecord, IDocument
{
    /// <summary>Name and version of this document's schema.</summary>
    public const string SchemaName = "mill-card/recipe/1";
    /// <inheritdoc/>
    public static string Kind => "recipe";

    /// <summary>Always <see cref="SchemaName"/> once read.</summary>
    public string Schema { get; init; } = SchemaName;
    /// <summary>What its owner calls it.</summary>
    [Field("name", Needed = true, Fewest = 1, Most = 120)] public string? Name { get; init; }
    /// <summary>Heights of layers.</summary>
    public LayerSizes Layers { get; init; } = new();
    /// <summary>Width of a line, mm.</summary>
    [Field("line width", "mm", AtLeast = 0.05, AtMost = 5, Needed = true)] public double? LineWidth { get; init; }
    /// <summary>Lines along the contour.</summary>
    [Field("walls", "", AtLeast = 0, AtMost = 100)] public int Walls { get; init; } = 2;
    /// <summary>Solid layers at the top.</summary>
    [Field("solid layers at the top", "", AtLeast = 0, AtMost = 1000)] public int TopLayers { get; init; } = 4;
    /// <summary>Solid layers at the bottom.</summary>
    [Field("solid layers at the bottom", "", AtLeast = 0, AtMost = 1000)] public int BottomLayers { get; init; } = 3;
    /// <summary>What fills the inside.</summary>
    public Infill Infill { get; init; } = new();
    /// <summary>Lines round everything, to get the flow going.</summary>
    public Skirt Skirt { get; init; } = new();
    /// <summary>Speeds by kind of line.</summary>
    public Speeds Speeds { get; init; } = new();
    /// <summary>Pulling back before a travel.</summary>
    public Retraction Retraction { get; init; } = new();
}

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

    /// <summary>Height of the first layer of a complete recipe, mm.</summary>
    internal double FirstHeight => First ?? Others!.Value;
}

/// <summary>Sparse infill.</summary>
public sealed record Infill : OpenRecord
{
    /// <summary>Share of the inside that is plastic, 0 to 1.</summary>
    [Field("infill", "", AtLeast = 0, AtMost = 1)] public double Density { get; init; } = 0.2;
    /// <summary>How it is laid.</summary>
    public InfillPattern Pattern { get; init; } = InfillPattern.Lines;
}

/// <summary>Infill patterns.</summary>
public enum InfillPattern
{
    /// <summary>Parallel lines, turned by 90° every layer.</summary>
    Lines,
}

/// <summary>Lines round the first layer's footprint.</summary>
public sealed record Skirt : OpenRecord
{
    /// <summary>How many times round; 0 for none.</summary>
    [Field("skirt rounds", "", AtLeast = 0, AtMost = 50)] public int Rounds { get; init; } = 1;
    /// <summary>From the part to the nearest line's edge, mm.</summary>
    [Field("skirt gap", "mm", AtLeast = 0, AtMost = 100)] public double Gap { get; init; } = 4;
}

/// <summary>Speeds, mm/s.</summary>
public sealed record Speeds : OpenRecord
{
    /// <summary>Outermost wall.</summary>
    [Field("outer wall speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double OuterWall { get; init; } = 40;
    /// <summary>Other walls.</summary>
    [Field("inner wall speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double InnerWall { get; init; } = 60;
    /// <summary>Solid fill.</summary>
    [Field("solid fill speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Solid { get; init; } = 60;
    /// <summary>Sparse infill.</summary>
    [Field("infill speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Infill { get; init; } = 80;
    /// <summary>Moves without plastic.</summary>
    [Field("travel speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double Travel { get; init; } = 120;
    /// <summary>Everything on the first layer.</summary>
    [Field("first layer's speed", "mm/s", AtLeast = 1, AtMost = 2000)] public double FirstLayer { get; init; } = 25;
}

/// <summary>Pulling filament back before a travel. What is not said is the head's own.</summary>
public sealed record Retraction : OpenRecord
{
    /// <summary>Length, mm of filament; 0 for none.</summary>
    [Field("retraction", "mm", AtLeast = 0, AtMost = 50)] public double? Length { get; init; }
    /// <summary>Speed, mm/s.</summary>
    [Field("retraction speed", "mm/s", AtLeast = 1, AtMost = 500)] public double? Speed { get; init; }
    /// <summary>Travels shorter than this go without, mm.</summary>
    [Field("shortest travel with retraction", "mm", AtLeast = 0, AtMost = 1000)] public double LeastTravel { get; init; } = 2;
    /// <summary>Lift of Z while travelling, mm.</summary>
    [Field("Z hop", "mm", AtLeast = 0, AtMost = 20)] public double? Lift { get; init; }
}

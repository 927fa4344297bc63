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
    /// <summary>Width of a line as a ratio of the nozzle; on a machine whose nozzle is known it goes before the width in mm.</summary>
    [Field("line width by the nozzle", "", AtLeast = 0.3, AtMost = 3)] public double? LineWidthOfNozzle { get; init; }
    /// <summary>Widths of single kinds of line.</summary>
    public LineWidths Widths { get; init; } = new();
    /// <summary>Lines along the contour.</summary>
    [Field("walls", "", AtLeast = 0, AtMost = 100)] public int Walls { get; init; } = 2;
    /// <summary>How the walls are laid.</summary>
    public WallUse Wall { get; init; } = new();
    /// <summary>Corrections of the contour.</summary>
    public Compensation Compensation { get; init; } = new();
    /// <summary>Solid layers at the top.</summary>
    [Field("solid layers at the top", "", AtLeast = 0, AtMost = 1000)] public int TopLayers { get; init; } = 4;
    /// <summary>Solid layers at the bottom.</summary>
    [Field("solid layers at the bottom", "", AtLeast = 0, AtMost = 1000)] public int BottomLayers { get; init; } = 3;
    /// <summary>How the uppermost layer's lines are laid.</summary>
    public TopSurface Top { get; init; } = new();
    /// <summary>Whether lines that hang between two banks are laid as round strands across the shorter way.</summary>
    [Field("bridges")] public bool Bridges { get; init; } = true;
    /// <summary>What fills the inside.</summary>
    public Infill Infill { get; init; } = new();
    /// <summary>Lines round everything, to get the flow going.</summary>
    public Skirt Skirt { get; init; } = new();
    /// <summary>A flat border on the bed that holds the foot.</summary>
    public Brim Brim { get; init; } = new();
    /// <summary>Layers under the part.</summary>
    public Raft Raft { get; init; } = new();
    /// <summary>What holds up what would hang in the air.</summary>
    public Supports Supports { get; init; } = new();
    /// <summary>Speeds by kind of line.</summary>
    public Speeds Speeds { get; init; } = new();
    /// <summary>Accelerations by kind of line.</summary>
    public Accelerations Accelerations { get; init; } = new();
    /// <summary>Pulling back before a travel.</summary>
    public Retraction Retraction { get; init; } = new();
    /// <summary>One continuous wall that climbs; no top, no infill.</summary>
    [Field("spiral")] public bool Spiral { get; init; }
    /// <summary>What belongs to prints with several nozzles.</summary>
    public NozzleChanges NozzleChanges { get; init; } = new();
    /// <summary>Name of the G-code file, a template such as <c>{{ job.name }}-{{ filament.name }}</c>; that one where nothing is
    /// said.</summary>
    [Field("file name", Fewest = 1, Most = 300)] public string? FileName { get; init; }
    /// <summary>What a card must have for it, beside what follows from its settings.</summary>
    public Needs Needs { get; init; } = new();
    /// <summary>Anything worth knowing.</summary>
    [Field("notes", Most = 10000)] public string? Notes { get; init; }
    /// <summary>Where each setting comes from, by JSON pointer (RFC 6901).</summary>
    [Field("sources", Most = 2000)]
    public IReadOnlyDictionary<string, FactSource> Sources { get; init; } = new Dictionary<string,
        FactSource>();
}

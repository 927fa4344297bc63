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
    /// <summary>Words by which its owner finds it again.</summary>
    [Field("tags", Most = 20)] public IReadOnlyList<string> Tags { get; init; } = [];
    /// <summary>Heights of layers.</summary>
    [Group("Layers and lines")]
    public LayerSizes Layers { get; init; } = new();
    /// <summary>Width of a line, mm.</summary>
    [Group("Layers and lines")]
    [Field("line width", "mm", AtLeast = 0.05, AtMost = 5, Needed = true, Also = "extrusion width, track", Pages = FieldPages.Trial)]
    [Tends("Wider is quicker and stronger; fine detail is lost.", Time = 2, Strength = 1, Accuracy = -1)]
    public double? LineWidth { get; init; }
    /// <summary>Width of a line as a ratio of the nozzle; on a machine whose nozzle is known it goes before the width in mm.</summary>
    [Group("Layers and lines")]
    [Field("line width by the nozzle", "", AtLeast = 0.3, AtMost = 3, Short = "line width, of the nozzle", Otherwise = "in mm",
        Look = FieldLook.Percent)]
    [Tends("Wider is quicker and stronger; fine detail is lost.", Time = 2, Strength = 1, Accuracy = -1)]
    public double? LineWidthOfNozzle { get; init; }
    /// <summary>Widths of single kinds of line.</summary>
    [Group("Layers and lines")]
    public LineWidths Widths { get; init; } = new();
    /// <summary>How far a path may leave its curve, so that it takes fewer and longer moves, mm.</summary>
    [Group("Layers and lines")]
    [Field("deviation of paths", "mm", AtLeast = 0, AtMost = 0.1, Also = "resolution, chord error, fewer moves, arc tolerance",
        Departs = Departs.Part)]
    [Tends("More of it means fewer moves a second, which a slow board keeps up with; curves turn to chords.", Accuracy = -1)]
    public double Deviation { get; init; } = 0.01;
    /// <summary>Whether curves are written as arcs, within the deviation of paths.</summary>
    [Group("Layers and lines")]
    [Field("curves as arcs", Also = "G2, G3, arc welding, fewer moves", Departs = Departs.Part)]
    [Tends("One move stands for many; some boards cut arcs into coarser pieces.", Accuracy = 0)]
    public bool Arcs { get; init; }
    /// <summary>Lines along the contour.</summary>
    [Group("Walls and shells")]
    [Field("walls", "", AtLeast = 0, AtMost = 100, Also = "perimeters, shells, contours", Departs = Departs.Zone,
        Pages = FieldPages.Trial)]
    [Tends("More walls are stronger where it counts, and slower.", Strength = 3, Time = -2, Surface = 1)]
    public int Walls { get; init; } = 2;
    /// <summary>How the walls are laid.</summary>
    [Group("Walls and shells")]
    public WallUse Wall { get; init; } = new();
    /// <summary>Solid layers at the top.</summary>
    [Group("Walls and shells")]
    [Field("solid top layers", "", AtLeast = 0, AtMost = 1000, Short = "solid top", Also = "roof, top layers",
        Departs = Departs.Zone, Pages = FieldPages.Trial)]
    [Tends("More closes the top over sparse infill.", Surface = 2, Strength = 1, Time = -1)]
    public int TopLayers { get; init; } = 4;
    /// <summary>Solid layers at the bottom.</summary>
    [Group("Walls and shells")]
    [Field("solid bottom layers", "", AtLeast = 0, AtMost = 1000, Short = "solid bottom", Also = "floor, bottom layers",
        Departs = Departs.Zone, Pages = FieldPages.Trial)]
    [Tends("More makes a firmer floor.", Strength = 1, Time = -1)]
    public int BottomLayers { get; init; } = 3;
    /// <summary>How the uppermost layer's lines are laid.</summary>
    [Group("Walls and shells")]
    public TopSurface Top { get; init; } = new();
    /// <summary>Whether lines that hang between two banks are laid as round strands across the shorter way.</summary>
    [Group("Walls and shells")]
    [Field("bridges", Also = "bridging", Departs = Departs.Zone)]
    [Tends("Free spans are laid the shorter way as strands.", Surface = 2, Accuracy = 1)]
    public bool Bridges { get; init; } = true;
    /// <summary>Plastic of a bridge's strands, as a ratio of a round strand as thick as the nozzle.</summary>
    [Group("Walls and shells")]
    [Field("bridge flow", "", AtLeast = 0.5, AtMost = 2, Look = FieldLook.Percent, When = "bridges", Departs = Departs.Zone)]
    [Tends("Less pulls strands taut, more lays them thick; either too far and they tear or sag.", Surface = 0, Strength = 1)]
    public double BridgeFlow { get; init; } = 1;
    /// <summary>Corrections of the contour.</summary>
    [Group("Walls and shells")]
    public Compensation Compensation { get; init; } = new();
    /// <summary>One continuous wall that climbs; no top, no infill.</summary>
    [Group("Walls and shells")]
    [Field("spiral")]
    [Tends("One wall without a seam; nothing inside.", Time = 3, Surface = 2, Strength = -3)]
    public bool Spiral { get; init; }
    /// <summary>What fills the inside.</summary>
    [Group("Infill")]
    public Infill Infill { get; init; } = new();
    /// <summary>Lines round everything, to get the flow going.</summary>
    [Group("Foot")]
    public Skirt Skirt { get; init; } = new();
    /// <summary>A flat border on the bed that holds the foot.</summary>
    [Group("Foot")]
    public Brim Brim { get; init; } = new();
    /// <summary>Layers under the part.</summary>
    [Group("Foot")]
    public Raft Raft { get; init; } = new();
    /// <summary>What holds up what would hang in the air.</summary>
    [Group("Supports")]
    public Supports Supports { get; init; } = new();
    /// <summary>Speeds by kind of line.</summary>
    [Group("Speeds")]
    public Speeds Speeds { get; init; } = new();
    /// <summary>Accelerations by kind of line.</summary>
    [Group("Accelerations")]
    public Accelerations Accelerations { get; init; } = new();
    /// <summary>Pulling back before a travel.</summary>
    [Group("Travel")]
    public Retraction Retraction { get; init; } = new();
    /// <summary>What belongs to prints with several nozzles.</summary>
    [Group("Several nozzles")]
    public NozzleChanges NozzleChanges { get; init; } = new();
    /// <summary>What a card must have for it, beside what follows from its settings.</summary>
    [Group("Needs")]
    public Needs Needs { get; init; } = new();
    /// <summary>Name of the G-code file, a template such as <c>{{ job.name }}-{{ filament.name }}</c>; that one where nothing is
    /// said.</summary>
    [Group("File and notes")]
    [Field("file name", Fewest = 1, Most = 300, Otherwise = "{{ job.name }}-{{ filament.name }}")]
    [Tends("The file's name; it moves nothing.")]
    public string? FileName { get; init; }
    /// <summary>Anything worth knowing.</summary>
    [Group("File and notes")]
    [Field("notes", Most = 10000)]
    public string? Notes { get; init; }
    /// <summary>Where each setting comes from, by JSON pointer (RFC 6901).</summary>
    [Field("sources", Most = 2000)]
    public IReadOnlyDictionary<string, FactSource> Sources { get; init; } = new Dictionary<string,
        FactSource>();
}

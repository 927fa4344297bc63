namespace MillCard.Core.Documents;

/// <summary>One machine's profile: everything a slicer must know about it.</summary>
public sealed record Card : OpenRecord, IDocument
{
    /// <summary>Name and version of this document's schema.</summary>
    public const string SchemaName = "mill-card/card/1";
    /// <inheritdoc/>
    public static string Kind => "card";

    /// <summary>Always <see cref="SchemaName"/> once read.</summary>
    public string Schema { get; init; } = SchemaName;
    /// <summary>The machine's name.</summary>
    [Field("name", Needed = true, Fewest = 1, Most = 120)] public string? Name { get; init; }
    /// <summary>Words by which its owner finds it again.</summary>
    [Field("tags", Most = 20)] public IReadOnlyList<string> Tags { get; init; } = [];
    /// <summary>Who built it.</summary>
    [Field("maker", Most = 120)] public string? Maker { get; init; }
    /// <summary>Anything worth knowing.</summary>
    [Field("notes", Most = 10000)] public string? Notes { get; init; }
    /// <summary>The pattern it started from.</summary>
    public PatternOrigin? Pattern { get; init; }
    /// <summary>How far the interview has come; null where there was none.</summary>
    public MeasureUp? MeasureUp { get; init; }
    /// <summary>Bed, height, keep-outs.</summary>
    [Group("Envelope")]
    public Envelope Envelope { get; init; } = new();
    /// <summary>Nozzles and bodies.</summary>
    [Group("Head")]
    public Head Head { get; init; } = new();
    /// <summary>Axes and limits.</summary>
    [Group("Motion")]
    public MotionFacts Motion { get; init; } = new();
    /// <summary>Heaters and housing.</summary>
    [Group("Heat")]
    public HeatFacts Heat { get; init; } = new();
    /// <summary>What the board runs.</summary>
    [Group("Firmware")]
    public Firmware Firmware { get; init; } = new();
    /// <summary>G-code of the owner's, as Liquid templates.</summary>
    public Routines Routines { get; init; } = new();
    /// <summary>What an hour of printing costs, in the owner's money: power, wear, the machine's price by its hours.</summary>
    [Field("cost of an hour", "per hour", AtLeast = 0, AtMost = 10000)] public double? CostPerHour { get; init; }
    /// <summary>Ways to run two carriages; empty where there is one carriage.</summary>
    [Field("modes", Most = 4)] public IReadOnlyList<Mode> Modes { get; init; } = [];
    /// <summary>The connection to the printer; null where there is none.</summary>
    public LineFacts? Line { get; init; }
    /// <summary>Where each fact comes from, by JSON pointer (RFC 6901).</summary>
    [Field("sources", Most = 2000)]
    public IReadOnlyDictionary<string, FactSource> Sources { get; init; } = new Dictionary<string,
        FactSource>();
    /// <summary>Findings that the owner accepts, each with a reason.</summary>
    [Field("accepted findings", Most = 500)] public IReadOnlyList<AcceptedFinding> Accepted { get; init; } = [];
}

/// <summary>The pattern that a card was started from, and which version of it.</summary>
public sealed record PatternOrigin : OpenRecord
{
    /// <summary>Id of the pattern.</summary>
    [Field("pattern id", Most = 100)] public required string Id { get; init; }
    /// <summary>Version of the pattern.</summary>
    [Field("pattern version", AtLeast = 1, AtMost = 100000)] public required int Version { get; init; }
}

/// <summary>How far the measure-up interview has come.</summary>
public sealed record MeasureUp : OpenRecord
{
    /// <summary>The question at which it was left.</summary>
    [Field("question", Most = 60)] public string? At { get; init; }
    /// <summary>Whether it was gone through to its end.</summary>
    public bool Done { get; init; }
}

/// <summary>Heaters, housing and the room.</summary>
public sealed record HeatFacts : OpenRecord
{
    /// <summary>The bed's heater; null where there is none.</summary>
    [Below("max", "bed rated to", When = "/envelope/heated=true")]
    [Below("best", "bed reached", When = "/envelope/heated=true")]
    public HeaterFacts? Bed { get; init; }
    /// <summary>The housing. Asked, never defaulted.</summary>
    [Field("housing", Pages = FieldPages.Sheet)]
    public Housing? Housing { get; init; }
    /// <summary>The housing's heater; null where there is none.</summary>
    [Below("max", "chamber rated to", When = "/heat/housing=heated-chamber")]
    [Below("best", "chamber reached", When = "/heat/housing=heated-chamber")]
    public HeaterFacts? Chamber { get; init; }
    /// <summary>Temperature of the room the machine stands in, °C. 20 where nothing is said.</summary>
    [Field("room temperature", "°C", AtLeast = -30, AtMost = 60, Short = "room", Pages = FieldPages.Sheet)]
    public double? Room { get; init; }
}

/// <summary>One heater.</summary>
public sealed record HeaterFacts : OpenRecord
{
    /// <summary>Highest allowed target, °C.</summary>
    [Field("highest target", "°C", AtLeast = 20, AtMost = 600)]
    public double? Max { get; init; }
    /// <summary>Best temperature ever reached, °C.</summary>
    [Field("best temperature reached", "°C", AtLeast = 20, AtMost = 600)]
    public double? Best { get; init; }
    /// <summary>Room temperature at which that was reached, °C; the card's where nothing is said.</summary>
    [Field("room temperature then", "°C", AtLeast = -30, AtMost = 60)] public double? BestAtRoom { get; init; }
    /// <summary>Heating up at full power: pairs [s, °C] in the order of time.</summary>
    [Field("heat-up log", Most = 2000)] public IReadOnlyList<IReadOnlyList<double>> Log { get; init; } = [];
}

/// <summary>What is around the build volume.</summary>
public enum Housing
{
    /// <summary>Nothing.</summary>
    Open,
    /// <summary>A closed housing without a heater of its own.</summary>
    Closed,
    /// <summary>A housing with a heater.</summary>
    HeatedChamber,
}

/// <summary>The board's firmware.</summary>
public sealed record Firmware : OpenRecord
{
    /// <summary>The G-code dialect it speaks.</summary>
    [Field("flavour", Needed = true, Pages = FieldPages.Sheet)]
    public FlavourId? Flavour { get; init; }
    /// <summary>Whether E words count from the last position or from zero.</summary>
    [Field("E words", Pages = FieldPages.Sheet)]
    public ExtrusionMode Extrusion { get; init; } = ExtrusionMode.Relative;
    /// <summary>The board.</summary>
    [Field("board", Most = 120, Pages = FieldPages.Sheet)]
    public string? Board { get; init; }
    /// <summary>Version of the firmware.</summary>
    [Field("firmware version", Most = 120, Short = "version", Pages = FieldPages.Sheet)]
    public string? Version { get; init; }
    /// <summary>How many moves a second the board takes at most.</summary>
    [Field("moves a second", "1/s", AtLeast = 10, AtMost = 100000, Pages = FieldPages.Sheet,
        Hint = "From where on a curve of short moves stutters")]
    public int? MovesPerSecond { get; init; }
    /// <summary>What this version is known not to store, in the owner's words.</summary>
    [Field("what it does not store", Most = 1000, Short = "does not store", Pages = FieldPages.Sheet)]
    public string? DoesNotStore { get; init; }
    /// <summary>The file that holds the owner's macros, as it stands in the machine; only flavours with such a file read it.</summary>
    [Field("macro file", Most = 400_000)] public string? Macros { get; init; }
    /// <summary>Commands that need a section in the configuration or an option when the firmware was built, and are there.</summary>
    [Field("commands that are there", Most = 200)] public IReadOnlyList<string> Present { get; init; } = [];
}

/// <summary>How E words are written.</summary>
public enum ExtrusionMode
{
    /// <summary>Each E word is a length.</summary>
    Relative,
    /// <summary>Each E word is a position.</summary>
    Absolute,
}

/// <summary>The owner's routines: G-code with Liquid.</summary>
public sealed record Routines : OpenRecord
{
    /// <summary>Before the first layer.</summary>
    [Field("start routine", Most = 400_000)] public string? Start { get; init; }
    /// <summary>Before every layer.</summary>
    [Field("before-layer routine", Most = 400_000)] public string? BeforeLayer { get; init; }
    /// <summary>After every layer.</summary>
    [Field("after-layer routine", Most = 400_000)] public string? AfterLayer { get; init; }
    /// <summary>At a change of tool.</summary>
    [Field("tool-change routine", Most = 400_000)] public string? ToolChange { get; init; }
    /// <summary>When the print is paused.</summary>
    [Field("pause routine", Most = 400_000)] public string? Pause { get; init; }
    /// <summary>When it goes on.</summary>
    [Field("resume routine", Most = 400_000)] public string? Resume { get; init; }
    /// <summary>When it is given up.</summary>
    [Field("cancel routine", Most = 400_000)] public string? Cancel { get; init; }
    /// <summary>After the last layer.</summary>
    [Field("end routine", Most = 400_000)] public string? End { get; init; }
}

/// <summary>Where a fact comes from.</summary>
public sealed record FactSource : OpenRecord
{
    /// <summary>How it is known.</summary>
    public required SourceKind Source { get; init; }
    /// <summary>With which tool, by whom, from which page.</summary>
    [Field("note", Most = 1000)] public string? Note { get; init; }
    /// <summary>Day it was noted.</summary>
    public DateOnly? On { get; init; }
}

/// <summary>Ways to know a fact.</summary>
public enum SourceKind
{
    /// <summary>Printed on the machine or in its papers.</summary>
    RatingPlate,
    /// <summary>Taken with a tool.</summary>
    Measured,
    /// <summary>Said by the board.</summary>
    ReportedByFirmware,
    /// <summary>Taken from another card.</summary>
    CarriedOver,
    /// <summary>Not confirmed.</summary>
    Assumed,
}

/// <summary>A finding that its owner accepts.</summary>
public sealed record AcceptedFinding : Member
{
    /// <summary>Id of the rule.</summary>
    [Field("rule", Most = 100)] public required string Rule { get; init; }
    /// <summary>JSON pointer of the place.</summary>
    [Field("place", Most = 500)] public required string At { get; init; }
    /// <summary>The reason.</summary>
    [Field("reason", Fewest = 1, Most = 1000)] public required string Why { get; init; }
}

/// <summary>Where the printer answers.</summary>
public sealed record LineFacts : OpenRecord
{
    /// <summary>Name or address; only this machine itself unless the server's configuration lists more.</summary>
    [Field("host", Fewest = 1, Most = 253)] public required string Host { get; init; }
    /// <summary>TCP port.</summary>
    [Field("port", AtLeast = 1, AtMost = 65535)] public required int Port { get; init; }
    /// <summary>Speed of the serial line behind it, 1/s.</summary>
    [Field("serial speed", "baud", AtLeast = 300, AtMost = 10_000_000)] public int? Baud { get; init; }
}

using System.Text.Json;

namespace MillCard.Core.Documents;

/// <summary>Parts on a card's bed with a filament and a recipe.</summary>
public sealed record Trial : OpenRecord, IDocument
{
    /// <summary>Name and version of this document's schema.</summary>
    public const string SchemaName = "mill-card/trial/1";
    /// <inheritdoc/>
    public static string Kind => "trial";

    /// <summary>Always <see cref="SchemaName"/> once read.</summary>
    public string Schema { get; init; } = SchemaName;
    /// <summary>What its owner calls it.</summary>
    [Field("name", Needed = true, Fewest = 1, Most = 120)] public string? Name { get; init; }
    /// <summary>Words by which its owner finds it again.</summary>
    [Field("tags", Most = 20)] public IReadOnlyList<string> Tags { get; init; } = [];
    /// <summary>Id of the card's document.</summary>
    [Field("card", Needed = true)] public Guid? Card { get; init; }
    /// <summary>Id of the filament's document.</summary>
    [Field("filament")] public Guid? Filament { get; init; }
    /// <summary>Id of the recipe's document.</summary>
    [Field("recipe")] public Guid? Recipe { get; init; }
    /// <summary>Id of the document of the second nozzle's filament; as the first where nothing is said.</summary>
    [Field("second filament")] public Guid? SecondFilament { get; init; }
    /// <summary>Ids of the documents of what is in the nozzles, by the nozzles' ids; a nozzle that is not named holds the trial's filament,
    /// the
    /// second one its second filament.</summary>
    [Field("filaments by nozzle", Most = 16)]
    public IReadOnlyDictionary<string, Guid> Loaded { get; init; } = new Dictionary<string,
        Guid>();
    /// <summary>Whether parts grow together or one after the other.</summary>
    public Sequence Sequence { get; init; } = Sequence.AllAtOnce;
    /// <summary>Which mode of two carriages; null on a machine with one.</summary>
    public ModeUse? Mode { get; init; }
    /// <summary>What lies on the bed.</summary>
    [Field("parts", Most = 500)] public IReadOnlyList<TrialPart> Parts { get; init; } = [];
    /// <summary>Places where settings differ or support is wanted or unwanted; a later one wins.</summary>
    [Field("zones", Most = 100)] public IReadOnlyList<Zone> Zones { get; init; } = [];
    /// <summary>Heights at which the print stops.</summary>
    [Field("stops", Most = 100)] public IReadOnlyList<TrialStop> Stops { get; init; } = [];
    /// <summary>Heights of layers set by hand; a later band goes before an earlier one, and all of them before parts, zones and
    /// slopes.</summary>
    [Field("heights by hand", Most = 100)] public IReadOnlyList<HeightBand> Heights { get; init; } = [];
    /// <summary>Tighter limits than the card's, for this trial alone.</summary>
    public TrialLimits? Limits { get; init; }
}

/// <summary>Limits of one trial; they only ever tighten the card's.</summary>
public sealed record TrialLimits : OpenRecord
{
    /// <summary>Highest part, mm.</summary>
    [Field("height for this trial", "mm", Above = 0, AtMost = 2000)] public double? Height { get; init; }
    /// <summary>Strip along the bed's edge that is not used, mm.</summary>
    [Field("margin for this trial", "mm", AtLeast = 0, AtMost = 500)] public double? Margin { get; init; }
    /// <summary>Further regions to stay out of, bed frame.</summary>
    [Field("keep-outs for this trial", Most = 100)] public IReadOnlyList<KeepOut> KeepOuts { get; init; } = [];
}

/// <summary>One part and where it lies.</summary>
public sealed record TrialPart : Member
{
    /// <summary>Its name on the sheet.</summary>
    [Field("part's name", Fewest = 1, Most = 200)] public required string Name { get; init; }
    /// <summary>SHA-256 of the mesh file, hexadecimal; or the file's name in a multipart job.</summary>
    [Field("file", Fewest = 1, Most = 300)] public required string File { get; init; }
    /// <summary>Middle of the turned part's bounding box, mm, bed frame.</summary>
    [Field("X", "mm", AtLeast = -10000, AtMost = 10000)] public double X { get; init; }
    /// <summary>Middle of the turned part's bounding box, mm, bed frame.</summary>
    [Field("Y", "mm", AtLeast = -10000, AtMost = 10000)] public double Y { get; init; }
    /// <summary>Turn about Z, degrees, counter-clockwise.</summary>
    [Field("turn", "°", AtLeast = -36000, AtMost = 36000)] public double Turn { get; init; }
    /// <summary>Of its lowest point above the bed, mm; what lies below the bed is not printed.</summary>
    [Field("lift", "mm", AtLeast = -2000, AtMost = 2000)] public double Lift { get; init; }
    /// <summary>What it belongs to: parts with the same word keep their place to each other, grow together and may touch; null for a part
    /// of its own.</summary>
    [Field("assembly", Fewest = 1, Most = 100)] public string? Assembly { get; init; }
    /// <summary>Ids of the nozzles that print it; the first where nothing is said.</summary>
    [Field("part's nozzles", Most = 16)] public IReadOnlyList<string> Nozzles { get; init; } = [];
    /// <summary>Tilt about X and then about Y, before the turn; null for none.</summary>
    public Tilt? Tilt { get; init; }
    /// <summary>Size as a ratio of the file's, before tilt and turn; null for 1.</summary>
    public PartScale? Scale { get; init; }
    /// <summary>Where this part departs from the recipe: values by the recipe's JSON pointers, such as <c>/walls</c>.</summary>
    [Field("part's settings", Most = 60)]
    public IReadOnlyDictionary<string, JsonElement> Settings { get; init; } = new Dictionary<string,
        JsonElement>();
    /// <summary>Faces of the file's mesh where support or a seam is wanted or unwanted.</summary>
    [Field("marks", Most = 50)] public IReadOnlyList<FaceMark> Marks { get; init; } = [];
}

/// <summary>Faces marked for support or seams, or against them.</summary>
public sealed record FaceMark : Member
{
    /// <summary>What is wanted there, or not.</summary>
    public MarkUse Use { get; init; } = MarkUse.Support;
    /// <summary>Whether it is wanted there.</summary>
    public required bool Wanted { get; init; }
    /// <summary>Numbers of the faces in the mesh as it is read, counted from 0.</summary>
    [Field("marked faces", Fewest = 1, Most = 200_000)] public required IReadOnlyList<int> Faces { get; init; }
}

/// <summary>What a face is marked for.</summary>
public enum MarkUse
{
    /// <summary>What hangs over is held up there, or not.</summary>
    Support,
    /// <summary>Rings begin there where they pass, or elsewhere.</summary>
    Seam,
}

/// <summary>A tilt, degrees, right-handed.</summary>
public sealed record Tilt : OpenRecord
{
    /// <summary>About X, first.</summary>
    [Field("tilt about X", "°", AtLeast = -36000, AtMost = 36000)] public double X { get; init; }
    /// <summary>About Y, second.</summary>
    [Field("tilt about Y", "°", AtLeast = -36000, AtMost = 36000)] public double Y { get; init; }
}

/// <summary>Ratios of size along the file's own axes.</summary>
public sealed record PartScale : OpenRecord
{
    /// <summary>Along X.</summary>
    [Field("scale X", "", AtLeast = 0.001, AtMost = 1000)] public double X { get; init; } = 1;
    /// <summary>Along Y.</summary>
    [Field("scale Y", "", AtLeast = 0.001, AtMost = 1000)] public double Y { get; init; } = 1;
    /// <summary>Along Z.</summary>
    [Field("scale Z", "", AtLeast = 0.001, AtMost = 1000)] public double Z { get; init; } = 1;
    /// <summary>Whether it is the file's mirror image, left for right.</summary>
    public bool Mirrored { get; init; }
}

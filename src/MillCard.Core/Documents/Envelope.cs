using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>Bed, origin, height, limits of use and keep-outs.</summary>
public sealed record Envelope : OpenRecord
{
    /// <summary>Shape and size of the bed.</summary>
    [Field("bed", Needed = true, Short = "bed shape", Pages = FieldPages.Sheet)]
    public Bed? Bed { get; init; }
    /// <summary>What the machine can reach above the bed, mm.</summary>
    [Field("height", "mm", Above = 0, AtMost = 2000, Needed = true, Hint = "nozzle to plate, at the top of its travel",
        Pages = FieldPages.Sheet)]
    public double? Height { get; init; }
    /// <summary>The machine's zero in the bed frame: machine = bed − origin.</summary>
    [Field("origin", Needed = true, Hint = "where the machine counts X 0 Y 0", Pages = FieldPages.Sheet)]
    public Position? Origin { get; init; }
    /// <summary>Limits below the machine's own, each with a reason.</summary>
    public UseLimits? Use { get; init; }
    /// <summary>Where X and Y stand after homing, bed frame; the origin where nothing is said.</summary>
    [Field("home position", Short = "home", Hint = "where X and Y stand after homing, if not at the origin", Pages = FieldPages.Sheet)]
    public Position? Home { get; init; }
    /// <summary>Whether the bed is heated. Asked, never defaulted.</summary>
    [Group("Heat")]
    [Field("heated bed", Needed = true, Short = "bed heated", Pages = FieldPages.Sheet)]
    public bool? Heated { get; init; }
    /// <summary>Regions to stay out of, bed frame.</summary>
    [Field("keep-outs", Most = 500)] public IReadOnlyList<KeepOut> KeepOuts { get; init; } = [];
    /// <summary>A picture or a mesh of the plate, drawn under the grid.</summary>
    public Plate? Plate { get; init; }
}

/// <summary>What is drawn of the plate itself.</summary>
public sealed record Plate : OpenRecord
{
    /// <summary>Whether it is a picture or a mesh.</summary>
    public required PlateKind Kind { get; init; }
    /// <summary>SHA-256 of the file, hexadecimal.</summary>
    [Field("file", Fewest = 64, Most = 64)] public required string File { get; init; }
    /// <summary>The file's name.</summary>
    [Field("file name", Most = 300)] public string? Name { get; init; }
}

/// <summary>What a plate's file is.</summary>
public enum PlateKind
{
    /// <summary>A picture, seen from above; it is laid over the bed's bounding box.</summary>
    Picture,
    /// <summary>A mesh; its projection is laid with its middle on the bed's middle.</summary>
    Mesh,
}

/// <summary>A point, mm.</summary>
public sealed record Position : OpenRecord
{
    /// <summary>Along X, mm.</summary>
    [Field("X", "mm", AtLeast = -4000, AtMost = 4000)] public required double X { get; init; }
    /// <summary>Along Y, mm.</summary>
    [Field("Y", "mm", AtLeast = -4000, AtMost = 4000)] public required double Y { get; init; }
}

/// <summary>The bed's shape. The bed frame has its zero at the front-left corner of the shape's bounding box.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "shape")]
[JsonDerivedType(typeof(RectangleBed), "rectangle")]
[JsonDerivedType(typeof(EllipseBed), "ellipse")]
[JsonDerivedType(typeof(PolygonBed), "polygon")]
public abstract record Bed : OpenRecord;

/// <summary>A rectangular bed.</summary>
public sealed record RectangleBed : Bed
{
    /// <summary>Size along X, mm.</summary>
    [Field("bed width", "mm", Above = 0, AtMost = 2000, Needed = true, Short = "width", Hint = "left to right, where plastic may lie",
        Pages = FieldPages.Sheet)]
    public double? Width { get; init; }
    /// <summary>Size along Y, mm.</summary>
    [Field("bed depth", "mm", Above = 0, AtMost = 2000, Needed = true, Short = "depth", Hint = "front to back", Pages = FieldPages.Sheet)]
    public double? Depth { get; init; }
}

/// <summary>An elliptic bed; a round one has width = depth.</summary>
public sealed record EllipseBed : Bed
{
    /// <summary>Size along X, mm.</summary>
    [Field("bed width", "mm", Above = 0, AtMost = 2000, Needed = true, Short = "width", Hint = "left to right, where plastic may lie",
        Pages = FieldPages.Sheet)]
    public double? Width { get; init; }
    /// <summary>Size along Y, mm.</summary>
    [Field("bed depth", "mm", Above = 0, AtMost = 2000, Needed = true, Short = "depth", Hint = "front to back", Pages = FieldPages.Sheet)]
    public double? Depth { get; init; }
}

/// <summary>A bed of any simple shape.</summary>
public sealed record PolygonBed : Bed
{
    /// <summary>Corners [x, y], mm, in either sense, not closed.</summary>
    [Field("bed corners", "mm", Fewest = 3, Most = 2000)] public required IReadOnlyList<IReadOnlyList<double>> Points { get; init; }
}

/// <summary>Limits of use below the machine's own; they never overwrite it.</summary>
public sealed record UseLimits : OpenRecord
{
    /// <summary>Highest part, mm.</summary>
    [Field("usable height", "mm", Above = 0, AtMost = 2000, Short = "use up to", Hint = "a limit of your own below the height",
        Pages = FieldPages.Sheet)]
    public double? Height { get; init; }
    /// <summary>The reason for the height.</summary>
    [Field("reason", Most = 500, Short = "why no higher", When = "height", Pages = FieldPages.Sheet)]
    public string? Why { get; init; }
    /// <summary>Strip along the bed's edge that is not used, mm.</summary>
    [Field("margin", "mm", AtLeast = 0, AtMost = 500, Short = "margin all round", Pages = FieldPages.Sheet)]
    public double? Margin { get; init; }
    /// <summary>Strips along single edges, on top of the margin all round.</summary>
    public EdgeMargins? Edges { get; init; }
    /// <summary>The reason for the margins.</summary>
    [Field("reason", Most = 500, Short = "why a margin", When = "margin", Pages = FieldPages.Sheet)]
    public string? MarginWhy { get; init; }
}

/// <summary>Margins of single edges of the bed's bounding box, mm.</summary>
public sealed record EdgeMargins : OpenRecord
{
    /// <summary>At the left.</summary>
    [Field("left margin", "mm", AtLeast = 0, AtMost = 1000, Short = "left, more", When = "../margin", Pages = FieldPages.Sheet)]
    public double? Left { get; init; }
    /// <summary>At the right.</summary>
    [Field("right margin", "mm", AtLeast = 0, AtMost = 1000, Short = "right, more", When = "../margin", Pages = FieldPages.Sheet)]
    public double? Right { get; init; }
    /// <summary>At the front.</summary>
    [Field("front margin", "mm", AtLeast = 0, AtMost = 1000, Short = "front, more", When = "../margin", Pages = FieldPages.Sheet)]
    public double? Front { get; init; }
    /// <summary>At the back.</summary>
    [Field("back margin", "mm", AtLeast = 0, AtMost = 1000, Short = "back, more", When = "../margin", Pages = FieldPages.Sheet)]
    public double? Back { get; init; }
}

/// <summary>A region of the bed to stay out of.</summary>
public sealed record KeepOut : Member
{
    /// <summary>What its owner calls it.</summary>
    [Field("keep-out's name", Most = 100)] public required string Name { get; init; }
    /// <summary>What kind of region it is.</summary>
    [Field("kind")] public required KeepOutKind Kind { get; init; }
    /// <summary>Where it is, bed frame.</summary>
    [Field("outline")] public required Outline Outline { get; init; }
    /// <summary>Top of an obstacle above the bed, mm.</summary>
    [Field("top", "mm", Above = 0, AtMost = 2000)] public double? Top { get; init; }
    /// <summary>How far off the outline may be, mm; it is grown by this.</summary>
    [Field("tolerance", "mm", AtLeast = 0, AtMost = 100)] public double? Tolerance { get; init; }
}

/// <summary>Kinds of keep-out.</summary>
public enum KeepOutKind
{
    /// <summary>Something that stands up: a clip, a post. It has a height.</summary>
    Obstacle,
    /// <summary>A dent or scratch: only the first layer must stay off.</summary>
    BadSurface,
    /// <summary>Kept for a wiper, a purge strip, a parked tool: nothing at any height.</summary>
    Reserved,
}

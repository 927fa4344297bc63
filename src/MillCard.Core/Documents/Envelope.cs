using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>Bed, origin, height, limits of use and keep-outs.</summary>
public sealed record Envelope : OpenRecord
{
    /// <summary>Shape and size of the bed.</summary>
    [Field("bed", Needed = true)] public Bed? Bed { get; init; }
    /// <summary>The machine's zero in the bed frame: machine = bed − origin.</summary>
    [Field("origin", Needed = true)] public Position? Origin { get; init; }
    /// <summary>What the machine can reach above the bed, mm.</summary>
    [Field("height", "mm", Above = 0, AtMost = 2000, Needed = true)] public double? Height { get; init; }
    /// <summary>Limits below the machine's own, each with a reason.</summary>
    public UseLimits? Use { get; init; }
    /// <summary>Whether the bed is heated. Asked, never defaulted.</summary>
    [Field("heated bed", Needed = true)] public bool? Heated { get; init; }
    /// <summary>Regions to stay out of, bed frame.</summary>
    [Field("keep-outs", Most = 100)] public IReadOnlyList<KeepOut> KeepOuts { get; init; } = [];
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
    [Field("bed width", "mm", Above = 0, AtMost = 2000, Needed = true)] public double? Width { get; init; }
    /// <summary>Size along Y, mm.</summary>
    [Field("bed depth", "mm", Above = 0, AtMost = 2000, Needed = true)] public double? Depth { get; init; }
}

/// <summary>An elliptic bed; a round one has width = depth.</summary>
public sealed record EllipseBed : Bed
{
    /// <summary>Size along X, mm.</summary>
    [Field("bed width", "mm", Above = 0, AtMost = 2000, Needed = true)] public double? Width { get; init; }
    /// <summary>Size along Y, mm.</summary>
    [Field("bed depth", "mm", Above = 0, AtMost = 2000, Needed = true)] public double? Depth { get; init; }
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
    [Field("usable height", "mm", Above = 0, AtMost = 2000)] public double? Height { get; init; }
    /// <summary>Strip along the bed's edge that is not used, mm.</summary>
    [Field("margin", "mm", AtLeast = 0, AtMost = 500)] public double? Margin { get; init; }
    /// <summary>The reason.</summary>
    [Field("reason", Most = 500)] public string? Why { get; init; }
}

/// <summary>A region of the bed to stay out of.</summary>
public sealed record KeepOut : OpenRecord
{
    /// <summary>What its owner calls it.</summary>
    [Field("keep-out's name", Most = 100)] public required string Name { get; init; }
    /// <summary>What kind of region it is.</summary>
    [Field("kind")] public required KeepOutKind Kind { get; init; }
    /// <summary>Where it is, bed frame.</summary>
    [Field("outline")] public required Outline Outline { get; init; }
    /// <summary>Top of an obstacle above the bed, mm.</summary>
    [Field("top", "mm", Above = 0, AtMost = 2000)] public double? Top { get; init; }
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

using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>A closed outline, mm. Keep-outs use the bed frame, bodies the head frame.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "shape")]
[JsonDerivedType(typeof(RectangleOutline), "rectangle")]
[JsonDerivedType(typeof(CircleOutline), "circle")]
[JsonDerivedType(typeof(EllipseOutline), "ellipse")]
[JsonDerivedType(typeof(PolygonOutline), "polygon")]
public abstract record Outline : OpenRecord;

/// <summary>A rectangle; X, Y is its front-left corner.</summary>
public sealed record RectangleOutline : Outline
{
    /// <summary>Left edge, mm.</summary>
    [Field("left edge", "mm", AtLeast = -4000, AtMost = 4000)] public required double X { get; init; }
    /// <summary>Front edge, mm.</summary>
    [Field("front edge", "mm", AtLeast = -4000, AtMost = 4000)] public required double Y { get; init; }
    /// <summary>Size along X, mm.</summary>
    [Field("width", "mm", Above = 0, AtMost = 4000)] public required double Width { get; init; }
    /// <summary>Size along Y, mm.</summary>
    [Field("depth", "mm", Above = 0, AtMost = 4000)] public required double Depth { get; init; }
}

/// <summary>A circle about X, Y.</summary>
public sealed record CircleOutline : Outline
{
    /// <summary>Centre, mm.</summary>
    [Field("centre X", "mm", AtLeast = -4000, AtMost = 4000)] public required double X { get; init; }
    /// <summary>Centre, mm.</summary>
    [Field("centre Y", "mm", AtLeast = -4000, AtMost = 4000)] public required double Y { get; init; }
    /// <summary>Radius, mm.</summary>
    [Field("radius", "mm", Above = 0, AtMost = 2000)] public required double Radius { get; init; }
}

/// <summary>An ellipse by its bounding box; X, Y is the box's front-left corner.</summary>
public sealed record EllipseOutline : Outline
{
    /// <summary>Left edge of the bounding box, mm.</summary>
    [Field("left edge", "mm", AtLeast = -4000, AtMost = 4000)] public required double X { get; init; }
    /// <summary>Front edge of the bounding box, mm.</summary>
    [Field("front edge", "mm", AtLeast = -4000, AtMost = 4000)] public required double Y { get; init; }
    /// <summary>Size along X, mm.</summary>
    [Field("width", "mm", Above = 0, AtMost = 4000)] public required double Width { get; init; }
    /// <summary>Size along Y, mm.</summary>
    [Field("depth", "mm", Above = 0, AtMost = 4000)] public required double Depth { get; init; }
}

/// <summary>A simple polygon, at least three corners.</summary>
public sealed record PolygonOutline : Outline
{
    /// <summary>Corners [x, y], mm, in either sense, not closed.</summary>
    [Field("corners", "mm", Fewest = 3, Most = 2000)] public required IReadOnlyList<IReadOnlyList<double>> Points { get; init; }
}

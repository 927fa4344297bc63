using System.Text.Json;
using System.Text.Json.Serialization;

namespace MillCard.Core.Documents;

/// <summary>A box, cylinder, mesh or span of heights in a trial inside which settings differ or support is wanted or unwanted.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "shape")]
[JsonDerivedType(typeof(BoxZone), "box")]
[JsonDerivedType(typeof(CylinderZone), "cylinder")]
[JsonDerivedType(typeof(MeshZone), "mesh")]
[JsonDerivedType(typeof(HeightsZone), "heights")]
public abstract record Zone : Member
{
    /// <summary>What its owner calls it.</summary>
    [Field("zone's name", Fewest = 1, Most = 100)] public required string Name { get; init; }
    /// <summary>What it is for.</summary>
    public ZoneUse Use { get; init; } = ZoneUse.Settings;
    /// <summary>Middle, mm, bed frame.</summary>
    [Field("zone's X", "mm", AtLeast = -10000, AtMost = 10000)] public double X { get; init; }
    /// <summary>Middle, mm, bed frame.</summary>
    [Field("zone's Y", "mm", AtLeast = -10000, AtMost = 10000)] public double Y { get; init; }
    /// <summary>Underside above the parts' own floor, mm.</summary>
    [Field("zone's underside", "mm", AtLeast = 0, AtMost = 10000)] public double Z { get; init; }
    /// <summary>Where it departs from the part's settings: values by the recipe's JSON pointers.</summary>
    [Field("zone's settings", Most = 60)]
    public IReadOnlyDictionary<string, JsonElement> Settings { get; init; } = new Dictionary<string,
        JsonElement>();
}

/// <summary>What a zone is for.</summary>
public enum ZoneUse
{
    /// <summary>Its settings hold in it.</summary>
    Settings,
    /// <summary>What hangs over in it is held up, however steep.</summary>
    Support,
    /// <summary>Nothing in it is held up.</summary>
    NoSupport,
    /// <summary>It is cut away from the parts.</summary>
    Cut,
    /// <summary>Seams lie in it, where outlines pass through it.</summary>
    Seam,
}

/// <summary>A box along the axes.</summary>
public sealed record BoxZone : Zone
{
    /// <summary>Along X, mm.</summary>
    [Field("zone's width", "mm", Above = 0, AtMost = 10000)] public required double Width { get; init; }
    /// <summary>Along Y, mm.</summary>
    [Field("zone's depth", "mm", Above = 0, AtMost = 10000)] public required double Depth { get; init; }
    /// <summary>Along Z, mm.</summary>
    [Field("zone's height", "mm", Above = 0, AtMost = 10000)] public required double Height { get; init; }
}

/// <summary>An upright cylinder.</summary>
public sealed record CylinderZone : Zone
{
    /// <summary>mm.</summary>
    [Field("zone's radius", "mm", Above = 0, AtMost = 5000)] public required double Radius { get; init; }
    /// <summary>Along Z, mm.</summary>
    [Field("zone's height", "mm", Above = 0, AtMost = 10000)] public required double Height { get; init; }
}

/// <summary>Everything between two heights; X and Y say nothing.</summary>
public sealed record HeightsZone : Zone
{
    /// <summary>From its underside to its top, mm.</summary>
    [Field("zone's height", "mm", Above = 0, AtMost = 10000)] public required double Height { get; init; }
}

/// <summary>A mesh; its bounding box's middle and underside are the zone's.</summary>
public sealed record MeshZone : Zone
{
    /// <summary>SHA-256 of the mesh file, hexadecimal; or the file's name in a multipart job.</summary>
    [Field("zone's file", Fewest = 1, Most = 300)] public required string File { get; init; }
}

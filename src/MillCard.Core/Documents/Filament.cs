namespace MillCard.Core.Documents;

/// <summary>A material on a spool, and how it wants to be printed.</summary>
public sealed record Filament : OpenRecord, IDocument
{
    /// <summary>Name and version of this document's schema.</summary>
    public const string SchemaName = "mill-card/filament/1";
    /// <inheritdoc/>
    public static string Kind => "filament";

    /// <summary>Always <see cref="SchemaName"/> once read.</summary>
    public string Schema { get; init; } = SchemaName;
    /// <summary>What its owner calls it.</summary>
    [Field("name", Needed = true, Fewest = 1, Most = 120)] public string? Name { get; init; }
    /// <summary>Kind of plastic, such as PETG.</summary>
    [Field("material", Most = 60)] public string? Material { get; init; }
    /// <summary>Diameter, mm.</summary>
    [Field("filament diameter", "mm", AtLeast = 1, AtMost = 4, Needed = true)] public double? Diameter { get; init; }
    /// <summary>Density, g/cm³.</summary>
    [Field("density", "g/cm³", Above = 0, AtMost = 20)] public double? Density { get; init; }
    /// <summary>Price of a kilogram, in the owner's money.</summary>
    [Field("price", "per kg", AtLeast = 0, AtMost = 100000)] public double? PricePerKg { get; init; }
    /// <summary>Nozzle temperatures.</summary>
    public NozzleHeat Nozzle { get; init; } = new();
    /// <summary>Bed temperatures.</summary>
    public BedHeat Bed { get; init; } = new();
    /// <summary>Plastic fed, as a ratio of the computed amount. 1 where nothing is said.</summary>
    [Field("flow", "", AtLeast = 0.2, AtMost = 2)] public double? Flow { get; init; }
    /// <summary>Pressure compensation, s; null where none is set.</summary>
    [Field("pressure compensation", "s", AtLeast = 0, AtMost = 10)] public double? PressureCompensation { get; init; }
    /// <summary>Most plastic that can be melted of it, mm³/s.</summary>
    [Field("flow limit", "mm³/s", Above = 0, AtMost = 500)] public double? MaxFlow { get; init; }
    /// <summary>Share of full fan, from the first layer that has any.</summary>
    public FanUse Fan { get; init; } = new();
}

/// <summary>Temperatures at the nozzle, °C.</summary>
public sealed record NozzleHeat : OpenRecord
{
    /// <summary>First layer.</summary>
    [Field("first layer's nozzle temperature", "°C", AtLeast = 100, AtMost = 600, Needed = true)] public double? First { get; init; }
    /// <summary>Other layers.</summary>
    [Field("nozzle temperature", "°C", AtLeast = 100, AtMost = 600, Needed = true)] public double? Others { get; init; }
    /// <summary>While waiting.</summary>
    [Field("standby temperature", "°C", AtLeast = 0, AtMost = 600)] public double? Standby { get; init; }
    /// <summary>From here on it drips.</summary>
    [Field("ooze temperature", "°C", AtLeast = 0, AtMost = 600)] public double? OozesFrom { get; init; }
}

/// <summary>Temperatures of the bed, °C; 0 leaves it cold.</summary>
public sealed record BedHeat : OpenRecord
{
    /// <summary>First layer.</summary>
    [Field("first layer's bed temperature", "°C", AtLeast = 0, AtMost = 300)] public double First { get; init; }
    /// <summary>Other layers.</summary>
    [Field("bed temperature", "°C", AtLeast = 0, AtMost = 300)] public double Others { get; init; }
}

/// <summary>How the part fan runs.</summary>
public sealed record FanUse : OpenRecord
{
    /// <summary>Share of full speed, 0 to 1.</summary>
    [Field("fan", "", AtLeast = 0, AtMost = 1)] public double Share { get; init; }
    /// <summary>First layer with the fan on, counted from 1.</summary>
    [Field("first layer with fan", "", AtLeast = 1, AtMost = 10000)] public int FromLayer { get; init; } = 2;
}

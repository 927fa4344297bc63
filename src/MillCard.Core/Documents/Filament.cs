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
    /// <summary>Words by which its owner finds it again.</summary>
    [Field("tags", Most = 20)] public IReadOnlyList<string> Tags { get; init; } = [];
    /// <summary>Kind of plastic, such as PETG.</summary>
    [Group("Spool")]
    [Field("material", Most = 60)]
    public string? Material { get; init; }
    /// <summary>Its colour, in words.</summary>
    [Group("Spool")]
    [Field("colour", Most = 60)]
    public string? Colour { get; init; }
    /// <summary>Diameter, mm.</summary>
    [Group("Spool")]
    [Field("filament diameter", "mm", AtLeast = 1, AtMost = 4, Needed = true, Short = "diameter", Pages = FieldPages.Trial)]
    public double? Diameter { get; init; }
    /// <summary>Density, g/cm³.</summary>
    [Group("Spool")]
    [Field("density", "g/cm³", Above = 0, AtMost = 20, Pages = FieldPages.Trial)]
    public double? Density { get; init; }
    /// <summary>Price of a kilogram, in the owner's money.</summary>
    [Group("Spool")]
    [Field("price", "per kg", AtLeast = 0, AtMost = 100000, Pages = FieldPages.Trial)]
    public double? PricePerKg { get; init; }
    /// <summary>How much it shrinks when it cools, as a ratio: 0.004 for 0.4 %. Parts are laid larger by it.</summary>
    [Group("Spool")]
    [Field("shrinkage", "", AtLeast = 0, AtMost = 0.1, Otherwise = "0", Look = FieldLook.Percent, Also = "contraction")]
    public double? Shrinkage { get; init; }
    /// <summary>Whether it wears brass: filled with fibre, glitter or glow powder. Null where nobody has said.</summary>
    [Group("Spool")]
    [Field("wears brass")]
    public bool? Abrasive { get; init; }
    /// <summary>Whether it wants a warm chamber. Null where nobody has said.</summary>
    [Group("Spool")]
    [Field("wants a warm chamber")]
    public bool? WarmChamber { get; init; }
    /// <summary>Nozzle temperatures.</summary>
    [Group("Nozzle")]
    public NozzleHeat Nozzle { get; init; } = new();
    /// <summary>Bed temperatures.</summary>
    [Group("Bed")]
    public BedHeat Bed { get; init; } = new();
    /// <summary>Plastic fed, as a ratio of the computed amount. 1 where nothing is said.</summary>
    [Group("Flow")]
    [Field("flow", "", AtLeast = 0.2, AtMost = 2, Otherwise = "1", Look = FieldLook.Ratio, Also = "more or less plastic",
        Pages = FieldPages.Trial)]
    public double? Flow { get; init; }
    /// <summary>Most plastic that can be melted of it, mm³/s.</summary>
    [Group("Flow")]
    [Field("flow limit", "mm³/s", Above = 0, AtMost = 500, Short = "melts up to", Also = "melting limit, volume per second",
        Pages = FieldPages.Trial)]
    public double? MaxFlow { get; init; }
    /// <summary>Pressure compensation, s; null where none is set.</summary>
    [Group("Flow")]
    [Field("pressure compensation", "s", AtLeast = 0, AtMost = 10, Also = "pressure advance, linear advance")]
    public double? PressureCompensation { get; init; }
    /// <summary>Share of full fan, from the first layer that has any.</summary>
    [Group("Fan")]
    public FanUse Fan { get; init; } = new();
    /// <summary>Where it departs from the head's own retraction and lift; null where it does not.</summary>
    [Group("Departures from the head", Otherwise = "head's")]
    public HeadRetraction? Retraction { get; init; }
    /// <summary>G-code after the card's start routine, a template like the card's own; empty where nothing is said.</summary>
    [Group("Routines and notes")]
    [Field("filament's start routine", Most = 100_000, Short = "after the start routine", Look = FieldLook.Code)]
    public string? Start { get; init; }
    /// <summary>G-code before the card's end routine.</summary>
    [Group("Routines and notes")]
    [Field("filament's end routine", Most = 100_000, Short = "before the end routine", Look = FieldLook.Code)]
    public string? End { get; init; }
    /// <summary>What a card must have for it, beside what follows from its figures.</summary>
    [Group("Needs")]
    public Needs Needs { get; init; } = new();
    /// <summary>Anything worth knowing.</summary>
    [Group("Routines and notes")]
    [Field("notes", Most = 10000)]
    public string? Notes { get; init; }
    /// <summary>Where each fact comes from, by JSON pointer (RFC 6901).</summary>
    [Field("sources", Most = 2000)]
    public IReadOnlyDictionary<string, FactSource> Sources { get; init; } = new Dictionary<string,
        FactSource>();
}

/// <summary>Temperatures at the nozzle, °C.</summary>
public sealed record NozzleHeat : OpenRecord
{
    /// <summary>First layer.</summary>
    [Field("first layer's nozzle temperature", "°C", AtLeast = 100, AtMost = 600, Needed = true, Short = "first layer",
        Pages = FieldPages.Trial)]
    public double? First { get; init; }
    /// <summary>Other layers.</summary>
    [Field("nozzle temperature", "°C", AtLeast = 100, AtMost = 600, Needed = true, Short = "other layers", Pages = FieldPages.Trial)]
    public double? Others { get; init; }
    /// <summary>While waiting.</summary>
    [Field("standby temperature", "°C", AtLeast = 0, AtMost = 600, Short = "standby", Pages = FieldPages.Trial)]
    public double? Standby { get; init; }
    /// <summary>From here on it drips.</summary>
    [Field("ooze temperature", "°C", AtLeast = 0, AtMost = 600, Short = "oozes from")]
    public double? OozesFrom { get; init; }
    /// <summary>Lower end of the window on the spool.</summary>
    [Field("window from", "°C", AtLeast = 100, AtMost = 600)] public double? WindowFrom { get; init; }
    /// <summary>Upper end of the window on the spool.</summary>
    [Field("window to", "°C", AtLeast = 100, AtMost = 600)] public double? WindowTo { get; init; }
    /// <summary>How far the window may be left; 10 °C is common practice.</summary>
    [Field("tolerance", "°C", AtLeast = 0, AtMost = 50, Otherwise = "10")]
    public double? Tolerance { get; init; }
}

/// <summary>Temperatures of the bed, °C; 0 leaves it cold.</summary>
public sealed record BedHeat : OpenRecord
{
    /// <summary>First layer.</summary>
    [Field("first layer's bed temperature", "°C", AtLeast = 0, AtMost = 300, Short = "first layer", Pages = FieldPages.Trial)]
    public double First { get; init; }
    /// <summary>Other layers.</summary>
    [Field("bed temperature", "°C", AtLeast = 0, AtMost = 300, Short = "other layers", Pages = FieldPages.Trial)]
    public double Others { get; init; }
}

/// <summary>How the part fan runs.</summary>
public sealed record FanUse : OpenRecord
{
    /// <summary>Share of full speed, 0 to 1.</summary>
    [Field("fan", "", AtLeast = 0, AtMost = 1, Look = FieldLook.Percent, Also = "cooling", Pages = FieldPages.Trial)]
    public double Share { get; init; }
    /// <summary>First layer with the fan on, counted from 1.</summary>
    [Field("first layer with fan", "", AtLeast = 1, AtMost = 10000, Short = "from layer", Pages = FieldPages.Trial)]
    public int FromLayer { get; init; } = 2;
    /// <summary>Share of full speed by the time a layer takes: pairs [s, share] with rising times, straight between them; <see
    /// cref="Share"/> where it is empty.</summary>
    [Field("fan curve", Most = 20, Short = "by layer time: s share, …", Look = FieldLook.Pairs)]
    public IReadOnlyList<IReadOnlyList<double>> Curve { get; init; } = [];
    /// <summary>Share on lines that hang between two banks; as elsewhere where nothing is said.</summary>
    [Field("fan on bridges", "", AtLeast = 0, AtMost = 1, Short = "on bridges", Otherwise = "as elsewhere", Look = FieldLook.Percent)]
    public double? Bridge { get; init; }

    /// <summary>Share of full speed for a layer that takes this long, s.</summary>
    public double ShareFor(double seconds)
    {
        if (Curve.Count == 0) return Share;
        if (seconds <= Curve[0][0]) return Curve[0][1];
        for (var i = 1; i < Curve.Count; i++)
            if (seconds <= Curve[i][0]) return Curve[i - 1][1]
                + (seconds - Curve[i - 1][0]) / (Curve[i][0] - Curve[i - 1][0]) * (Curve[i][1] - Curve[i - 1][1]);
        return Curve[^1][1];
    }
}

namespace MillCard.Core.Documents;

/// <summary>One nozzle with its feed.</summary>
public sealed record Nozzle : OpenRecord
{
    /// <summary>Short name used by other facts.</summary>
    [Field("nozzle id", Most = 40)] public required string Id { get; init; }
    /// <summary>Bore, mm.</summary>
    [Field("nozzle diameter", "mm", AtLeast = 0.1, AtMost = 2, Needed = true, Short = "nozzle", Pages = FieldPages.Sheet)]
    public double? Diameter { get; init; }
    /// <summary>What the nozzle is made of.</summary>
    [Field("nozzle material", Pages = FieldPages.Sheet)]
    public NozzleMaterial? Material { get; init; }
    /// <summary>How well it stands filled filament; follows from brass and hardened, asked for any other material.</summary>
    [Field("wear rating", Short = "stands wear", When = "material=other", Pages = FieldPages.Sheet)]
    public WearRating? Wear { get; init; }
    /// <summary>From the carriage reference, mm.</summary>
    public Offset? Offset { get; init; }
    /// <summary>Diameter of the filament fed to it, mm.</summary>
    [Field("filament diameter", "mm", AtLeast = 1, AtMost = 4, Needed = true, Short = "filament",
        Hint = "by caliper: about 1.75 or 2.85", Pages = FieldPages.Sheet)]
    public double? FilamentDiameter { get; init; }
    /// <summary>How the filament gets there.</summary>
    public Feed? Feed { get; init; }
    /// <summary>Highest allowed hot-end temperature, °C.</summary>
    [Field("hot end's rating", "°C", AtLeast = 100, AtMost = 600, Short = "hot end rated to", Pages = FieldPages.Sheet)]
    public double? MaxTemperature { get; init; }
    /// <summary>Most plastic it melts, mm³/s.</summary>
    [Field("melting limit", "mm³/s", Above = 0, AtMost = 500, Short = "melts up to", Pages = FieldPages.Sheet)]
    public double? MaxFlow { get; init; }
    /// <summary>What is known of its heater; its rating is <see cref="MaxTemperature"/>.</summary>
    public HeaterFacts? Heater { get; init; }
    /// <summary>Ids of the fans that cool what it prints.</summary>
    [Field("fans of the nozzle", Most = 16)] public IReadOnlyList<string> Fans { get; init; } = [];
    /// <summary>Pulling back and lifting that suits its feed; what is not said is proposed from the feed.</summary>
    public HeadRetraction? Retraction { get; init; }

    /// <summary>How well it stands filled filament, from the material where nothing is said; null where nobody knows.</summary>
    public WearRating? WearKnown() => Wear
        ?? Material switch { NozzleMaterial.Brass => WearRating.Low, NozzleMaterial.Hardened => WearRating.High, _ => null };
}

/// <summary>An offset in three directions, mm.</summary>
public sealed record Offset : OpenRecord
{
    /// <summary>To the right, mm.</summary>
    [Field("offset X", "mm", AtLeast = -1000, AtMost = 1000)] public double X { get; init; }
    /// <summary>To the back, mm.</summary>
    [Field("offset Y", "mm", AtLeast = -1000, AtMost = 1000)] public double Y { get; init; }
    /// <summary>Up, mm; a lower nozzle is negative.</summary>
    [Field("offset Z", "mm", AtLeast = -100, AtMost = 100)] public double Z { get; init; }
}

/// <summary>How filament is pushed into the hot end.</summary>
public sealed record Feed : OpenRecord
{
    /// <summary>Direct, or through a long tube.</summary>
    [Field("feed", Hint = "direct: the drive sits on the head; long tube: on the frame", Pages = FieldPages.Sheet)]
    public FeedKind Kind { get; init; }
    /// <summary>Length of the tube, mm.</summary>
    [Field("tube length", "mm", AtLeast = 0, AtMost = 5000, When = "kind=long-tube", Hint = "from the drive to the hot end",
        Pages = FieldPages.Sheet)]
    public double? Length { get; init; }
}

/// <summary>Kinds of feed.</summary>
public enum FeedKind
{
    /// <summary>The drive sits on the head.</summary>
    Direct,
    /// <summary>The drive sits on the frame and pushes through a tube.</summary>
    LongTube,
}

/// <summary>What nozzles are made of.</summary>
public enum NozzleMaterial
{
    /// <summary>Brass; worn by fibre, glitter and glow powder.</summary>
    Brass,
    /// <summary>Hardened steel.</summary>
    [Word("hardened steel")]
    Hardened,
    /// <summary>Something else: its wear rating says how it stands filled filament.</summary>
    [Word("something else")]
    Other,
}

/// <summary>How well a nozzle stands filled filament.</summary>
public enum WearRating
{
    /// <summary>As brass.</summary>
    [Word("as brass")]
    Low,
    /// <summary>Now and then a spool.</summary>
    [Word("now and then a spool")]
    Middling,
    /// <summary>As hardened steel.</summary>
    [Word("as hardened steel")]
    High,
}

/// <summary>Pulling filament back, as the head needs it.</summary>
public sealed record HeadRetraction : OpenRecord
{
    /// <summary>Length, mm of filament.</summary>
    [Field("retraction", "mm", AtLeast = 0, AtMost = 50)] public double? Length { get; init; }
    /// <summary>Speed, mm/s.</summary>
    [Field("retraction speed", "mm/s", AtLeast = 1, AtMost = 500)] public double? Speed { get; init; }
    /// <summary>Lift of Z while travelling, mm.</summary>
    [Field("Z hop", "mm", AtLeast = 0, AtMost = 20)] public double? Lift { get; init; }
    /// <summary>Way back along the line just laid while pulling back, mm.</summary>
    [Field("wipe", "mm", AtLeast = 0, AtMost = 50)] public double? Wipe { get; init; }
}

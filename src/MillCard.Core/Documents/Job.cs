namespace MillCard.Core.Documents;

/// <summary>What a script sends to be fitted or sliced: documents, and parts that name the files sent along.</summary>
public sealed record Job : OpenRecord
{
    /// <summary>The machine.</summary>
    [Field("card", Needed = true)] public Card? Card { get; init; }
    /// <summary>The material; needed for slicing.</summary>
    public Filament? Filament { get; init; }
    /// <summary>The settings; needed for slicing.</summary>
    public Recipe? Recipe { get; init; }
    /// <summary>The second nozzle's material; as the first where nothing is said.</summary>
    public Filament? SecondFilament { get; init; }
    /// <summary>What is in the nozzles, by their ids; a nozzle that is not named holds the job's filament, the second one its second
    /// filament.</summary>
    [Field("filaments by nozzle", Most = 16)]
    public IReadOnlyDictionary<string, Filament> Loaded { get; init; } = new Dictionary<string,
        Filament>();
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
}

namespace MillCard.Core.Documents;

/// <summary>Lines round the first layers' footprint.</summary>
public sealed record Skirt : OpenRecord
{
    /// <summary>How many times round; 0 for none.</summary>
    [Field("skirt rounds", "", AtLeast = 0, AtMost = 50, Also = "loops", Pages = FieldPages.Trial)]
    [Tends("Gets the flow going before the part.", Adhesion = 1, Time = -1)]
    public int Rounds { get; init; } = 1;
    /// <summary>From the part to the nearest line's edge, mm.</summary>
    [Field("skirt gap", "mm", AtLeast = 0, AtMost = 100, Pages = FieldPages.Trial)]
    [Tends("How far away it runs.", Time = -1)]
    public double Gap { get; init; } = 4;
    /// <summary>How many layers high.</summary>
    [Field("skirt layers", "", AtLeast = 1, AtMost = 10000)]
    [Tends("A high skirt keeps draught away.", Time = -1, Strength = 1)]
    public int Layers { get; init; } = 1;
    /// <summary>Whether it goes up to the top, as a shield against draught.</summary>
    [Field("shield against draught", Also = "draft shield, warping, high skirt")]
    [Tends("Keeps warm air round the part; costs plastic.", Strength = 1, Accuracy = 1, Time = -2)]
    public bool ToTop { get; init; }
    /// <summary>Least length on the first layer, mm; further rounds are added until it is reached.</summary>
    [Field("skirt's least length", "mm", AtLeast = 0, AtMost = 20000)]
    [Tends("Primes the nozzle by a length of line.", Time = -1, Adhesion = 1)]
    public double LeastLength { get; init; }

    /// <summary>How high it stands, mm; infinite where it goes up to the top.</summary>
    /// <param name="first">Height of the first layer, mm.</param>
    /// <param name="others">Height of the others, mm.</param>
    internal double Height(double first, double others) => ToTop ? double.PositiveInfinity : first + (Layers - 1) * others;
}

/// <summary>A flat border on the first layer.</summary>
public sealed record Brim : OpenRecord
{
    /// <summary>Where.</summary>
    [Field("brim", Also = "edge", Departs = Departs.Part)]
    [Tends("A border holds the foot; it has to be cut off.", Adhesion = 0, Surface = 0)]
    public BrimPlace Place { get; init; } = BrimPlace.None;
    /// <summary>Width, mm.</summary>
    [Field("brim width", "mm", AtLeast = 0, AtMost = 100, Departs = Departs.Part)]
    [Tends("Wider holds better.", Adhesion = 2, Time = -1)]
    public double Width { get; init; } = 5;
    /// <summary>Between part and brim, mm.</summary>
    [Field("brim gap", "mm", AtLeast = 0, AtMost = 5, Departs = Departs.Part)]
    [Tends("A gap comes off more easily and holds less.", Adhesion = -2, Surface = 1)]
    public double Gap { get; init; }
}

/// <summary>Where a brim is laid.</summary>
public enum BrimPlace
{
    /// <summary>Nowhere.</summary>
    None,
    /// <summary>Round the outer outlines.</summary>
    [Word("outside")]
    Outer,
    /// <summary>In holes.</summary>
    [Word("in holes")]
    Inner,
    /// <summary>Both.</summary>
    Both,
    /// <summary>Round feet that are small for the height that stands on them.</summary>
    [Word("where a foot is small")]
    SmallFeet,
}

/// <summary>Layers that lie under the whole part and are torn off.</summary>
public sealed record Raft : OpenRecord
{
    /// <summary>How many; 0 for none. The first is laid thick and wide.</summary>
    [Field("raft layers", "", AtLeast = 0, AtMost = 20, Also = "plate under the part")]
    [Tends("Carries parts on a bad bed; the underside is rougher.", Adhesion = 3, Time = -2, Surface = -2)]
    public int Layers { get; init; }
    /// <summary>Beyond the part's foot, mm.</summary>
    [Field("raft margin", "mm", AtLeast = 0, AtMost = 50)]
    [Tends("A wider raft holds better.", Adhesion = 1, Time = -1)]
    public double Margin { get; init; } = 3;
    /// <summary>Between raft and part, mm.</summary>
    [Field("raft gap", "mm", AtLeast = 0, AtMost = 2)]
    [Tends("A wider gap comes off more easily; the underside sags.", Surface = -1, Adhesion = -1)]
    public double Gap { get; init; } = 0.15;
}

/// <summary>What holds up what would hang in the air.</summary>
public sealed record Supports : OpenRecord
{
    /// <summary>What they are made of.</summary>
    [Field("supports", Departs = Departs.Part)]
    [Tends("How overhangs are held, how much plastic that takes, how it comes off.", Time = 0, Surface = 0)]
    public SupportPattern Pattern { get; init; } = SupportPattern.None;
    /// <summary>Where they may stand.</summary>
    [Field("supports stand on", Short = "they stand on", Departs = Departs.Part)]
    [Tends("Everywhere holds all; from the bed leaves no scars on the part.", Surface = 0, Time = 0)]
    public SupportFrom From { get; init; } = SupportFrom.Everywhere;
    /// <summary>Faces that lean out farther than this from the upright are held up, degrees.</summary>
    [Field("overhang angle", "°", AtLeast = 0, AtMost = 89, Also = "threshold, support angle", Departs = Departs.Part)]
    [Tends("Larger supports less: quicker, steeper overhangs droop.", Time = 2, Surface = -1)]
    public double Angle { get; init; } = 50;
    /// <summary>Share of the support that is plastic.</summary>
    [Field("support density", "", AtLeast = 0.02, AtMost = 1, Short = "density", Look = FieldLook.Percent, Departs = Departs.Part)]
    [Tends("Denser holds better and comes off worse.", Surface = 1, Time = -2)]
    public double Density { get; init; } = 0.15;
    /// <summary>Dense layers between support and part.</summary>
    [Field("interface layers", "", AtLeast = 0, AtMost = 50, Departs = Departs.Part)]
    [Tends("More make a smoother underside.", Surface = 2, Time = -1)]
    public int InterfaceLayers { get; init; } = 2;
    /// <summary>Number of the nozzle that lays the interface, counted from 1; the part's own where nothing is said.</summary>
    [Field("interface by nozzle", "", AtLeast = 1, AtMost = 16, Otherwise = "the part's", Departs = Departs.Part,
        Also = "support material, soluble, second extruder")]
    [Tends("Plastic that does not stick to the part's leaves a smooth underside; every layer of it is a change of nozzle.", Surface = 3,
        Time = -2)]
    public int? InterfaceNozzle { get; init; }
    /// <summary>Distance of the interface's lines, mm, measured between their edges.</summary>
    [Field("interface spacing", "mm", AtLeast = 0, AtMost = 10, Departs = Departs.Part)]
    [Tends("Wider comes off more easily; the underside is rougher.", Time = 1, Surface = -1)]
    public double InterfaceSpacing { get; init; } = 0.3;
    /// <summary>Left free above and below, mm; rounded up to whole layers.</summary>
    [Field("support gap in Z", "mm", AtLeast = 0, AtMost = 5, Short = "gap in Z", Departs = Departs.Part)]
    [Tends("Larger comes off more easily; the underside sags.", Surface = -1, Accuracy = -1)]
    public double GapZ { get; init; } = 0.2;
    /// <summary>Layers left free between the supports' roof and the part over it; by the gap in Z where nothing is said.</summary>
    [Field("layers free over the roof", "", AtLeast = 0, AtMost = 20, Otherwise = "by the gap in Z", Departs = Departs.Part,
        Also = "roof gap, top distance")]
    [Tends("More come off more easily; the underside sags. None at all welds, unless the roof is of another plastic.", Surface = -1,
        Accuracy = -1)]
    public int? RoofGap { get; init; }
    /// <summary>Left free beside the part, mm.</summary>
    [Field("support gap in X and Y", "mm", AtLeast = 0, AtMost = 10, Short = "gap in X and Y", Departs = Departs.Part)]
    [Tends("Larger keeps off the walls; narrow overhangs go unheld.", Surface = 1, Accuracy = -1)]
    public double GapXy { get; init; } = 0.6;
}

/// <summary>Patterns of supports.</summary>
public enum SupportPattern
{
    /// <summary>No supports but where a zone or a mark asks for them; those are crossed lines.</summary>
    None,
    /// <summary>Lines, turned by 90° every layer.</summary>
    [Word("crossed lines")]
    Crossed,
    /// <summary>One line to and fro, the same way on every layer.</summary>
    [Word("one line to and fro")]
    Continuous,
    /// <summary>Trunks that branch towards what they hold.</summary>
    Branching,
}

/// <summary>Where supports may stand.</summary>
public enum SupportFrom
{
    /// <summary>On the bed and on the part.</summary>
    [Word("bed and part")]
    Everywhere,
    /// <summary>On the bed only.</summary>
    [Word("the bed only")]
    Bed,
}

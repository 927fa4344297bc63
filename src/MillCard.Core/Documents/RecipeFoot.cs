namespace MillCard.Core.Documents;

/// <summary>Lines round the first layers' footprint.</summary>
public sealed record Skirt : OpenRecord
{
    /// <summary>How many times round; 0 for none.</summary>
    [Field("skirt rounds", "", AtLeast = 0, AtMost = 50)] public int Rounds { get; init; } = 1;
    /// <summary>From the part to the nearest line's edge, mm.</summary>
    [Field("skirt gap", "mm", AtLeast = 0, AtMost = 100)] public double Gap { get; init; } = 4;
    /// <summary>How many layers high.</summary>
    [Field("skirt layers", "", AtLeast = 1, AtMost = 10000)] public int Layers { get; init; } = 1;
    /// <summary>Least length on the first layer, mm; further rounds are added until it is reached.</summary>
    [Field("skirt's least length", "mm", AtLeast = 0, AtMost = 20000)] public double LeastLength { get; init; }
}

/// <summary>A flat border on the first layer.</summary>
public sealed record Brim : OpenRecord
{
    /// <summary>Where.</summary>
    [Field("brim")] public BrimPlace Place { get; init; } = BrimPlace.None;
    /// <summary>Width, mm.</summary>
    [Field("brim width", "mm", AtLeast = 0, AtMost = 100)] public double Width { get; init; } = 5;
    /// <summary>Between part and brim, mm.</summary>
    [Field("brim gap", "mm", AtLeast = 0, AtMost = 5)] public double Gap { get; init; }
}

/// <summary>Where a brim is laid.</summary>
public enum BrimPlace
{
    /// <summary>Nowhere.</summary>
    None,
    /// <summary>Round the outer outlines.</summary>
    Outer,
    /// <summary>In holes.</summary>
    Inner,
    /// <summary>Both.</summary>
    Both,
    /// <summary>Round feet that are small for the height that stands on them.</summary>
    SmallFeet,
}

/// <summary>Layers that lie under the whole part and are torn off.</summary>
public sealed record Raft : OpenRecord
{
    /// <summary>How many; 0 for none. The first is laid thick and wide.</summary>
    [Field("raft layers", "", AtLeast = 0, AtMost = 20)] public int Layers { get; init; }
    /// <summary>Beyond the part's foot, mm.</summary>
    [Field("raft margin", "mm", AtLeast = 0, AtMost = 50)] public double Margin { get; init; } = 3;
    /// <summary>Between raft and part, mm.</summary>
    [Field("raft gap", "mm", AtLeast = 0, AtMost = 2)] public double Gap { get; init; } = 0.15;
}

/// <summary>What holds up what would hang in the air.</summary>
public sealed record Supports : OpenRecord
{
    /// <summary>What they are made of.</summary>
    [Field("supports")] public SupportPattern Pattern { get; init; } = SupportPattern.None;
    /// <summary>Where they may stand.</summary>
    [Field("supports stand on")] public SupportFrom From { get; init; } = SupportFrom.Everywhere;
    /// <summary>Faces that lean out farther than this from the upright are held up, degrees.</summary>
    [Field("overhang angle", "°", AtLeast = 0, AtMost = 89)] public double Angle { get; init; } = 50;
    /// <summary>Share of the support that is plastic.</summary>
    [Field("support density", "", AtLeast = 0.02, AtMost = 1)] public double Density { get; init; } = 0.15;
    /// <summary>Dense layers between support and part.</summary>
    [Field("interface layers", "", AtLeast = 0, AtMost = 50)] public int InterfaceLayers { get; init; } = 2;
    /// <summary>Distance of the interface's lines, mm, measured between their edges.</summary>
    [Field("interface spacing", "mm", AtLeast = 0, AtMost = 10)] public double InterfaceSpacing { get; init; } = 0.3;
    /// <summary>Left free above and below, mm; rounded up to whole layers.</summary>
    [Field("support gap in Z", "mm", AtLeast = 0, AtMost = 5)] public double GapZ { get; init; } = 0.2;
    /// <summary>Left free beside the part, mm.</summary>
    [Field("support gap in X and Y", "mm", AtLeast = 0, AtMost = 10)] public double GapXy { get; init; } = 0.6;
}

/// <summary>Patterns of supports.</summary>
public enum SupportPattern
{
    /// <summary>No supports but where a zone or a mark asks for them; those are crossed lines.</summary>
    None,
    /// <summary>Lines, turned by 90° every layer.</summary>
    Crossed,
    /// <summary>One line to and fro, the same way on every layer.</summary>
    Continuous,
    /// <summary>Trunks that branch towards what they hold.</summary>
    Branching,
}

/// <summary>Where supports may stand.</summary>
public enum SupportFrom
{
    /// <summary>On the bed and on the part.</summary>
    Everywhere,
    /// <summary>On the bed only.</summary>
    Bed,
}

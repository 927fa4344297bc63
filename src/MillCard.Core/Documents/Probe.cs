namespace MillCard.Core.Documents;

/// <summary>A levelling probe.</summary>
public sealed record Probe : OpenRecord
{
    /// <summary>How it feels the bed.</summary>
    [Field("probe", Pages = FieldPages.Sheet)]
    public ProbeKind? Kind { get; init; }
    /// <summary>From the first nozzle to the right, mm.</summary>
    [Field("probe's offset X", "mm", AtLeast = -300, AtMost = 300)] public double? X { get; init; }
    /// <summary>From the first nozzle to the back, mm.</summary>
    [Field("probe's offset Y", "mm", AtLeast = -300, AtMost = 300)] public double? Y { get; init; }
    /// <summary>Z offset: from where the probe answers to where the nozzle touches, mm; a more negative one brings the nozzle nearer to the
    /// bed.</summary>
    [Field("Z offset", "mm", AtLeast = -20, AtMost = 20)] public double? Z { get; init; }
    /// <summary>Points of its grid along X.</summary>
    [Field("probe's columns", "", AtLeast = 1, AtMost = 100)] public int? Columns { get; init; }
    /// <summary>Points of its grid along Y.</summary>
    [Field("probe's rows", "", AtLeast = 1, AtMost = 100)] public int? Rows { get; init; }
    /// <summary>Measured between the highest and the lowest point of the bed, mm.</summary>
    [Field("bed's unevenness", "mm", AtLeast = 0, AtMost = 20)] public double? Unevenness { get; init; }
}

/// <summary>Kinds of levelling probe.</summary>
public enum ProbeKind
{
    /// <summary>There is none.</summary>
    None,
    /// <summary>A switch that is pressed.</summary>
    Switch,
    /// <summary>A pin that is pushed in.</summary>
    TouchPin,
    /// <summary>A sensor that feels metal.</summary>
    Inductive,
    /// <summary>The nozzle itself.</summary>
    [Word("the nozzle itself")] NozzleContact,
}

namespace MillCard.Core.Documents;

/// <summary>Heights of layers, mm.</summary>
public sealed record LayerSizes : OpenRecord
{
    /// <summary>Every layer after the first.</summary>
    [Field("layer height", "mm", AtLeast = 0.01, AtMost = 2, Needed = true, Also = "slice height, resolution", Departs = Departs.Zone,
        Pages = FieldPages.Trial)]
    [Tends("Higher is quicker; slopes show steps.", Time = 3, Surface = -2, Accuracy = -1, Strength = -1)]
    public double? Others { get; init; }
    /// <summary>The first layer; as the others where nothing is said.</summary>
    [Field("first layer's height", "mm", AtLeast = 0.01, AtMost = 2, Short = "first layer", Otherwise = "as the others",
        Pages = FieldPages.Trial)]
    [Tends("Higher forgives an uneven bed; too high holds badly.", Time = 1, Adhesion = -1)]
    public double? First { get; init; }
    /// <summary>Whether heights in mm mean about so much: the nearest whole or half step of Z is taken, unless the ladder is too
    /// coarse.</summary>
    [Field("heights on a rung")]
    [Tends("Heights on whole or half steps of Z are even; slopes look cleaner.", Surface = 1)]
    public bool OnRung { get; init; }
    /// <summary>The height as a number of full steps of Z; on a machine whose ladder is known it goes before the height in mm.</summary>
    [Field("layer height in rungs", "", AtLeast = 1, AtMost = 1000, Otherwise = "in mm", Departs = Departs.Zone)]
    [Tends("More steps a layer are quicker; slopes show steps.", Time = 3, Surface = -2, Accuracy = -1, Strength = -1)]
    public int? Rungs { get; init; }
    /// <summary>The first layer's height as a number of full steps of Z.</summary>
    [Field("first layer's height in rungs", "", AtLeast = 1, AtMost = 1000, Short = "first layer in rungs", Otherwise = "in mm")]
    [Tends("More steps for the first layer forgive an uneven bed.", Time = 1, Adhesion = 1)]
    public int? FirstRungs { get; init; }

    /// <summary>How far the edge of a layer may stand off the surface, mm: layers are as high as that allows; all alike where nothing is
    /// said.</summary>
    [Field("surface error of layers", "mm", AtLeast = 0.005, AtMost = 1, Otherwise = "heights alike",
        Also = "variable layer height, adaptive layers, cusp height")]
    [Tends("More of it means higher layers on slopes; upright walls are as high as they may be.", Time = 2, Surface = -2)]
    public double? Error { get; init; }
    /// <summary>Lowest layer where heights vary, mm; half of the usual where nothing is said.</summary>
    [Field("lowest layer", "mm", AtLeast = 0.01, AtMost = 2, Otherwise = "half", When = "error")]
    [Tends("Lower layers show less on flat slopes, and take longer.", Surface = -1, Time = 1)]
    public double? Lowest { get; init; }
    /// <summary>Highest layer where heights vary, mm; the usual height where nothing is said.</summary>
    [Field("highest layer", "mm", AtLeast = 0.01, AtMost = 2, Otherwise = "as usual", When = "error")]
    [Tends("Higher layers on upright walls are quicker.", Time = 1, Strength = -1)]
    public double? Highest { get; init; }

    /// <summary>Lowest and highest layer of a complete recipe, mm.</summary>
    internal (double Lowest, double Highest) Range => Error is null ? (Others!.Value, Others.Value)
        : (Math.Min(Lowest ?? Others!.Value / 2, Others!.Value), Math.Max(Highest ?? 0, Others!.Value));

    /// <summary>Height of the first layer of a complete recipe, mm.</summary>
    internal double FirstHeight => First ?? Others!.Value;
}

/// <summary>Widths of single kinds of line as ratios of the line width; 1 where nothing is said.</summary>
public sealed record LineWidths : OpenRecord
{
    /// <summary>Every line of the first layer; goes before the ratio of its kind.</summary>
    [Field("first layer's line width", "", AtLeast = 0.5, AtMost = 2.5, Short = "first layer's lines", Otherwise = "100",
        Look = FieldLook.Percent, Departs = Departs.Zone)]
    [Tends("A wider first layer holds better and needs less speed.", Adhesion = 2, Accuracy = -1)]
    public double? First { get; init; }
    /// <summary>Outermost wall.</summary>
    [Field("outer wall's width", "", AtLeast = 0.5, AtMost = 2, Short = "outer wall", Otherwise = "100", Look = FieldLook.Percent,
        Departs = Departs.Zone)]
    [Tends("A narrow outer wall shows more detail, a wide one hides gaps.", Surface = -1, Accuracy = -1, Time = 1)]
    public double? OuterWall { get; init; }
    /// <summary>Other walls.</summary>
    [Field("inner walls' width", "", AtLeast = 0.5, AtMost = 2, Short = "inner walls", Otherwise = "100", Look = FieldLook.Percent,
        Departs = Departs.Zone)]
    [Tends("Wider inner walls are quicker and bond better.", Time = 1, Strength = 1)]
    public double? InnerWall { get; init; }
    /// <summary>Solid fill.</summary>
    [Field("solid fill's width", "", AtLeast = 0.5, AtMost = 2, Short = "solid fill", Otherwise = "100", Look = FieldLook.Percent,
        Departs = Departs.Zone)]
    [Tends("Wider solid lines are quicker; tops look coarser.", Time = 1, Surface = -1)]
    public double? Solid { get; init; }
    /// <summary>Sparse infill.</summary>
    [Field("infill's width", "", AtLeast = 0.5, AtMost = 2, Short = "infill", Otherwise = "100", Look = FieldLook.Percent,
        Departs = Departs.Zone)]
    [Tends("Wider infill lines are stronger for the same share.", Strength = 1, Time = 1)]
    public double? Infill { get; init; }
    /// <summary>Supports.</summary>
    [Field("supports' width", "", AtLeast = 0.5, AtMost = 2, Short = "supports", Otherwise = "100", Look = FieldLook.Percent,
        Departs = Departs.Zone)]
    [Tends("Wider support lines stand better and come off worse.", Time = 1)]
    public double? Support { get; init; }
}

/// <summary>How walls are laid.</summary>
public sealed record WallUse : OpenRecord
{
    /// <summary>Which comes first.</summary>
    [Field("order of walls", Short = "order", Departs = Departs.Part)]
    [Tends("Outer first is truer, inner first bridges overhangs better.", Accuracy = 0, Surface = 0)]
    public WallOrder Order { get; init; } = WallOrder.InsideOut;
    /// <summary>Where rings begin.</summary>
    [Field("seam", Also = "seam position, start of a ring", Departs = Departs.Part)]
    [Tends("Where the seam shows.", Surface = 0)]
    public Seam Seam { get; init; } = Seam.Aligned;
    /// <summary>Where the rings of the other walls begin; as the outer one where nothing is said.</summary>
    [Field("inner walls' seam", Otherwise = "as the outer wall", Departs = Departs.Part)]
    [Tends("Seams that do not lie beside each other weaken the wall less.", Strength = 0)]
    public Seam? InnerSeam { get; init; }
    /// <summary>Whether fill is laid before the walls of its layer.</summary>
    [Field("fill before walls", Departs = Departs.Part)]
    [Tends("Walls press against the fill; it may show through them.", Strength = 1, Surface = -1)]
    public bool FillFirst { get; init; }
    /// <summary>Whether every other layer has one wall more, which locks walls and fill into each other.</summary>
    [Field("one more wall every other layer", Also = "alternating walls, extra perimeter", Departs = Departs.Zone)]
    [Tends("Walls and fill hold each other; a little slower.", Strength = 2, Time = -1)]
    public bool Alternate { get; init; }
    /// <summary>How far the outer wall runs to and fro across its line, mm, for a rough grip; 0 for a smooth wall.</summary>
    [Field("texture of outer walls", "mm", AtLeast = 0, AtMost = 2, Also = "rough skin, grip, fuzz", Departs = Departs.Zone)]
    [Tends("A rough skin hides layers and seams; sizes are no longer true.", Surface = 1, Accuracy = -3, Time = -1)]
    public double Texture { get; init; }
    /// <summary>Distance of the turns of a texture, mm.</summary>
    [Field("grain of the texture", "mm", AtLeast = 0.2, AtMost = 10, Departs = Departs.Zone)]
    [Tends("Finer is softer to the hand and asks more moves of the board.", Time = 1)]
    public double TextureGrain { get; init; } = 0.8;
    /// <summary>Whether number and width of lines follow the thickness of ribs; without it every line is as wide as usual, what is too
    /// thin for a wall on both sides stays free, and so do gaps between walls.</summary>
    [Field("walls of varying width", Also = "single lines in thin places, gap fill, thin walls", Departs = Departs.Part)]
    [Tends("Ribs hold as many lines as there is room for, instead of nothing or a gap.", Strength = 1, Time = -1, Accuracy = 1)]
    public bool FillThin { get; init; } = true;
    /// <summary>Narrowest line that is laid in thin places, as a ratio of the nozzle.</summary>
    [Field("least line width by the nozzle", "", AtLeast = 0.3, AtMost = 1, Short = "least line, of the nozzle",
        Look = FieldLook.Percent, Also = "thin walls, fine detail, minimum bead", Departs = Departs.Part)]
    [Tends("Narrower lines reach further into tips and thin ribs; very narrow ones come out uneven.", Accuracy = -1, Surface = 1)]
    public double LeastLine { get; init; } = 0.5;
    /// <summary>Widest line before two are laid in its place, as a ratio of the nozzle.</summary>
    [Field("greatest line width by the nozzle", "", AtLeast = 1, AtMost = 3, Short = "greatest line, of the nozzle",
        Look = FieldLook.Percent, Also = "thin walls, wide bead", Departs = Departs.Part)]
    [Tends("Wider lines fill ribs in one pass; two narrower ones are truer.", Time = 1, Accuracy = -1)]
    public double GreatestLine { get; init; } = 2;
}

/// <summary>Order of the walls of one outline.</summary>
public enum WallOrder
{
    /// <summary>The outer wall last.</summary>
    [Word("inside out")]
    InsideOut,
    /// <summary>The outer wall first.</summary>
    [Word("outside in")]
    OutsideIn,
}

/// <summary>Where a ring begins and ends.</summary>
public enum Seam
{
    /// <summary>Above the seam of the layer below.</summary>
    Aligned,
    /// <summary>At the back.</summary>
    [Word("at the back")]
    Back,
    /// <summary>At the sharpest corner.</summary>
    [Word("at the sharpest corner")]
    Sharpest,
    /// <summary>Scattered over the outline.</summary>
    Scattered,
    /// <summary>In a corner that points inwards, where there is one; else above the seam of the layer below.</summary>
    [Word("in a hollow corner")]
    Hollow,
}

/// <summary>How much contours are moved outwards, mm; negative inwards.</summary>
public sealed record Compensation : OpenRecord
{
    /// <summary>On every layer.</summary>
    [Field("XY compensation", "mm", AtLeast = -2, AtMost = 2, Also = "tolerance, hole size",
        Departs = Departs.Part)]
    [Tends("Positive makes outlines larger and holes smaller.", Accuracy = 0)]
    public double Xy { get; init; }
    /// <summary>On the outlines of holes, beside that of every outline.</summary>
    [Field("holes' compensation", "mm", AtLeast = -2, AtMost = 2, Also = "hole size, bore, tolerance", Departs = Departs.Part)]
    [Tends("Negative makes holes wider, positive narrower; outer outlines stay.", Accuracy = 0)]
    public double Holes { get; init; }
    /// <summary>On the first layer, beside that of every layer.</summary>
    [Field("first layer's compensation", "mm", AtLeast = -2, AtMost = 2, Also = "elephant's foot", Departs = Departs.Part)]
    [Tends("Negative takes away the foot that the first layer squeezes out.", Accuracy = 0, Adhesion = 1)]
    public double FirstLayer { get; init; }
}

/// <summary>How the uppermost layer's lines are laid.</summary>
public sealed record TopSurface : OpenRecord
{
    /// <summary>Whether all lines run in one direction.</summary>
    [Field("top in one direction", Departs = Departs.Zone)]
    [Tends("An even sheen; a little slower.", Surface = 2, Time = -1)]
    public bool OneDirection { get; init; }
    /// <summary>Whether the nozzle passes over it once more with very little plastic.</summary>
    [Field("second pass over the top", Departs = Departs.Zone)]
    [Tends("A flat top for extra time.", Surface = 3, Time = -2)]
    public bool Smooth { get; init; }
    /// <summary>Plastic of the second pass, as a share of what a full layer of its lines' distance would hold.</summary>
    [Field("second pass's plastic", "", AtLeast = 0, AtMost = 0.5, Look = FieldLook.Percent, When = "smooth", Departs = Departs.Zone)]
    [Tends("More fills pores; too much smears over the edge.", Surface = 0)]
    public double SmoothPlastic { get; init; } = 0.15;
    /// <summary>Distance of the second pass's lines, as a ratio of the nozzle.</summary>
    [Field("second pass's line distance by the nozzle", "", AtLeast = 0.05, AtMost = 1, Short = "second pass's line distance",
        Look = FieldLook.Percent, When = "smooth", Departs = Departs.Zone)]
    [Tends("Closer lines leave a flatter top and take longer.", Surface = -1, Time = 2)]
    public double SmoothSpacing { get; init; } = 0.35;
    /// <summary>Whether an uppermost layer has one wall alone, and fill up to it.</summary>
    [Field("one wall round tops", Also = "single perimeter top", Departs = Departs.Zone)]
    [Tends("Tops are one even field up to their edge.", Surface = 2, Strength = -1)]
    public bool OneWall { get; init; }
}

/// <summary>Sparse infill.</summary>
public sealed record Infill : OpenRecord
{
    /// <summary>Share of the inside that is plastic, 0 to 1.</summary>
    [Field("infill", "", AtLeast = 0, AtMost = 1, Look = FieldLook.Percent, Also = "fill, filling", Departs = Departs.Zone,
        Pages = FieldPages.Trial)]
    [Tends("More is stronger, heavier, slower.", Strength = 2, Time = -3, Surface = 1)]
    public double Density { get; init; } = 0.2;
    /// <summary>How it is laid.</summary>
    [Field("infill pattern", Short = "pattern", Departs = Departs.Zone)]
    [Tends("Which way it bears, how long it takes, how tops lie on it.", Time = 0, Strength = 0)]
    public InfillPattern Pattern { get; init; } = InfillPattern.Lines;
    /// <summary>Direction of straight fill from X, degrees; every other layer of lines and solid fill lies across it.</summary>
    [Field("infill direction", "°", AtLeast = 0, AtMost = 180, Also = "infill angle, raster angle", Departs = Departs.Zone)]
    [Tends("Which way it bears; along the belts it shakes less.", Strength = 0)]
    public double Angle { get; init; } = 45;
    /// <summary>How far a straight infill line runs on along the wall at its end, mm; lines whose ends meet so are joined. All are joined
    /// where nothing is said.</summary>
    [Field("anchor of infill", "mm", AtLeast = 0, AtMost = 50, Otherwise = "joined", Departs = Departs.Zone,
        Also = "infill anchors, connect infill lines")]
    [Tends("Longer anchors hold the walls better and show through thin ones; short ones save plastic and cost travels.", Strength = 1,
        Surface = -1)]
    public double? Anchor { get; init; }
    /// <summary>Share of plastic near the skin; as everywhere where nothing is said.</summary>
    [Field("infill near the skin", "", AtLeast = 0, AtMost = 1, Look = FieldLook.Percent, Otherwise = "as everywhere",
        Also = "gradual infill, denser under tops", Departs = Departs.Zone)]
    [Tends("Denser under tops and behind walls, where it bears; sparse in the middle.", Strength = 2, Surface = 1, Time = -1)]
    public double? NearSkin { get; init; }
    /// <summary>How deep the skin reaches for infill that is denser there, mm.</summary>
    [Field("depth of the skin", "mm", AtLeast = 0.5, AtMost = 50, Departs = Departs.Zone)]
    [Tends("A deeper skin bears more and takes longer.", Strength = 1, Time = -1)]
    public double SkinDepth { get; init; } = 3;
}

/// <summary>Infill patterns.</summary>
public enum InfillPattern
{
    /// <summary>Parallel lines, turned by 90° every layer.</summary>
    Lines,
    /// <summary>Lines both ways on every layer.</summary>
    Grid,
    /// <summary>Lines in three directions on every layer.</summary>
    Triangles,
    /// <summary>Rings along the contour.</summary>
    Concentric,
    /// <summary>Hexagonal cells; the walls of neighbouring rows are double.</summary>
    Honeycomb,
    /// <summary>The gyroid, a surface that divides space in two.</summary>
    Gyroid,
    /// <summary>Cubes standing on a corner.</summary>
    Cubic,
    /// <summary>Lines, close together near the skin and sparser away from it.</summary>
    [Word("denser near the skin")]
    Graded,
}

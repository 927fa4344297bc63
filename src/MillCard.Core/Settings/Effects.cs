namespace MillCard.Core.Settings;

/// <summary>What a print can be better or worse in.</summary>
public enum Outcome
{
    /// <summary>How long it takes.</summary>
    Time,
    /// <summary>How much it bears.</summary>
    Strength,
    /// <summary>How it looks and feels.</summary>
    Surface,
    /// <summary>How true its measures are.</summary>
    Accuracy,
    /// <summary>How well it holds on the bed.</summary>
    Adhesion,
}

/// <summary>How a setting tends to move an outcome when it is raised.</summary>
/// <param name="Outcome">Which.</param>
/// <param name="By">From −3, much worse, to 3, much better; shorter time is better.</param>
public sealed record Tendency(Outcome Outcome, int By);

/// <summary>What a setting of a recipe tends to do. Common practice, no source.</summary>
/// <param name="Pointer">The setting.</param>
/// <param name="Says">In a line.</param>
/// <param name="Tends">Outcomes; for a choice, what the choice bears on, without a direction.</param>
public sealed record Effect(string Pointer, string Says, IReadOnlyList<Tendency> Tends);

/// <summary>What moves what.</summary>
public static class Effects
{
    /// <summary>One entry a setting of a recipe.</summary>
    public static IReadOnlyList<Effect> All { get; } =
    [
        Of("/layers/first", "Higher forgives an uneven bed; too high holds badly.", T(1), H(-1)),
        Of("/layers/others", "Higher is quicker; slopes show steps.", T(3), U(-2), C(-1), S(-1)),
        Of("/layers/rungs", "More steps a layer are quicker; slopes show steps.", T(3), U(-2), C(-1), S(-1)),
        Of("/layers/firstRungs", "More steps for the first layer forgive an uneven bed.", T(1), H(1)),
        Of("/layers/onRung", "Heights on whole or half steps of Z are even; slopes look cleaner.", U(1)),
        Of("/lineWidth", "Wider is quicker and stronger; fine detail is lost.", T(2), S(1), C(-1)),
        Of("/lineWidthOfNozzle", "Wider is quicker and stronger; fine detail is lost.", T(2), S(1), C(-1)),
        Of("/widths/first", "A wider first layer holds better and needs less speed.", H(2), C(-1)),
        Of("/widths/outerWall", "A narrow outer wall shows more detail, a wide one hides gaps.", U(-1), C(-1), T(1)),
        Of("/widths/innerWall", "Wider inner walls are quicker and bond better.", T(1), S(1)),
        Of("/widths/solid", "Wider solid lines are quicker; tops look coarser.", T(1), U(-1)),
        Of("/widths/infill", "Wider infill lines are stronger for the same share.", S(1), T(1)),
        Of("/widths/support", "Wider support lines stand better and come off worse.", T(1)),
        Of("/walls", "More walls are stronger where it counts, and slower.", S(3), T(-2), U(1)),
        Of("/wall/order", "Outer first is truer, inner first bridges overhangs better.", C(0), U(0)),
        Of("/wall/seam", "Where the seam shows.", U(0)),
        Of("/wall/fillThin", "Thin ribs get a line instead of nothing.", S(1), T(-1), C(1)),
        Of("/compensation/xy", "Positive makes outlines larger and holes smaller.", C(0)),
        Of("/compensation/firstLayer", "Negative takes away the foot that the first layer squeezes out.", C(0), H(1)),
        Of("/topLayers", "More closes the top over sparse infill.", U(2), S(1), T(-1)),
        Of("/bottomLayers", "More makes a firmer floor.", S(1), T(-1)),
        Of("/top/oneDirection", "An even sheen; a little slower.", U(2), T(-1)),
        Of("/top/smooth", "A flat top for extra time.", U(3), T(-2)),
        Of("/bridges", "Free spans are laid the shorter way as strands.", U(2), C(1)),
        Of("/infill/density", "More is stronger, heavier, slower.", S(2), T(-3), U(1)),
        Of("/infill/pattern", "Which way it bears, how long it takes, how tops lie on it.", T(0), S(0)),
        Of("/skirt/rounds", "Gets the flow going before the part.", H(1), T(-1)),
        Of("/skirt/gap", "How far away it runs.", T(-1)),
        Of("/skirt/layers", "A high skirt keeps draught away.", T(-1), S(1)),
        Of("/skirt/leastLength", "Primes the nozzle by a length of line.", T(-1), H(1)),
        Of("/brim/place", "A border holds the foot; it has to be cut off.", H(0), U(0)),
        Of("/brim/width", "Wider holds better.", H(2), T(-1)),
        Of("/brim/gap", "A gap comes off more easily and holds less.", H(-2), U(1)),
        Of("/raft/layers", "Carries parts on a bad bed; the underside is rougher.", H(3), T(-2), U(-2)),
        Of("/raft/margin", "A wider raft holds better.", H(1), T(-1)),
        Of("/raft/gap", "A wider gap comes off more easily; the underside sags.", U(-1), H(-1)),
        Of("/supports/pattern", "How overhangs are held, how much plastic that takes, how it comes off.", T(0), U(0)),
        Of("/supports/from", "Everywhere holds all; from the bed leaves no scars on the part.", U(0), T(0)),
        Of("/supports/angle", "Larger supports less: quicker, steeper overhangs droop.", T(2), U(-1)),
        Of("/supports/density", "Denser holds better and comes off worse.", U(1), T(-2)),
        Of("/supports/interfaceLayers", "More make a smoother underside.", U(2), T(-1)),
        Of("/supports/interfaceSpacing", "Wider comes off more easily; the underside is rougher.", T(1), U(-1)),
        Of("/supports/gapZ", "Larger comes off more easily; the underside sags.", U(-1), C(-1)),
        Of("/supports/gapXy", "Larger keeps off the walls; narrow overhangs go unheld.", U(1), C(-1)),
        Of("/speeds/outerWall", "Slower is smoother and truer.", T(2), U(-2), C(-2)),
        Of("/speeds/innerWall", "Faster is quicker; very fast bonds worse.", T(2), S(-1)),
        Of("/speeds/solid", "Faster is quicker; tops get coarser.", T(2), U(-1)),
        Of("/speeds/infill", "Faster is quicker; very fast bonds worse.", T(2), S(-1)),
        Of("/speeds/top", "Slower tops look better.", T(1), U(-2)),
        Of("/speeds/bridge", "Slow strands sag less than hurried ones tear.", U(-1), T(1)),
        Of("/speeds/thin", "Slower thin lines are evener.", U(-1), T(1)),
        Of("/speeds/support", "Faster supports are quicker and stand worse.", T(1)),
        Of("/speeds/interface", "Slower lays an evener bed for the part.", T(1), U(-1)),
        Of("/speeds/travel", "Faster is quicker and strings less.", T(2), U(1)),
        Of("/speeds/firstLayer", "Slower holds better.", H(-2), T(1)),
        Of("/speeds/slowLayers", "More slow layers let the foot settle.", H(1), T(-1)),
        Of("/speeds/leastLayerTime", "Small layers cool before the next.", U(2), C(1), T(-2)),
        Of("/speeds/least", "How slow the least layer time may make it.", T(1), U(-1)),
        Of("/accelerations/outerWall", "Lower shows less ringing.", T(1), U(-2), C(-1)),
        Of("/accelerations/innerWall", "Higher is quicker.", T(1), U(-1)),
        Of("/accelerations/solid", "Higher is quicker.", T(1), U(-1)),
        Of("/accelerations/infill", "Higher is quicker.", T(2)),
        Of("/accelerations/firstLayer", "Lower holds better.", H(-1), T(1)),
        Of("/accelerations/travel", "Higher is quicker; a tall part may be shaken loose.", T(2), H(-1)),
        Of("/retraction/length", "More strings less; too much grinds or clogs.", U(1), T(-1)),
        Of("/retraction/speed", "Faster strings less; too fast grinds.", U(1), T(1)),
        Of("/retraction/leastTravel", "Longer pulls back less often: quicker, more strings.", T(1), U(-1)),
        Of("/retraction/lift", "Keeps off what stands; slower, strings more.", H(1), U(-1), T(-1)),
        Of("/retraction/stayInside", "Fewer marks outside; a little more way.", U(2)),
        Of("/spiral", "One wall without a seam; nothing inside.", T(3), U(2), S(-3)),
        Of("/nozzleChanges/tower", "More plastic cleans the change better and costs time.", U(2), T(-2)),
        Of("/nozzleChanges/towerWidth", "A wider tower stands better.", H(1), T(-1)),
        Of("/nozzleChanges/shield", "Catches drips; costs plastic.", U(2), T(-2)),
        Of("/nozzleChanges/shieldGap", "Nearer catches more.", U(-1)),
        Of("/nozzleChanges/retraction", "More drips less from the idle nozzle.", U(1)),
        Of("/fileName", "The file's name; it moves nothing."),
    ];

    /// <summary>Settings that tend to move an outcome, those that move it most first.</summary>
    public static IReadOnlyList<Effect> On(Outcome outcome) =>
        [.. All.Where(e => e.Tends.Any(t => t.Outcome == outcome))
        .OrderByDescending(e => Math.Abs(e.Tends.First(t => t.Outcome == outcome).By))];

    private static Effect Of(string pointer, string says, params Tendency[] tends) => new(pointer, says, tends);
    private static Tendency T(int by) => new(Outcome.Time, by);
    private static Tendency S(int by) => new(Outcome.Strength, by);
    private static Tendency U(int by) => new(Outcome.Surface, by);
    private static Tendency C(int by) => new(Outcome.Accuracy, by);
    private static Tendency H(int by) => new(Outcome.Adhesion, by);
}

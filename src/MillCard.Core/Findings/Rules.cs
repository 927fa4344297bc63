using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings.CardRules;
using MillCard.Core.Findings.DryRunRules;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings;

/// <summary>A rule that looks at a card, complete or not.</summary>
public interface ICardRule
{
    /// <summary>Its name and severity.</summary>
    RuleId Id { get; }

    /// <summary>What it finds.</summary>
    IEnumerable<Finding> Look(Card card);
}

/// <summary>A rule that looks at a dry run.</summary>
public interface IDryRunRule
{
    /// <summary>Its name and severity.</summary>
    RuleId Id { get; }

    /// <summary>What it finds.</summary>
    IEnumerable<Finding> Look(DryRunReport run, Machine machine);
}

/// <summary>The list of rules. A rule is one file and one line here.</summary>
public static class Rules
{
    /// <summary>Rules about cards.</summary>
    public static IReadOnlyList<ICardRule> ForCards { get; } =
    [
        new MissingFact(),
        new BadOutline(),
        new KeepOutOffBed(),
        new ObstacleWithoutTop(),
        new UseBeyondHeight(),
        new UncommonFilamentDiameter(),
        new BrokenRoutine(),
        new NoRoutine(),
        new UnknownNameOnHead(),
        new OffsetsApplied(),
        new IdleNozzleLower(),
        new RetractionForFeed(),
        new CarriagesIncomplete(),
        new ModeNotSet(),
        new StepsDiffer(),
        new StepRateTooHigh(),
        new SegmentsPerSecondUnusual(),
        new DeltaBeyondArms(),
        new HeatLogCannotTell(),
        new LimitsStatedAndTrusted(),
        new HardCodedSize(),
    ];

    /// <summary>Rules about dry runs.</summary>
    public static IReadOnlyList<IDryRunRule> ForDryRuns { get; } =
    [
        new MoveBeforeHome(),
        new LevelBeforeHome(),
        new MeshDropped(),
        new OutsideTravel(),
        new BelowBed(),
        new ThroughKeepOut(),
        new PrimeLineOffBed(),
        new PrimeLineUnderPart(),
        new EndDragsOverPart(),
        new EndAboveTravel(),
        new HomeOntoPart(),
        new HeadLeftOnPart(),
        new InTheWayAtTheEnd(),
        new GeometryChangedAfterHome(),
        new LineWithoutEffect(),
        new SpeedOverLimit(),
        new StepRateOverLimit(),
        new RelativeLeftOn(),
        new HeadHitsPrint(),
        new TargetOverRating(),
        new WaitNeverEnds(),
        new WaitDoesNotWait(),
        new ColdExtrusion(),
        new NoWaitBeforeExtrusion(),
        new HotAndIdle(),
        new SerialHeating(),
        new HeatedTwice(),
        new NozzleLeftOn(),
        new BedLeftOn(),
        new FanLeftOn(),
        new MotorsLeftOn(),
        new RedundantDwellAtEnd(),
        new ModeMismatch(),
        new FilamentEndsUnbalanced(),
        new FlowOverLimit(),
        new FeedOfTheOtherNozzle(),
        new FilamentDiameterMismatch(),
        new UnknownCommandRule(),
        new UnknownMacro(),
        new WrongUnit(),
        new ParameterRange(),
        new LineTooLong(),
        new NotAscii(),
        new ToolNotThere(),
        new MacroParameterUnknown(),
        new MacroCallsItself(),
        new SettingOverridden(),
        new TuningValuesInStart(),
        new CarriageModeLeftOn(),
        new FlavourCannot(),
    ];

    /// <summary>All findings about a card, worst first; accepted ones carry the reason.</summary>
    /// <param name="card">Complete or not.</param>
    /// <param name="more">Findings of a further look at it.</param>
    public static IReadOnlyList<Finding> Check(Card card, params IEnumerable<Finding> more) => Sorted(ForCards.SelectMany(rule => rule.Look(card)).Concat(more), card);

    /// <summary>All findings about a dry run, worst first.</summary>
    public static IReadOnlyList<Finding> Check(DryRunReport run, Machine machine) =>
        Sorted(ForDryRuns.SelectMany(rule => rule.Look(run, machine)), machine.Card);

    private static IReadOnlyList<Finding> Sorted(IEnumerable<Finding> findings, Card card) =>
        [.. findings.Select(f => f with { AcceptedBecause = card.Accepted.FirstOrDefault(a => a.Rule == f.Rule && a.At == (f.Pointer ?? ""))?.Why })
            .OrderBy(f => f.AcceptedBecause is not null).ThenByDescending(f => f.Severity).ThenBy(f => f.Line ?? 0)];

    internal static Finding At(this RuleId rule, string pointer, string message, string why) => new(rule.Name, rule.Severity, message, why, Pointer: pointer);

    internal static Finding OnLine(this RuleId rule, int line, string message, string why) => new(rule.Name, rule.Severity, message, why, Line: line + 1);
}

using System.Collections.Concurrent;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Rules.CardRules;
using MillCard.Core.Rules.DryRunRules;

namespace MillCard.Core.Rules;

/// <summary>The list of rules. A rule is one file and one line here.</summary>
public static class RuleBook
{
    /// <summary>Rules about cards.</summary>
    public static IReadOnlyList<ICardRule> ForCards { get; } =
    [
        new MissingFact(),
        new BadOutline(),
        new KeepOutOffBed(),
        new ObstacleWithoutTop(),
        new UseBeyondHeight(),
        new AxisShortOfBed(),
        new TravelPastBed(),
        new OriginOffMachine(),
        new HomeOffTravel(),
        new FasterThanAxis(),
        new BeamNeverClears(),
        new NothingLeftToPrintOn(),
        new SameName(),
        new ObstacleAboveMachine(),
        new BodyBelowTip(),
        new ProbeReachesNothing(),
        new RatingBeyondHeater(),
        new HeatsWhatIsNotThere(),
        new UncommonFilamentDiameter(),
        new BrokenRoutine(),
        new NoRoutine(),
        new UnknownNameOnHead(),
        new OffsetsApplied(),
        new IdleNozzleLower(),
        new RetractionForFeed(),
        new CarriagesIncomplete(),
        new ModeNotSet(),
        new StartsNotSaid(),
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
        new MovesTooQuick(),
        new RelativeLeftOn(),
        new HeadHitsPrint(),
        new TargetOverRating(),
        new WaitNeverEnds(),
        new WaitDoesNotWait(),
        new ColdExtrusion(),
        new NoWaitBeforeExtrusion(),
        new LeftToChance(),
        new BedStillCold(),
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
        new CarriagesMeet(),
        new FlavourCannot(),
        new NotFollowed(),
    ];

    /// <summary>All findings about a card, worst first; accepted ones carry the reason.</summary>
    /// <param name="card">Complete or not.</param>
    /// <param name="more">Findings of a further look at it.</param>
    public static IReadOnlyList<Finding> Check(Card card, params IEnumerable<Finding> more) =>
        Sorted(ForCards.SelectMany(rule => rule.Look(card)).Concat(more), card);

    /// <summary>All findings about a dry run, worst first.</summary>
    public static IReadOnlyList<Finding> Check(DryRunReport run, Machine machine) => Check(run, machine, OneByOne);

    /// <summary>All findings about a dry run, worst first; rules look at it side by side.</summary>
    internal static IReadOnlyList<Finding> Check(DryRunReport run, Machine machine, ParallelOptions sideBySide) =>
        Sorted(Softened(BothWays(run, machine, sideBySide), run), machine.Card);

    private static readonly ParallelOptions OneByOne = new() { MaxDegreeOfParallelism = 1 };

    private const int CheapLines = 20_000;

    /// <summary>Places of rules in their list: the one that takes as long as all others is begun first.</summary>
    private static readonly int[] LongestFirst = [.. ForDryRuns.Index().OrderBy(rule => rule.Item is not HeadHitsPrint)
        .Select(rule => rule.Index)];

    private static List<Finding> Look(DryRunReport run, Machine machine, ParallelOptions sideBySide)
    {
        var found = new Finding[ForDryRuns.Count][];
        Parallel.ForEach(Partitioner.Create(LongestFirst, EnumerablePartitionerOptions.NoBuffering), sideBySide,
            i => found[i] = [.. ForDryRuns[i].Look(run, machine)]);
        return [.. found.SelectMany(f => f)];
    }

    /// <summary>Where a condition hangs on what only the printer knows, both ways are tried: what one of them alone does is no
    /// stop.</summary>
    private static List<Finding> BothWays(DryRunReport run, Machine machine, ParallelOptions sideBySide)
    {
        var one = Look(run, machine, sideBySide);
        if (!run.Hinges || run.Text.Count > CheapLines) return one;
        var other = Look(SimulatedMachine.OtherWay(run, machine), machine, sideBySide);
        bool Has(List<Finding> findings, Finding f) => findings.Any(o => o.Rule == f.Rule && o.Line == f.Line);
        var hangs = string.Join(", ", run.Unfollowed.Select(u => u.What).Distinct().Take(3));
        return [.. one.Select(f => Has(other, f) ? f : Doubtful(f, $"So it is one way; it hangs on what only the printer knows: {hangs}.")),
            .. other.Where(f => !Has(one, f))
                .Select(f => Doubtful(f, $"So it is if the other way is taken; it hangs on what only the printer knows: {hangs}."))];
    }

    /// <summary>What a macro or a file may do that could not be looked at is no stop behind it.</summary>
    private static IEnumerable<Finding> Softened(List<Finding> findings, DryRunReport run) => !run.Unseen.Comes
        ? findings
        : findings.Select(f => f.Severity == Severity.Stop && f.Line > run.Unseen.Line && MayBeDoneUnseen.Contains(f.Rule)
            ? Doubtful(f, $"{run.UnseenName} may have seen to it; the card does not hold it, so it could not be looked at.")
            : f);

    private static readonly string[] MayBeDoneUnseen =
        ["move-before-home", "level-before-home", "cold-extrusion", "no-wait-before-extrusion", "feed-of-the-other-nozzle",
            "mode-mismatch", "nozzle-left-on", "bed-left-on"];

    private static Finding Doubtful(Finding finding, string because) =>
        finding with
        {
            Severity = finding.Severity < Severity.Caution ? finding.Severity
            : Severity.Caution,
            Why = $"{finding.Why} {because}"
        };

    private static IReadOnlyList<Finding> Sorted(IEnumerable<Finding> findings, Card card) =>
        [.. findings.Select(f => f with { AcceptedBecause = card.Accepted.FirstOrDefault(a => a.Rule == f.Rule
            && a.At == (f.Pointer ?? ""))?.Why })
            .OrderBy(f => f.AcceptedBecause is not null).ThenByDescending(f => f.Severity).ThenBy(f => f.Line ?? 0)];
}

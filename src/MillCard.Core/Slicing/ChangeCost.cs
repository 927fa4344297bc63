using MillCard.Core.Clearance;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Reach;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing;

/// <summary>What changing nozzles costs in a program.</summary>
/// <param name="Changes">How many there are.</param>
/// <param name="Seconds">From the last line of one nozzle to the first of the next, of all changes together.</param>
/// <param name="Grams">Plastic in tower and shield; null where a density is not known.</param>
public sealed record ChangeCost(int Changes, double Seconds, double? Grams)
{
    /// <summary>Where each nozzle that comes on lays at least this on its layer, what it oozed is lost in the fill, mm²; common practice,
    /// no source.</summary>
    private const double EnoughArea = 200;

    /// <summary>Savings above this share are said unasked.</summary>
    private const double Worth = 0.1;

    /// <summary>Of a program that was sliced; null where one nozzle prints it all.</summary>
    internal static ChangeCost? Of(SliceJob job, IReadOnlyList<LayerPlan> plans, DryRunReport run)
    {
        var (changes, seconds, line, tool) = (0, 0.0, -1, -1);
        foreach (ref readonly var move in run.Moves)
        {
            if (!move.Extrudes || move.Line < run.LayersBegin) continue;
            if (tool >= 0 && move.Tool != tool)
            {
                changes++;
                seconds += run.Starts[move.Line] - run.Starts[line + 1];
            }
            (line, tool) = (move.Line, move.Tool);
        }
        return changes == 0 ? null : new ChangeCost(changes, seconds, Mass(job, Extra(plans)));
    }

    private static IEnumerable<(ToolPath Path, LayerPlace Place)> Extra(IReadOnlyList<LayerPlan> plans) => plans
        .SelectMany(l => l.Paths.Where(p => p.Kind is PathKind.Tower or PathKind.Shield).Select(p => (p, l.Place)));

    private static double? Mass(SliceJob job, IEnumerable<(ToolPath Path, LayerPlace Place)> paths) =>
        paths.Aggregate((double?)0, (sum, p) =>
        sum + p.Path.VolumeAt(p.Place.Height) * job.FilamentOf(p.Path.Nozzle).Density / 1000);

    /// <summary>What would save a good share of time or plastic, and what the tower is worth.</summary>
    internal IEnumerable<Finding> Notes(SliceJob job, IReadOnlyList<LayerPlan> plans, DryRunReport run, CancellationToken stop)
    {
        var total = Spent.Of(run, job.Machine.Card, job.Filaments, job.Copies).Grams;
        foreach (var (how, changes, saved) in Otherwise(job, plans, stop))
            if (saved > Worth * run.TotalSeconds || Grams > Worth * total)
            {
                var plastic = Sentence.When(Grams > 0, $" and {Grams:0.0} g of tower and shield");
                var (take, of, less) = (Minutes(Seconds), Minutes(run.TotalSeconds), Minutes(saved));
                yield return new Finding("changes-cost", Severity.Note,
                    $"{Changes} changes of nozzle take {take} of {of}{plastic}. {how}: {Count(changes)}, about {less} less.",
                    "At every change the one nozzle cools, the other heats, and both ooze.", job.Sequence == Sequence.AllAtOnce
                        ? "/sequence" : "/parts");
            }
        if (Tower(job, plans, run) is { } tower) yield return tower;
    }

    /// <summary>Other ways to print the same, with the changes they need and the time that they save, s.</summary>
    private IEnumerable<(string How, int Changes, double Saved)> Otherwise(SliceJob job, IReadOnlyList<LayerPlan> plans,
        CancellationToken stop)
    {
        var each = Seconds / Changes;
        var extra = Extra(plans).Sum(p => p.Path.Length / job.Recipe.SpeedOf(p.Path.Kind));
        int[] nozzles = [.. job.Parts.Select(p => job.Machine.NozzlesOf(p.Part.Nozzles)[0])];
        if (job.Sequence == Sequence.AllAtOnce && job.Parts.Count > 1
            && new PrintOrder(job.Machine, job.Recipe).Of(job.Standing, job.Mode, cures: Cures.LeftOut, stop).Order is { } order)
        {
            var needed = order.Zip(order.Skip(1)).Count(p => nozzles[p.First] != nozzles[p.Second]);
            yield return ($"One at a time ({string.Join(", ", order.Select(i => job.Parts[i].Part.Name).Distinct().Take(4))})", needed,
                (Changes - needed) * each + extra);
        }
        if (nozzles.Distinct().Select(job.FilamentOf).Distinct().Count() == 1 && nozzles.Distinct().Count() > 1
            && nozzles.Select(n => job.Machine.Nozzles[n].Diameter).Distinct().Count() == 1)
            yield return ($"All by {job.Machine.Nozzles[nozzles.Min()].Id}, as all hold the same filament", 0, Seconds + extra);
    }

    private static Finding? Tower(SliceJob job, IReadOnlyList<LayerPlan> plans, DryRunReport run)
    {
        (ToolPath Path, LayerPlace Place)[] tower = [.. Extra(plans).Where(p => p.Path.Kind == PathKind.Tower)];
        if (tower.Length == 0) return null;
        var (least, at, before) = (double.PositiveInfinity, 0, -1);
        foreach (var (plan, i) in plans.Select((p, i) => (p, i)))
            foreach (var turn in plan.Paths.Where(p => p.Kind is not (PathKind.Tower or PathKind.Shield)).GroupBy(p => p.Nozzle))
            {
                var laid = turn.Sum(p => p.Length * p.Width);
                if (before >= 0 && turn.Key != before && laid < least) (least, at) = (laid, i + 1);
                before = turn.Key;
            }
        var seconds = tower.Sum(p => p.Path.Length / job.Recipe.SpeedOf(p.Path.Kind));
        var grams = Mass(job, tower);
        var mass = Sentence.When(grams is not null, $" and {grams:0.0} g");
        var does = least >= EnoughArea
            ? Sentence.Of($"Every nozzle that comes on lays at least {least:0} mm²: from {EnoughArea:0} mm² on a print does without a "
                + $"tower (common practice).")
            : Sentence.Of($"The nozzle that comes on at layer {at} lays {least:0} mm²; below {EnoughArea:0} mm² a print wants the tower "
                + $"(common practice).");
        var (takes, of) = (Minutes(seconds), Minutes(run.TotalSeconds));
        return new Finding("tower-cost", Severity.Note,
            $"The tower takes about {takes}{mass} of {of}. {does}",
            "It takes up what a nozzle oozed while it was away.", "/recipe/nozzleChanges/tower");
    }

    private static Sentence Count(int instead) =>
        instead switch { 0 => Sentence.Of($"no change"), 1 => Sentence.Of($"one change"), _ => Sentence.Of($"{instead} changes") };

    private static string Minutes(double seconds) => seconds switch
    {
        < 90 => Invariant($"{seconds:0} s"),
        < 7200 => Invariant($"{seconds / 60:0} min"),
        _ => Invariant($"{seconds / 3600:0.0} h"),
    };
}

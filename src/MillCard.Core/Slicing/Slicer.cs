using System.Collections.Concurrent;
using MillCard.Core.Clearance;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Motion;
using MillCard.Core.Reach;
using MillCard.Core.Routines;
using MillCard.Core.Rules;
using MillCard.Core.Rules.CardRules;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Order;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Supporting;
using MillCard.Core.Slicing.Writing;

namespace MillCard.Core.Slicing;

/// <summary>From parts, a card, a filament and a recipe to a program for the machine. The same input gives the same bytes.</summary>
public static class Slicer
{
    /// <summary>Slices and dry-runs.</summary>
    /// <param name="job">What is to be sliced.</param>
    /// <param name="progress">Told how far it has come.</param>
    /// <param name="stop">Ends the computation.</param>
    public static SliceResult Slice(SliceJob job, IProgress<Progress>? progress = null, CancellationToken stop = default)
    {
        var heights = HeightNotes(job).ToArray();
        job = Grown(job with
        {
            Recipe = Ladder.Resolved(job.Recipe, job.Machine.Card),
            Mode = ModePlan.InUse(job.Machine, job.Mode),
            Heights = [.. job.Heights.Select(band => band with { Height = OnRung(job, band.Height) })],
        }, stop);
        var refusals = SliceRefusals.Of(job, stop).ToArray();
        if (refusals.Length > 0) return new SliceResult(default, [], null, refusals);
        OrderResult? order = null;
        if (job.Sequence == Sequence.OneAtATime)
        {
            var orders = new PrintOrder(job.Machine, job.Recipe);
            order = orders.Of(job.Standing, job.Mode, Cures.LeftOut, stop);
            if (order.Order is null) order = orders.Of(job.Standing, job.Mode, Cures.Sought, stop);
            refusals = [.. SliceRefusals.OneAtATime(job, order)];
            if (refusals.Length > 0) return new SliceResult(default, [], null, refusals);
        }

        var (notes, parts) = (new List<Finding>(heights), new List<LaidPart>());
        notes.AddRange(MisfitNotes(job));
        notes.AddRange(NozzleNotes.Of(job));
        notes.AddRange(HeightWishes.Notes(job));
        var ground = new AllowedGround(job);
        var places = job.Sequence == Sequence.OneAtATime ? null : job.CommonPlaces();
        var assemblies = places is null ? null : new Assemblies(job, places, part => Layering.Cut(job, part, places, progress, stop), stop);
        notes.AddRange(assemblies?.Notes() ?? []);
        foreach (var (index, part) in job.Parts.Index())
        {
            var laid = Layering.Of(job, part, places, assemblies?.Of(index), ground, Foot.Lift(job.Recipe), progress, stop);
            notes.AddRange(laid.Findings);
            parts.Add(laid);
        }
        if (job.Machine.Card.Head.Probe is { Unevenness: { } uneven } probe && uneven > job.Recipe.Layers.FirstHeight / 2)
            notes.Add(new Finding("uneven-bed", probe.Kind is null or ProbeKind.None ? Severity.Caution : Severity.Note,
                $"The bed is uneven by {uneven:0.##} mm; the first layer is {job.Recipe.Layers.FirstHeight:0.##} mm high.",
                    "Where the bed lies low the first layer does not reach it, unless the probe's measurement is used."));
        if (parts.All(p => p.Layers.Length == 0))
            return new SliceResult(default, [], null,
                [new Finding("nothing-to-print", Severity.Stop, "No part is as high as half a first layer.",
                "There is nothing to print.")]);

        progress?.Report(new Progress("order", 0, 1));
        var ordered = order?.Order is { } sequence ? LayerOrder.OneAtATime(job, parts, ground, sequence, stop)
            : LayerOrder.Of(job, parts, ground, stop);
        if (ordered.Refusal is { } refusal) return new SliceResult(default, [], null, [refusal]);
        var plans = ordered.Layers;
        notes.AddRange(ordered.Notes);
        notes.AddRange(Vanished(job, parts));
        var spelling = new Spelling(job.Machine, new GcodeWriter());
        notes.AddRange(WrittenStops.Notes(job, plans, spelling));
        if (parts.Any(p => p.Recipe.Arcs) && !spelling.KnowsArcs) notes.Add(NoArcs);
        if (plans.All(l => l.Paths.Count == 0))
            return new SliceResult(default, [], null,
                [new Finding("nothing-to-print", Severity.Stop, "No part is anywhere wide enough for a line.",
                "There is nothing to print.", "/recipe/lineWidth")]);
        try
        {
            progress?.Report(new Progress("dry run", 0, 1));
            var (run, lines, laid) = Written(job, plans, stop);
            var changes = ChangeCost.Of(job, plans, run);
            if (QuickLayers.Of(job, plans, run, lines) is { } quick) notes.Add(quick);
            var result = new SliceResult(run.Text.Bytes, plans, run, [.. notes, .. changes?.Notes(job, plans, run, stop) ?? []])
            {
                FileName = ProgramName.Of(job, plans, run.TotalSeconds),
                Changes = changes,
                Times = LayerTimes.Of(run, lines),
            };
            var (found, uses, drawn) = (result.Findings, result.Uses, result.Lines);
            var by = plans.SelectMany(layer => layer.Paths)
                .Select(path => new LaidBy(path.Nozzle, job.FilamentOf(path.Nozzle).Diameter!.Value)).ToArray();
            Parallel.Invoke(job.Parallel(stop),
                () => found = RuleBook.Check(run, job.Machine, job.Parallel(stop)),
                () => uses = PlasticUsed.Of(job, plans, run),
                () => drawn = LaidLine.Of(run, laid, by, job.Machine.Frames));
            return result with { Findings = [.. result.Findings, .. found], Uses = uses, Lines = drawn };
        }
        catch (RoutineException broken)
        {
            return new SliceResult(default, [], null, [BrokenRoutine.Of(broken)]);
        }
    }

    /// <summary>The program, run dry while it is written: its head is remarks alone, and gets its figures from the run. With the lines at
    /// which layers begin and where each line of plastic stands.</summary>
    private static (DryRunReport Run, IReadOnlyList<int> LayerLines, IReadOnlyList<LaidStretch> Laid) Written(SliceJob job,
        IReadOnlyList<LayerPlan> plans, CancellationToken stop)
    {
        var head = new ProgramHead(job, plans.Count);
        int[] lines = [], paths = [];
        LaidStretch[] laid = [];
        var warming = WarmingPlan.Hot;
        var run = Run(seconds: 0);
        if (job.NozzlesInUse.Count > 1 && WarmingPlan.Of(job, plans, run, paths) is { } planned)
        {
            warming = planned;
            run = Run(seconds: 0);
        }
        // only a routine that tells the time needs it before it is written
        if (RoutineMoment.All.Any(m => m.Of(job.Machine.Card.Routines)?.Contains("job.seconds", StringComparison.Ordinal) == true))
            run = Run(run.TotalSeconds);
        run.StandFor(head.Filled(run));
        return (run, lines, laid);

        DryRunReport Run(double seconds)
        {
            var growing = new BlockingCollection<ReadOnlyMemory<byte>>();
            var writer = new ProgramWriter(job, plans, seconds) { Warming = warming, Head = head.Open, Told = growing.Add };
            var running = new Task<DryRunReport>(() =>
                SimulatedMachine.Run(job.Machine, growing.GetConsumingEnumerable(stop), job.Filaments, stop), stop);
            _ = running.ContinueWith(_ => growing.Dispose(), TaskScheduler.Default);
            // beside the writer where a thread is free, else when it is waited for
            if (job.Threads != 1) running.Start(TaskScheduler.Current);
            try { writer.Write(stop); }
            finally { growing.CompleteAdding(); }
            if (job.Threads == 1) running.RunSynchronously();
            (lines, paths, laid) = ([.. writer.LayerLines], [.. writer.PathLines], [.. writer.Laid]);
            return running.GetAwaiter().GetResult();
        }
    }

    /// <summary>Parts larger by what the filament shrinks, in X and Y.</summary>
    private static SliceJob Grown(SliceJob job, CancellationToken stop) => job with
    {
        Parts = [.. job.Parts.Select(part =>
        {
            var shrinks = job.FilamentOf(job.Machine.NozzlesOf(part.Part.Nozzles) is [var nozzle, ..] ? nozzle : 0).Shrinkage ?? 0;
            if (shrinks == 0) return part;
            var scale = part.Part.Scale ?? new();
            var grown = part.Part with { Scale = scale with { X = scale.X / (1 - shrinks), Y = scale.Y / (1 - shrinks) } };
            var restsOn = new { Part = StageShelf.NumberOf(part.Mesh), grown.Scale, grown.Tilt, grown.Lift };
            return new PartToSlice(grown, part.Mesh, job.Shelf.Take("grown", restsOn,
                () => Stance.Of(grown).Stood(part.Mesh, stop), footprints => footprints.Bytes));
        })],
    };

    private static readonly Finding NoArcs = new("arcs-not-known", Severity.Note,
        "Curves are written as straight moves: the card does not say that its firmware knows G2 and G3.",
        "Arcs that a firmware does not know would be left out.", "/recipe/arcs");

    /// <summary>Parts of which nothing is laid, while others are.</summary>
    private static IEnumerable<Finding> Vanished(SliceJob job, List<LaidPart> parts) =>
        parts.Index().Where(p => p.Item.Layers.All(l => l.Walls.All(w => w.Count == 0) && l.Thin.Count == 0
            && l.Fill.All(f => f.Count == 0)))
            .Select(p => new Finding("nothing-of-part", Severity.Stop,
                $"Nothing is laid of {job.Parts[p.Index].Part.Name}: it is nowhere wide or high enough for a line.",
                "The print would come out without it.", JsonPointer.Root / "parts" / p.Index));

    /// <summary>What became of heights that were to lie on a rung, where it is not the nearest whole one.</summary>
    private static IEnumerable<Finding> HeightNotes(SliceJob job)
    {
        if (!job.Recipe.Layers.OnRung) yield break;
        var (others, first) = Ladder.Heights(job.Recipe.Layers, job.Machine.Card);
        foreach (var (height, pointer) in new[] { (others, "/recipe/layers/others"), (first, "/recipe/layers/first") })
            if (height is { Why: { } why, From: not (HeightFrom.NearestRung or HeightFrom.Rungs) })
                yield return new Finding("height-off-ladder", Severity.Note, why,
                    "On whole steps of Z every layer is as high as the others.", pointer);
    }

    /// <summary>A height set by hand as it is printed: on the ladder where the recipe's own are to be.</summary>
    private static double OnRung(SliceJob job, double height) =>
        Ladder.Heights(job.Recipe.Layers with { Others = height, Rungs = null }, job.Machine.Card).Others.Height!.Value;

    /// <summary>Lines that do not suit the nozzle that lays them.</summary>
    private static IEnumerable<Finding> MisfitNotes(SliceJob job)
    {
        var wishes = HeightWishes.Of(job, job.Parts, job.Recipe.Layers).Wishes;
        return job.NozzlesInUse.Select(n => job.Machine.Nozzles[n]).SelectMany((nozzle, n) =>
            NozzleBounds.Misfits(nozzle, Ladder.Resolved(job.Recipe, job.Machine.Card, job.NozzlesInUse[n]))
                .Select(m => (Misfit: m, Pointer: (string)(JsonPointer.Parse("/recipe") + JsonPointer.Parse(m.Asks))))
                .Concat(wishes.SelectMany(wish => NozzleBounds.Misfits(nozzle, new() { Layers = new() { Others = wish.Height } })
                    .Select(m => (Misfit: m, wish.Pointer)))))
            .DistinctBy(m => (m.Misfit.Code, m.Misfit.Said.Key))
            .Select(m => new Finding("lines-for-another-nozzle",
                m.Misfit.Weight == MisfitWeight.Unusual ? Severity.Note : Severity.Caution, m.Misfit.Said,
                "Lines are laid well only in some widths and heights of the nozzle's bore (common practice).", m.Pointer));
    }
}

using MillCard.Core.Clearance;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Reach;
using MillCard.Core.Rules.DryRunRules;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Writing;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing;

/// <summary>What forbids slicing a job: nothing to print, figures that cannot be, parts that do not fit.</summary>
internal static class SliceRefusals
{
    private static IEnumerable<Finding> Departing(SliceJob job)
    {
        foreach (var error in job.Parts.SelectMany((p, i) =>
            Departures.Apply(job.Recipe, p.Part.Settings, Departs.Part, JsonPointer.Root / "parts" / i / "settings").Errors)
            .Concat(job.Zones.SelectMany((z, i) =>
                Departures.Apply(job.Recipe, z.Zone.Settings, Departs.Zone, JsonPointer.Root / "zones" / i / "settings").Errors)))
            yield return new Finding("departure-refused", Severity.Stop, error.Message,
                "A part or a zone departs from the recipe in a way that cannot be.", error.Pointer)
            { Values = error.Values };
        foreach (var (index, part) in job.Parts.Index())
            if (job.InterfaceNozzleOf(part.Part) is var nozzle && nozzle >= job.Machine.Nozzles.Count)
                yield return NoSuchNozzle(index, part.Part, nozzle, job.Machine.Nozzles.Count);
        if (job.Sequence == Sequence.OneAtATime && job.Parts.Index().Where(p => p.Item.Part.Assembly is not null)
            .GroupBy(p => p.Item.Part.Assembly).FirstOrDefault(group => group.Count() > 1) is { } together)
            yield return new Finding("assembly-grows-together", Severity.Stop,
                $"{string.Join(", ", together.Select(p => p.Item.Part.Name))} belong together and are to be printed one at a time.",
                "Bodies of an assembly grow layer by layer beside each other: print all parts at once, or take the assembly apart.",
                "/sequence");
        var parts = job.Parts.Count;
        if (job.Recipe.Spiral && parts > 1 && job.Sequence == Sequence.AllAtOnce)
            yield return new Finding("spiral-needs-one-part", Severity.Stop,
                $"A spiral is one continuous wall; there are {parts} parts that grow together.",
                "Print them one at a time, or without the spiral.", "/recipe/spiral");
    }

    private static Finding NoSuchNozzle(int index, TrialPart part, int nozzle, int there)
    {
        const string setting = "/supports/interfaceNozzle";
        return new("nozzle-not-there", Severity.Stop,
            $"The interface of {part.Name}'s supports is to be laid by nozzle {nozzle + 1}; the card has {there}.",
            "There is nothing to lay it with.", part.Settings.ContainsKey(setting)
                ? JsonPointer.Root / "parts" / index / "settings" / setting : JsonPointer.Parse("/recipe") + JsonPointer.Parse(setting));
    }

    /// <summary>Everything that forbids slicing a job.</summary>
    public static IEnumerable<Finding> Of(SliceJob job, CancellationToken stop)
    {
        foreach (var finding in Nothing(job).Concat(Heights(job)).Concat(Departing(job)).Concat(Filaments(job))
            .Concat(WrittenStops.Refusals(job))) yield return finding;
        if (NotOnThisMachine(job) is { } missing) yield return missing;
        else foreach (var finding in Misplaced(job, stop)) yield return finding;
    }

    private static IEnumerable<Finding> Nothing(SliceJob job)
    {
        if (job.Parts.Count == 0)
            yield return new Finding("nothing-to-print", Severity.Stop, "There is no part on the bed.", "There is nothing to print.",
                "/parts");
    }

    private static IEnumerable<Finding> Heights(SliceJob job)
    {
        var (layers, width) = (job.Recipe.Layers, job.Recipe.LineWidth!.Value);
        if (job.Parts.Count > 0 && (job.Sequence == Sequence.AllAtOnce ? job.CommonPlaces().Length
            : job.Parts.Max(p => job.PlacesOf(p).Length)) > LayerHeights.Most)
            yield return new Finding("too-many-layers", Severity.Stop, $"This would be more than {LayerHeights.Most} layers.",
                "Use higher layers.", "/recipe/layers/others");
        foreach (var (i, band) in job.Heights.Index())
            if (band.To <= band.From)
                yield return new Finding("band-without-height", Severity.Stop,
                    $"Layers of {band.Height:0.###} mm are asked for from {band.From:0.##} mm up to {band.To:0.##}.",
                    "A band ends above its beginning.", JsonPointer.Root / "heights" / i / "to");
        var wishes = HeightWishes.Of(job, job.Parts, layers).Wishes.Select(wish => (wish.Height, wish.Pointer));
        foreach (var (height, pointer) in new[] { (layers.FirstHeight, "/recipe/layers/first"),
            (layers.Others!.Value, "/recipe/layers/others"), (layers.Range.Highest, "/recipe/layers/highest") }.Concat(wishes)
            .DistinctBy(h => h.Item1))
            if (height > width)
                yield return new Finding("line-higher-than-wide", Severity.Stop,
                    $"A line of {width:0.###} mm cannot be {height:0.###} mm high.",
                    "A line is at least as wide as it is high.", pointer);
    }

    private static IEnumerable<Finding> Filaments(SliceJob job)
    {
        foreach (var nozzle in job.NozzlesInUse)
            if (job.Machine.Nozzles[nozzle] is { FilamentDiameter: { } fed } one && job.FilamentOf(nozzle).Diameter is { } asks
                && FedDiameter.Differs(fed, asks))
                yield return FilamentDiameterMismatch.Of(one.Id, fed, asks, job.FilamentPointer(nozzle));
    }

    /// <summary>A mode or a nozzle that the machine does not have; where parts fit cannot be said then.</summary>
    private static Finding? NotOnThisMachine(SliceJob job)
    {
        if (job.Mode is { } mode && (!job.Machine.HasTwoCarriages || job.Machine.Card.Modes.All(m => m.Kind != mode.Kind)))
            return new Finding("no-such-mode", Severity.Stop, $"{job.Machine.Card.Name} has no mode of this kind.",
                "The card's modes say which ways to run its two carriages there are.", "/mode/kind");
        foreach (var (i, part) in job.Parts.Index())
            if (part.Part.Nozzles.FirstOrDefault(id => job.Machine.NozzleNamed(id) < 0) is { } id)
                return new Finding("no-such-nozzle", Severity.Stop,
                    $"{part.Part.Name} asks for nozzle {id}, which this machine does not have.",
                    "A part is printed by the nozzles of the card.", JsonPointer.Root / "parts" / i / "nozzles");
        return null;
    }

    private static IEnumerable<Finding> Misplaced(SliceJob job, CancellationToken stop)
    {
        foreach (var (i, fit) in new Fit(job.Machine, job.Recipe).Of(job.Standing, job.Mode, stop: stop).Index())
            foreach (var violation in fit.Violations)
                yield return new Finding("does-not-fit", Severity.Stop, $"{violation.Message}{Cure(fit, violation)}",
                    "It would be printed where the machine cannot or must not go.", JsonPointer.Root / "parts" / i);
    }

    private static Sentence? Cure(PartFit fit, Violation violation) => violation.Move is { } move
        ? Sentence.Of($" Moving it by X {move.X:0.###}, Y {move.Y:0.###} mm cures it.")
        : Sentence.When(fit.Searched && violation.Remedy is null, $" No move cures it.");

    /// <summary>What forbids printing its parts one at a time.</summary>
    public static IEnumerable<Finding> OneAtATime(SliceJob job, OrderResult order)
    {
        foreach (var cycle in order.Cycles)
        {
            var names = string.Join(", ", cycle.Select(i => job.Parts[i].Part.Name));
            var cure = order.Conflicts.Where(c => cycle.Contains(c.First) && cycle.Contains(c.Then) && c.Cure is not null)
                .MinBy(c => c.Cure!.Length);
            Sentence? how = null;
            if (cure is { Cure: { } move })
            {
                var (then, first) = (job.Parts[cure.Then].Part.Name, job.Parts[cure.First].Part.Name);
                how = Sentence.Of($" Moving {then} by X {move.X:0.###}, Y {move.Y:0.###} mm lets it be printed after {first}.");
            }
            yield return new Finding("no-order", Severity.Stop,
                $"There is no order in which {names} can be printed one at a time: whichever stands first, the head hits it.{how}",
                "The head would run into a finished part.", "/parts");
        }
        var reach = job.Machine.Card.Motion.Axes.Z?.Max ?? job.Machine.Card.Envelope.Height!.Value;
        if (job.Parts.Count > 1 && order.Order is not null && order.TravelHeight > reach + Plane.Touch)
            yield return new Finding("no-way-over", Severity.Stop,
                $"The nozzle has to pass {order.TravelHeight:0.##} mm high over the finished parts; Z goes up to {reach:0.##}.",
                "Between parts the head travels above the tallest finished one.", "/parts");
    }
}

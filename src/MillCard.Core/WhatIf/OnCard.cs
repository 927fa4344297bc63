using MillCard.Core.Clearance;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Core.WhatIf;

/// <summary>A trial on another card.</summary>
/// <param name="Job">What would be sliced there.</param>
/// <param name="Changed">What had to change for that, in sentences.</param>
public sealed record OnCard(SliceJob Job, IReadOnlyList<string> Changed)
{
    /// <summary>Most copies that are counted.</summary>
    private const int MostCopies = 200;

    /// <summary>Puts a trial on another card: its parts about the middle of that bed, or arranged anew where they do not fit so.</summary>
    /// <param name="job">The trial.</param>
    /// <param name="card">The other card, complete.</param>
    /// <param name="stop">Ends the computation.</param>
    public static OnCard Of(SliceJob job, Card card, CancellationToken stop = default)
    {
        var (machine, changed) = (Machine.Of(card), new List<string>());
        var mode = job.Mode is { } use && machine.HasTwoCarriages && card.Modes.Any(m => m.Kind == use.Kind) ? use : null;
        if (job.Mode is not null && mode is null) changed.Add("Its mode of two carriages is left out.");
        var parts = job.Parts.Select(p => p with { Part = p.Part with { Nozzles = Known(p.Part.Nozzles) } }).ToArray();
        foreach (var id in job.Parts.SelectMany(p => p.Part.Nozzles).Distinct().Where(id => machine.NozzleNamed(id) < 0))
            changed.Add($"There is no nozzle {id}: what it prints is printed by "
                + $"{(card.Head.Nozzles is [var first, ..] ? first.Id : "the first")}.");
        var (dx, dy) = (Middle(machine).X - Middle(job.Machine).X, Middle(machine).Y - Middle(job.Machine).Y);
        var zones = job.Zones.Select(z => z with { Zone = z.Zone with { X = z.Zone.X + dx, Y = z.Zone.Y + dy } }).ToArray();
        parts = [.. parts.Select(p => p with { Part = p.Part with { X = p.Part.X + dx, Y = p.Part.Y + dy } })];
        var moved = job with
        {
            Machine = machine,
            Mode = mode,
            Zones = zones,
            Parts = parts,
            Loaded = job.Loaded.Where(held => machine.NozzleNamed(held.Key) >= 0).ToDictionary(),
        };
        // zones lie where they are wanted of a part: parts that leave them would not have them any more
        if (zones.Length > 0 || Fits(moved, stop)) return new(moved, changed);
        var places = Arrangement.Of(machine, job.Recipe, moved.Standing, new HashSet<int>(), mayTurn: true, job.Sequence, mode, stop);
        if (places.Any(place => place is null)) return new(moved, changed);
        changed.Add("The parts are arranged anew.");
        return new(moved with { Parts = [.. parts.Zip(places, (part, place) => At(part, place!))] }, changed);

        IReadOnlyList<string> Known(IReadOnlyList<string> ids) => [.. ids.Where(id => machine.NozzleNamed(id) >= 0)];
    }

    /// <summary>How often a trial's only part goes onto the bed, 200 at most; null where it has several.</summary>
    /// <param name="stop">Ends the computation.</param>
    public int? PerBed(CancellationToken stop = default)
    {
        if (Job.Parts.Count != 1) return null;
        // where it lies now it may be in the way of others
        var first = Arrangement.Of(Job.Machine, Job.Recipe, Job.Standing, new HashSet<int>(), mayTurn: true, Job.Sequence, Job.Mode,
            stop)[0];
        if (first is null) return null;
        StandingPart[] one = [Job.Standing[0] with { X = first.X, Y = first.Y, Turn = first.Turn }];
        return 1 + Arrangement.More(Job.Machine, Job.Recipe, one, 0, MostCopies - 1, Job.Sequence, Job.Mode, stop).Count;
    }

    private static bool Fits(SliceJob job, CancellationToken stop) =>
        new Fit(job.Machine, job.Recipe).Of(job.Standing, job.Mode, Cures.LeftOut, stop).All(fit => fit.Fits);

    private static PartToSlice At(PartToSlice part, Place place) =>
        part with { Part = part.Part with { X = place.X, Y = place.Y, Turn = place.Turn } };

    private static (double X, double Y) Middle(Machine machine) =>
        machine.Bed.EnvelopeInternal.Centre is { } centre ? (centre.X, centre.Y) : default;
}

using MillCard.Core.DryRun;
using MillCard.Core.Flow;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing;

/// <summary>What plastic is used for.</summary>
public enum PlasticUse
{
    /// <summary>The parts themselves.</summary>
    Parts,
    /// <summary>Supports and their interface.</summary>
    Supports,
    /// <summary>Skirt, brim and raft.</summary>
    Foot,
    /// <summary>Where nozzles prime after a change.</summary>
    Tower,
    /// <summary>The wall that catches what drips.</summary>
    Shield,
    /// <summary>What routines feed: priming, purging, prime lines.</summary>
    Routines,
}

/// <summary>Plastic that goes into one use.</summary>
/// <param name="Use">Which.</param>
/// <param name="Filament">mm.</param>
/// <param name="Grams">Mass; null where it is not known of a filament that is used.</param>
/// <param name="Cost">In the owner's money; null where it is not known of a filament that is used.</param>
public sealed record PlasticUsed(PlasticUse Use, double Filament, double? Grams, double? Cost)
{
    /// <summary>Less than this is what nozzles hold back at the end, mm of filament a nozzle.</summary>
    private const double HeldBack = 10;

    /// <summary>The uses of a program that was sliced, in their order; without those that take nothing.</summary>
    internal static IReadOnlyList<PlasticUsed> Of(SliceJob job, IReadOnlyList<LayerPlan> plans, DryRunReport run)
    {
        var laid = plans.SelectMany(l => l.Paths.Select(p => (Use: UseOf(p.Kind), p.Nozzle, Volume: p.VolumeAt(l.Place.Height))))
            .GroupBy(p => (p.Use, p.Nozzle), (key, p) => (key.Use, key.Nozzle, Length: job.Copies * LengthOf(job, key.Nozzle,
                p.Sum(v => v.Volume)))).ToList();
        var spent = Spent.Of(run, job.Machine.Card, job.Filaments, job.Copies).ByNozzle;
        foreach (var nozzle in job.NozzlesInUse)
            if (spent[nozzle].Filament - laid.Where(l => l.Nozzle == nozzle).Sum(l => l.Length) is var rest && rest > HeldBack)
                laid.Add((PlasticUse.Routines, nozzle, rest));
        return [.. laid.GroupBy(l => l.Use).OrderBy(g => g.Key).Select(g =>
        {
            var worth = g.Select(l => Spent.WorthOf(l.Length, job.FilamentOf(l.Nozzle))).ToArray();
            return new PlasticUsed(g.Key, g.Sum(l => l.Length), Sum(worth.Select(w => w.Grams)), Sum(worth.Select(w => w.Cost)));
        })];

        static double? Sum(IEnumerable<double?> of) => of.Aggregate((double?)0, (a, b) => a + b);
    }

    private static double LengthOf(SliceJob job, int nozzle, double volume)
    {
        var filament = job.FilamentOf(nozzle);
        return volume * (filament.Flow ?? 1) / ExtrudedLine.FilamentArea(filament.Diameter!.Value);
    }

    private static PlasticUse UseOf(PathKind kind) => kind switch
    {
        PathKind.Support or PathKind.Interface => PlasticUse.Supports,
        PathKind.Skirt or PathKind.Brim or PathKind.Raft => PlasticUse.Foot,
        PathKind.Tower => PlasticUse.Tower,
        PathKind.Shield => PlasticUse.Shield,
        _ => PlasticUse.Parts,
    };
}

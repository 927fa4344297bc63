using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Slicing.Jobs;

/// <summary>Which fans cool what a nozzle prints, by the firmware's numbers.</summary>
internal static class PartFans
{
    /// <summary>One fan as the program tells it.</summary>
    /// <param name="Number">The firmware's number for it; 0 for the one that needs none.</param>
    /// <param name="Name">The card's.</param>
    public readonly record struct Told(int Number, string Name);

    /// <summary>The part and side fans that a nozzle names; the firmware's first where it names none.</summary>
    public static IReadOnlyList<Told> Of(Machine machine, int nozzle)
    {
        Told[] named = nozzle >= machine.Nozzles.Count ? [] : [.. machine.Card.Head.Fans
            .Where(f => f.Kind == FanKind.Part || f is { Kind: FanKind.Side, Number: not null })
            .Where(f => machine.Nozzles[nozzle].Fans.Contains(f.Id)).Select(f => new Told(f.Number ?? 0, f.Id))
            .DistinctBy(f => f.Number)];
        return named.Length > 0 ? named : [new Told(0, "")];
    }

    /// <summary>Fans that have to run while a nozzle prints, with their shares: in copy and mirror the second nozzle's own too.</summary>
    /// <param name="job">The job.</param>
    /// <param name="nozzle">Index of the nozzle.</param>
    /// <param name="share">What its own are to run at.</param>
    public static IEnumerable<(Told Fan, double Share)> Running(SliceJob job, int nozzle, double share)
    {
        var own = Of(job.Machine, nozzle);
        foreach (var fan in own) yield return (fan, share);
        if (job.Mode?.Kind is not (ModeKind.Copy or ModeKind.Mirror) || nozzle != 0) yield break;
        foreach (var fan in OnlySecond(job.Machine)) yield return (fan, share > 0 ? Math.Round(OfSecond(job, share), 2) : 0);
    }

    /// <summary>The fans of the second nozzle that the first does not share.</summary>
    public static IEnumerable<Told> OnlySecond(Machine machine) =>
        Of(machine, 1).Where(f => Of(machine, 0).All(o => o.Number != f.Number));

    /// <summary>Share of the second nozzle's fan in copy and mirror: the trial's, else its own filament's, else as the first's.</summary>
    public static double OfSecond(SliceJob job, double first) =>
        job.Mode?.Fan ?? (ReferenceEquals(job.FilamentOf(1), job.FilamentOf(0)) ? first : job.FilamentOf(1).Fan.Share);

    /// <summary>Whether a dialect can tell a fan.</summary>
    public static bool CanTell(Flavour flavour, Told fan) => fan.Number == 0 || flavour.Spellings.ContainsKey("fan-of");
}

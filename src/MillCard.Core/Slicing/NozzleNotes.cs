using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Routines;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Wording;

namespace MillCard.Core.Slicing;

/// <summary>What is to be said of a job because several nozzles print in it.</summary>
internal static class NozzleNotes
{
    /// <summary>Bed temperatures nearer to each other than this are as good as the same, °C; common practice, no source.</summary>
    public const double SameBed = 5;

    /// <summary>Farther apart than this the bed is wrong for one of them, °C; common practice, no source.</summary>
    private const double FarApart = 15;

    /// <summary>Two filaments that want beds of their own, and fans that the program cannot tell.</summary>
    public static IEnumerable<Finding> Of(SliceJob job) => [.. Beds(job), .. Fans(job)];

    private static IEnumerable<Finding> Beds(SliceJob job)
    {
        if (job.Machine.Card.Envelope.Heated != true || job.NozzlesInUse.Count < 2) yield break;
        var (least, most) = (job.NozzlesInUse.MinBy(n => job.FilamentOf(n).Bed.First),
            job.NozzlesInUse.MaxBy(n => job.FilamentOf(n).Bed.First));
        var (cool, warm) = (job.FilamentOf(least), job.FilamentOf(most));
        if (warm.Bed.First - cool.Bed.First is var apart && apart <= SameBed) yield break;
        yield return new Finding("beds-differ", apart > FarApart ? Severity.Caution : Severity.Note,
            BedSentence(cool, job.Machine.Nozzles[least].Id, warm, job.Machine.Nozzles[most].Id),
            "On a warmer bed than it wants a filament stays soft at its foot; on a colder one it lets go.", job.FilamentPointer(least));
    }

    /// <summary>What two filaments want of one bed, and what it gets.</summary>
    internal static Sentence BedSentence(Filament cool, string coolNozzle, Filament warm, string warmNozzle)
    {
        var (colder, warmer) = (cool.Bed.First, warm.Bed.First);
        return Sentence.Of($"{cool.Name} in {coolNozzle} wants a bed of {colder:0} °C, {warm.Name} in {warmNozzle} one of {warmer:0}: "
            + $"it is heated to {warmer:0} °C.");
    }

    private static IEnumerable<Finding> Fans(SliceJob job)
    {
        var flavour = Flavour.Of(job.Machine.Flavour);
        var told = job.NozzlesInUse.SelectMany(n => PartFans.Of(job.Machine, n)).Where(f => !PartFans.CanTell(flavour, f))
            .DistinctBy(f => f.Number);
        foreach (var fan in told)
            yield return new Finding("fan-not-told", Severity.Caution,
                $"The program cannot switch the fan {fan.Name}: {flavour.Name} has no command for fan {fan.Number}.",
                "What its nozzle lays is not cooled, unless the owner's lines see to it.", "/card/head/fans");
        if (job.Mode is not { Kind: ModeKind.Copy or ModeKind.Mirror, Fan: { } share } || PartFans.OnlySecond(job.Machine).Any()
            || RoutineMoment.All.Any(m => job.TextOf(m).Text?.Contains("mode.fan", StringComparison.Ordinal) == true))
            yield break;
        var percent = 100 * share;
        yield return new Finding("second-fan-not-set", Severity.Caution,
            $"The second nozzle's fan is to run at {percent:0} %; the card names none of its own for it, and no routine "
                + $"uses mode.fan.",
            "It runs as the first one does, or not at all.", "/mode/fan");
    }
}

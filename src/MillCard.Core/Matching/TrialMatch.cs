using MillCard.Core.Documents;
using MillCard.Core.Slicing;

namespace MillCard.Core.Matching;

/// <summary>A nozzle that prints in a trial, with what is in it.</summary>
/// <param name="Index">Index of the nozzle on the card.</param>
/// <param name="Filament">What is in it; null where that is not chosen yet.</param>
public sealed record NozzleInUse(int Index, Filament? Filament);

/// <summary>Whether what a trial wants goes with a card: every nozzle that prints, with the filament in it.</summary>
public static class TrialMatch
{
    /// <summary>All nozzles in use must suit what they hold.</summary>
    /// <param name="card">Any card; what it does not say is a caution.</param>
    /// <param name="used">The nozzles that print; each within the card's.</param>
    /// <param name="recipe">The settings; null for none.</param>
    /// <param name="mode">The mode of two carriages; null for none.</param>
    public static Match Of(Card card, IReadOnlyList<NozzleInUse> used, Recipe? recipe, ModeUse? mode)
    {
        var several = card.Head.Nozzles?.Count > 1;
        var reasons = used.SelectMany(nozzle => Of(card, nozzle, recipe).Select(reason => several
            ? reason.OfNozzle(card.Head.Nozzles![nozzle.Index].Id) : reason));
        return Match.Of([.. reasons.DistinctBy(r => r.Identity), .. Beds(card, used), .. Warmer(card, used, mode)]);
    }

    private static IEnumerable<Reason> Of(Card card, NozzleInUse nozzle, Recipe? recipe) =>
    [
        .. nozzle.Filament is { } filament ? FilamentMatch.Of(card, nozzle.Index, filament).Reasons : [],
        .. recipe is null ? [] : RecipeMatch.Of(card, nozzle.Index, recipe, nozzle.Filament).Reasons,
    ];

    /// <summary>One bed for filaments that want two.</summary>
    private static IEnumerable<Reason> Beds(Card card, IReadOnlyList<NozzleInUse> used)
    {
        NozzleInUse[] held = [.. used.Where(n => n.Filament is not null)];
        if (held.Length < 2 || card.Envelope.Heated != true) yield break;
        var (cool, warm) = (held.MinBy(n => n.Filament!.Bed.First)!, held.MaxBy(n => n.Filament!.Bed.First)!);
        if (warm.Filament!.Bed.First - cool.Filament!.Bed.First <= NozzleNotes.SameBed) yield break;
        var (a, b) = (card.Head.Nozzles![cool.Index].Id, card.Head.Nozzles[warm.Index].Id);
        yield return new("beds-differ", Verdict.FitsWithCautions, NozzleNotes.BedSentence(cool.Filament, a, warm.Filament, b), "/bed/first",
            "/envelope/heated");
    }

    /// <summary>In copy and mirror the second nozzle is as much hotter than the first as the trial says.</summary>
    private static IEnumerable<Reason> Warmer(Card card, IReadOnlyList<NozzleInUse> used, ModeUse? mode)
    {
        if (mode is not { Kind: ModeKind.Copy or ModeKind.Mirror, Warmer: { } warmer } || card.Head.Nozzles is not [_, { } second, ..]
            || used.FirstOrDefault(n => n.Index == 0)?.Filament is not { } filament
            || new[] { filament.Nozzle.First, filament.Nozzle.Others }.Max() is not { } first)
            yield break;
        var (comes, colder) = (first + warmer, -warmer);
        if (second.MaxTemperature is { } most && comes > most)
            yield return new("warmer-than-rated", Verdict.DoesNotFit,
                $"{second.Id} is to be {warmer:0.###} °C hotter than {card.Head.Nozzles[0].Id}: {comes:0} °C; its hot end is rated for "
                    + $"{most:0} °C.",
                "/nozzle/first", "/head/nozzles/1/maxTemperature");
        else if (filament.Nozzle.Others is { } others && others + warmer < 0)
            yield return new("colder-than-nothing", Verdict.DoesNotFit,
                $"{second.Id} cannot be {colder:0.###} °C colder than {others:0} °C.", "/nozzle/first");
    }
}

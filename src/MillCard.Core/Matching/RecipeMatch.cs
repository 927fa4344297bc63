using MillCard.Core.Documents;
using MillCard.Core.Motion;
using static MillCard.Core.Matching.FilamentMatch;

namespace MillCard.Core.Matching;

/// <summary>Whether a card can print by a recipe: widths, heights, ladder, speeds, flow, retraction.</summary>
public static class RecipeMatch
{
    /// <summary>With the nozzle of the card that suits it best.</summary>
    /// <param name="card">Any card; what it does not say is a caution.</param>
    /// <param name="recipe">Any recipe.</param>
    /// <param name="filament">What is printed; null for none in particular.</param>
    public static Match Of(Card card, Recipe recipe, Filament? filament = null) =>
        Match.Best((card.Head.Nozzles ?? []).Select((n, i) => Of(card, i, recipe, filament))
        .DefaultIfEmpty(Match.Of([new Reason("nozzles-unsaid", Verdict.FitsWithCautions,
            "This card does not say which nozzle it has.", "/lineWidth",
        "/head/nozzles")])));

    /// <summary>With one nozzle of the card.</summary>
    public static Match Of(Card card, int index, Recipe recipe, Filament? filament)
    {
        var here = Ladder.Resolved(recipe, card, index);
        return Match.Of([.. SizesMatch.Of(card, index, recipe, here), .. SpeedsMatch.Of(card, index, here, filament),
            .. Feed(card, index, here), .. Interface(card, recipe),
            .. NeedsMatch.Of(card, index, recipe.Needs)]);
    }

    private static IEnumerable<Reason> Interface(Card card, Recipe recipe)
    {
        if (recipe.Supports is { Pattern: not SupportPattern.None, InterfaceLayers: > 0, InterfaceNozzle: { } number }
            && card.Head.Nozzles is { Count: var there } && number > there)
            yield return new("nozzle-of-interface", Verdict.DoesNotFit,
                $"The interface of its supports is laid by nozzle {number}; this machine has {there}.",
                "/supports/interfaceNozzle", "/head/nozzles");
    }

    private static IEnumerable<Reason> Feed(Card card, int index, Recipe here)
    {
        if (here.Retraction.Length is { } length && card.Head.Nozzles![index].Feed?.Kind is { } kind && Unusual(length, kind) is { } why)
            yield return new("retraction-for-feed", Verdict.FitsWithCautions,
                why, "/retraction/length", JsonPointer.Nozzle(index) / "feed");
    }
}

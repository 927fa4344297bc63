using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Motion;
using MillCard.Core.Slicing.Paths;
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
        .DefaultIfEmpty(Match.Of([new Reason(Verdict.FitsWithCautions, "This card does not say which nozzle it has.", "/lineWidth",
        "/head/nozzles")])));

    /// <summary>With one nozzle of the card.</summary>
    public static Match Of(Card card, int index, Recipe recipe, Filament? filament)
    {
        var here = Ladder.Resolved(recipe, card, index);
        return Match.Of([.. Sizes(card, index, recipe, here), .. Speeds(card, index, here, filament), .. Feed(card, index, here),
            .. NeedsMatch.Of(card, index, recipe.Needs)]);
    }

    private static IEnumerable<Reason> Sizes(Card card, int index, Recipe recipe, Recipe here)
    {
        var (nozzle, at) = (card.Head.Nozzles![index], JsonPointer.Nozzle(index));
        if (here.LineWidth is null) yield return new(Verdict.DoesNotFit, recipe.LineWidthOfNozzle is null
            ? "It does not say how wide its lines are."
            : "Its lines are a share of the nozzle, and the card does not say how wide that is.", "/lineWidth", at / "diameter");
        if (here.Layers.Others is null) yield return new(Verdict.DoesNotFit, recipe.Layers.Rungs is null
            ? "It does not say how high its layers are."
                : "It counts its layers in rungs, and this card's ladder is not known; it says no height in mm.", "/layers/others",
                "/motion/axes/z/drive")
        { Remedy = AboutOnRung(card, nozzle, recipe) };
        foreach (var misfit in NozzleBounds.Misfits(nozzle, here))
            yield return new(misfit.Weight == MisfitWeight.Impossible ? Verdict.DoesNotFit : Verdict.FitsWithCautions, misfit.Message,
                misfit.Asks, at / "diameter", misfit.Weight == MisfitWeight.Bad)
            {
                Remedy = misfit.Asks.StartsWith("/layers/", StringComparison.Ordinal) ? AboutOnRung(card, nozzle, recipe) : null,
            };
        if (recipe.Layers.OnRung && Ladder.Heights(recipe.Layers, card, index).Others is { From: HeightFrom.LadderTooCoarse, Why: { } why })
            yield return new(Verdict.Fits, why, "/layers/onRung", "/motion/axes/z/drive");
        if (here.Layers.Others is { } height && here.LineWidth < height)
            yield return new(Verdict.DoesNotFit, $"A line of {Say(here.LineWidth.Value)} mm cannot be {Say(height)} mm high.",
            "/layers/others");
        if (!recipe.Layers.OnRung && Ladder.Of(card) is { } ladder && here.Layers.Others is { } layer
            && ladder.PlaceOf(layer) == LadderPlace.Between)
            yield return new(Verdict.FitsWithCautions,
                $"Layers of {Say(layer)} mm fall between the steps of Z; {Say(ladder.Nearest(layer).Height)} mm is the nearest rung.",
                "/layers/others", "/motion/axes/z/drive");
        if (recipe.NozzleChanges.Tower > 0 && card.Head.Nozzles!.Count < 2)
            yield return new(Verdict.FitsWithCautions, "It has a tower to prime on; this machine has one nozzle and does not need it.",
            "/nozzleChanges/tower", "/head/nozzles");
    }

    /// <summary>A recipe that counts rungs says about how many mm instead: its own, or half the nozzle.</summary>
    private static Remedy? AboutOnRung(Card card, Nozzle nozzle, Recipe recipe)
    {
        if (recipe.Layers is { Rungs: null, FirstRungs: null } || nozzle.Diameter is not { } bore) return null;
        var layers = recipe.Layers;
        var about = layers.Others ?? Math.Round(bore / 2, 2);
        var edits = new List<Edit> { Edit.Fact("/layers/others", about), Edit.Fact("/layers/onRung", true),
            Edit.Fact("/layers/rungs", null) };
        if (layers.FirstRungs is not null)
            edits.AddRange([Edit.Fact("/layers/first", layers.First ?? Math.Round(0.6 * bore, 2)), Edit.Fact("/layers/firstRungs", null)]);
        var there = SettledHeight.Of(about, null, true, Ladder.Of(card), bore);
        return new(Invariant($"about {about:0.###} mm, on a rung: {there.Height:0.####} mm here"), edits);
    }

    private static IEnumerable<Reason> Speeds(Card card, int index, Recipe here, Filament? filament)
    {
        if (here.LineWidth is null || here.Layers.Others is not { } height) yield break;
        var capped = new List<(PathKind Kind, double Asks, SpeedCeiling Ceiling)>();
        foreach (var kind in new[] { PathKind.OuterWall, PathKind.InnerWall, PathKind.Solid, PathKind.Infill })
        {
            var ceiling = SpeedCeiling.Of(card, card.Head.Nozzles![index], filament, here.WidthOf(kind, false), height);
            if (here.SpeedOf(kind) > ceiling.Speed + 0.05) capped.Add((kind, here.SpeedOf(kind), ceiling));
        }
        if (capped.Count == 0) yield break;
        var (slowest, asks, limit) = capped.MaxBy(c => c.Asks / c.Ceiling.Speed);
        yield return new(Verdict.FitsWithCautions, $"It asks for {Say(asks)} mm/s; {Words(limit.By)} "
            + $"allow{(limit.By is CeilingBy.Axis ? "" : "s")} {limit.Speed:0.#} in its lines of "
            + $"{Say(here.WidthOf(slowest, false))} × {Say(height)} mm. The rest is slowed "
            + $"down.", $"/speeds/{char.ToLowerInvariant(slowest.ToString()[0])}{slowest.ToString()[1..]}", limit.By == CeilingBy.HotEnd
                ? (string)(JsonPointer.Nozzle(index) / "maxFlow") : null);
    }

    private static string Words(CeilingBy by) => by switch
    {
        CeilingBy.Axis => "the axes",
        CeilingBy.FilamentDrive => "the filament drive",
        CeilingBy.HotEnd => "the hot end",
        CeilingBy.Filament => "the filament",
        _ => "the board's step rate",
    };

    private static IEnumerable<Reason> Feed(Card card, int index, Recipe here)
    {
        if (here.Retraction.Length is { } length && card.Head.Nozzles![index].Feed?.Kind is { } kind && Unusual(length, kind) is { } why)
            yield return new(Verdict.FitsWithCautions, why, "/retraction/length", JsonPointer.Nozzle(index) / "feed");
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Flow;
using MillCard.Core.Motion;

namespace MillCard.Core.Matching;

/// <summary>Whether a nozzle and a ladder suit the widths and heights of a recipe.</summary>
internal static class SizesMatch
{
    /// <param name="card">The card.</param>
    /// <param name="index">Which of its nozzles.</param>
    /// <param name="recipe">The recipe as it is written.</param>
    /// <param name="here">The recipe as this nozzle and ladder make of it.</param>
    public static IEnumerable<Reason> Of(Card card, int index, Recipe recipe, Recipe here) =>
        [.. Unsaid(card, index, recipe, here), .. Misfits(card, index, recipe, here), .. Ladders(card, index, recipe, here),
            .. Towers(card, recipe)];

    private static IEnumerable<Reason> Unsaid(Card card, int index, Recipe recipe, Recipe here)
    {
        if (here.LineWidth is null)
            yield return new("line-width-unsaid", Verdict.DoesNotFit,
                recipe.LineWidthOfNozzle is null ? "It does not say how wide its lines are."
                : "Its lines are a share of the nozzle, and the card does not say how wide that is.", "/lineWidth",
                JsonPointer.Nozzle(index) / "diameter");
        if (here.Layers.Others is null)
            yield return new("layer-height-unsaid", Verdict.DoesNotFit,
                recipe.Layers.Rungs is null ? "It does not say how high its layers are."
                : "It counts its layers in rungs, and this card's ladder is not known; it says no height in mm.", "/layers/others",
                "/motion/axes/z/drive")
            { Remedy = AboutOnRung(card, index, recipe) };
    }

    private static IEnumerable<Reason> Misfits(Card card, int index, Recipe recipe, Recipe here)
    {
        foreach (var misfit in NozzleBounds.Misfits(card.Head.Nozzles![index], here))
            yield return new(misfit.Code, misfit.Weight == MisfitWeight.Impossible ? Verdict.DoesNotFit : Verdict.FitsWithCautions,
                misfit.Said, misfit.Asks, JsonPointer.Nozzle(index) / "diameter", misfit.Weight == MisfitWeight.Bad)
            {
                Remedy = JsonPointer.Parse(misfit.Asks).IsWithin("/layers") ? AboutOnRung(card, index, recipe) : null,
            };
        if (here.Layers.Others is { } height && here.LineWidth < height)
            yield return new("higher-than-wide", Verdict.DoesNotFit,
                $"A line of {here.LineWidth:0.###} mm cannot be {height:0.###} mm high.",
                "/layers/others");
    }

    private static IEnumerable<Reason> Ladders(Card card, int index, Recipe recipe, Recipe here)
    {
        if (recipe.Layers.OnRung)
        {
            if (Ladder.Heights(recipe.Layers, card, index).Others is { From: HeightFrom.LadderTooCoarse, Why: { } why })
                yield return new("ladder-too-coarse", Verdict.Fits, why, "/layers/onRung", "/motion/axes/z/drive");
        }
        else if (Ladder.Of(card) is { } ladder && here.Layers.Others is { } layer && ladder.PlaceOf(layer) == LadderPlace.Between
            && ladder.Nearest(layer).Height is var nearest)
            yield return new("off-ladder", Verdict.FitsWithCautions,
                $"Layers of {layer:0.###} mm fall between the steps of Z; {nearest:0.###} mm is the nearest rung.",
                "/layers/others", "/motion/axes/z/drive");
    }

    private static IEnumerable<Reason> Towers(Card card, Recipe recipe)
    {
        if (recipe.NozzleChanges.Tower > 0 && card.Head.Nozzles!.Count < 2)
            yield return new("tower-not-needed", Verdict.FitsWithCautions,
                "It has a tower to prime on; this machine has one nozzle and does not need it.",
                "/nozzleChanges/tower", "/head/nozzles");
    }

    /// <summary>A recipe that counts rungs says about how many mm instead: its own, or half the nozzle.</summary>
    private static Remedy? AboutOnRung(Card card, int index, Recipe recipe)
    {
        if (recipe.Layers is { Rungs: null, FirstRungs: null } || card.Head.Nozzles![index].Diameter is not { } bore) return null;
        var layers = recipe.Layers;
        var about = layers.Others ?? Math.Round(bore / 2, 2);
        var edits = new List<Edit> { Edit.Fact("/layers/others", about), Edit.Fact("/layers/onRung", true),
            Edit.Fact("/layers/rungs", null) };
        if (layers.FirstRungs is not null)
            edits.AddRange([Edit.Fact("/layers/first", layers.First ?? Math.Round(0.6 * bore, 2)), Edit.Fact("/layers/firstRungs", null)]);
        var there = SettledHeight.Of(about, null, onRung: true, Ladder.Of(card), bore);
        return new(Invariant($"about {about:0.###} mm, on a rung: {there.Height:0.####} mm here"), edits);
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Wording;

namespace MillCard.Core.Motion;

/// <summary>A layer height on the ladder.</summary>
/// <param name="Height">mm.</param>
/// <param name="HalfSteps">Half steps of the motor to a layer; even for whole steps.</param>
public sealed record Rung(double Height, int HalfSteps)
{
    /// <summary>Whether it falls on whole steps.</summary>
    public bool Whole => HalfSteps % 2 == 0;
}

/// <summary>The layer heights that fall on whole or half motor steps of Z.</summary>
/// <param name="FullStep">Way of one full step of Z, mm: lead · α / 360.</param>
/// <param name="Microsteps">Microsteps to a full step; null where nobody has said.</param>
public sealed record Ladder(double FullStep, int? Microsteps)
{
    /// <summary>A height within this of a rung lies on it, mm.</summary>
    public const double On = 0.0005;

    /// <summary>The ladder of a card; null where the drive of Z is not known. On a delta it is that of one tower (common
    /// practice).</summary>
    public static Ladder? Of(Card card) => Drives.FullStep(card.Motion.Axes.Z?.Drive) is { } step && step > 0
        ? new Ladder(step, card.Motion.Axes.Z!.Drive!.Microsteps) : null;

    /// <summary>Rungs from one height to another, both included.</summary>
    /// <param name="from">mm.</param>
    /// <param name="to">mm.</param>
    /// <param name="halves">Whether half steps count too.</param>
    /// <param name="most">Most rungs; where there are more, none but whole steps, then every other one and so on.</param>
    public IReadOnlyList<Rung> Between(double from, double to, bool halves = false, int most = 200)
    {
        var every = halves ? 1 : 2;
        while ((to - from) / (FullStep * every / 2) > most) every *= 2;
        var first = Math.Max(1, (int)Math.Ceiling((from - On) / (FullStep * every / 2)));
        var rungs = new List<Rung>();
        for (var k = first; k * every * FullStep / 2 <= to + On; k++)
            rungs.Add(new Rung(Math.Round(k * every * FullStep / 2, 6), k * every));
        return rungs;
    }

    /// <summary>The whole-step rung nearest to a height; at least the first.</summary>
    [Formula("Layer height on whole steps", "h = k·s",
        "Elementary geometry.", Where = "k a whole number, s way of one full step of Z")]
    public Rung Nearest(double height)
    {
        var steps = Math.Max(1, (int)Math.Round(height / FullStep));
        return new Rung(Math.Round(steps * FullStep, 6), 2 * steps);
    }

    /// <summary>Whether a height falls on whole steps, on half steps, or between.</summary>
    public LadderPlace PlaceOf(double height)
    {
        bool On(double step) => Math.Abs(height / step - Math.Round(height / step)) * step <= Ladder.On;
        if (On(FullStep)) return LadderPlace.WholeSteps;
        return On(FullStep / 2) ? LadderPlace.HalfSteps : LadderPlace.Between;
    }

    /// <summary>A recipe with its heights and its line width in mm for this machine: where it counts rungs, or shares of the nozzle, they
    /// go before mm; where its mm are to lie on a rung, they do.</summary>
    /// <param name="recipe">Any recipe.</param>
    /// <param name="card">The machine.</param>
    /// <param name="nozzle">Index of the nozzle that prints.</param>
    public static Recipe Resolved(Recipe recipe, Card card, int nozzle = 0)
    {
        var bore = nozzle < card.Head.Nozzles?.Count ? card.Head.Nozzles[nozzle].Diameter : null;
        if (recipe.LineWidthOfNozzle is { } share && bore is { } diameter)
            recipe = recipe with { LineWidth = Math.Round(share * diameter, 4) };
        var (others, first) = Heights(recipe.Layers, card, nozzle);
        return recipe with { Layers = recipe.Layers with { Others = others.Height, First = first.Height } };
    }

    /// <summary>The heights of a recipe's layers on a machine, of the first one apart: null there where nothing is said of it.</summary>
    /// <param name="layers">What the recipe says.</param>
    /// <param name="card">The machine.</param>
    /// <param name="nozzle">Index of the nozzle that prints.</param>
    public static (SettledHeight Others, SettledHeight First) Heights(LayerSizes layers, Card card, int nozzle = 0)
    {
        var (ladder, bore) = (Of(card), nozzle < card.Head.Nozzles?.Count ? card.Head.Nozzles[nozzle].Diameter : null);
        return (SettledHeight.Of(layers.Others, layers.Rungs, layers.OnRung, ladder, bore),
            SettledHeight.Of(layers.First, layers.FirstRungs, layers.OnRung, ladder, bore));
    }
}

/// <summary>Where a height falls.</summary>
public enum LadderPlace
{
    /// <summary>On whole steps.</summary>
    WholeSteps,
    /// <summary>On half steps.</summary>
    HalfSteps,
    /// <summary>Between steps.</summary>
    Between,
}

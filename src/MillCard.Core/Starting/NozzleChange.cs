using System.Globalization;
using MillCard.Core.Documents;
using MillCard.Core.Flow;

namespace MillCard.Core.Starting;

/// <summary>One figure before and after a change of nozzle.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Before">With its unit.</param>
/// <param name="After">With its unit.</param>
public sealed record ChangedFigure(string Name, string Before, string After);

/// <summary>One way in which a recipe's lines do not suit a nozzle.</summary>
/// <param name="Message">A sentence with the numbers.</param>
/// <param name="Asks">Pointer of the recipe's setting.</param>
/// <param name="Weight">How much it weighs.</param>
public sealed record Misfit(string Message, string Asks, MisfitWeight Weight);

/// <summary>How much a misfit weighs.</summary>
public enum MisfitWeight
{
    /// <summary>It prints, less well.</summary>
    Unusual,
    /// <summary>It prints badly.</summary>
    Bad,
    /// <summary>It cannot be laid.</summary>
    Impossible,
}

/// <summary>Whether a recipe still fits.</summary>
/// <param name="Name">The recipe's name.</param>
/// <param name="FitBefore">Whether it fitted the nozzle that is taken off.</param>
/// <param name="Reasons">Why it does not fit the new one; empty where it does.</param>
public sealed record RecipeVerdict(string Name, bool FitBefore, IReadOnlyList<string> Reasons);

/// <summary>What follows from another nozzle, before it is taken.</summary>
/// <param name="Figures">Widths, heights, flow.</param>
/// <param name="Recipes">Every recipe with its verdict.</param>
public sealed record NozzleChange(IReadOnlyList<ChangedFigure> Figures, IReadOnlyList<RecipeVerdict> Recipes)
{
    private const double WidthFrom = 0.6, WidthTo = 2, FirstWidthTo = 2.5, HeightFrom = 0.25, HeightTo = 0.75, HeightBad = 0.8;

    /// <summary>Of a change of nozzle. The bounds of widths and heights are common practice, no source.</summary>
    /// <param name="before">The nozzle as it is; with its diameter.</param>
    /// <param name="after">The nozzle as it would be; with its diameter.</param>
    /// <param name="recipes">All recipes there are.</param>
    public static NozzleChange Of(Nozzle before, Nozzle after, IEnumerable<Recipe> recipes)
    {
        ChangedFigure Figure(string name, Func<Nozzle, string> say) => new(name, say(before), say(after));
        var figures = new List<ChangedFigure>
        {
            Figure("bore", n => Say($"{n.Diameter:0.##} mm")),
            Figure("line widths", n => Say($"{WidthFrom * n.Diameter:0.##} to {WidthTo * n.Diameter:0.##} mm")),
            Figure("layer heights", n => Say($"{HeightFrom * n.Diameter:0.###} to {HeightTo * n.Diameter:0.###} mm")),
            Figure("finest detail", n => Say($"about {n.Diameter:0.##} mm wide")),
            Figure("plastic at 50 mm/s",
                n => Say($"{Typical(n, 50):0.#} mm³/s in lines {1.1 * n.Diameter:0.##} wide, {n.Diameter / 2:0.##} high")),
            Figure("fastest such lines", n => n.MaxFlow is { } most
                ? Say($"{ExtrudedLine.FastestSpeed(most, 1.1 * n.Diameter!.Value, n.Diameter.Value / 2, 1):0} mm/s")
                : "melting limit not known"),
            Figure("filled filament", n => n.WearKnown() switch { WearRating.High => "stands it", WearRating.Middling => "now and then",
                WearRating.Low => "wears it", _ => "wear not known" }),
        };
        return new NozzleChange([.. figures.Where((f, i) => i < 3 || f.Before != f.After)],
            [.. recipes.Select(r => new RecipeVerdict(r.Name ?? "without a name", Misfits(before, r).Count == 0,
                [.. Misfits(after, r).Select(m => m.Message)]))]);
    }

    /// <summary>How a recipe's lines do not suit a nozzle; empty where they do.</summary>
    public static IReadOnlyList<Misfit> Misfits(Nozzle nozzle, Recipe recipe)
    {
        if (nozzle.Diameter is not { } d) return [];
        var misfits = new List<Misfit>();
        foreach (var (name, width, pointer, most) in new[] { ("lines", recipe.LineWidth, "/lineWidth", WidthTo),
            ("first layer's lines", recipe.LineWidth * recipe.Widths.First, "/widths/first", FirstWidthTo) })
            if (width is { } w && (w < WidthFrom * d - 1e-9 || w > most * d + 1e-9))
                misfits.Add(new(
                    Say($"Its {name} of {w:0.##} mm are {100 * w / d:0} % of the nozzle; {100 * WidthFrom:0} to {100 * most:0} % go."),
                    pointer, MisfitWeight.Impossible));
        foreach (var (name, are, height, pointer) in new[] { ("first layer", "is", recipe.Layers.First, "/layers/first"),
            ("layers", "are", recipe.Layers.Others, "/layers/others") })
        {
            if (height is not { } h) continue;
            var of = Say($"Its {name} of {h:0.###} mm {are} {100 * h / d:0.#} % of the nozzle");
            if (h < HeightFrom * d - 1e-9)
                misfits.Add(new(Say($"{of}; below {100 * HeightFrom:0} % an uneven bed or drive shows."), pointer, MisfitWeight.Unusual));
            else if (h > HeightBad * d + 1e-9)
                misfits.Add(new(Say($"{of}; above {100 * HeightBad:0} % the line is hardly pressed onto the one below: layers come apart."),
                    pointer, MisfitWeight.Bad));
            else if (h > HeightTo * d + 1e-9)
                misfits.Add(new(Say($"{of}; above {100 * HeightTo:0} % layers hold together less well."), pointer, MisfitWeight.Unusual));
        }
        return misfits;
    }

    private static double Typical(Nozzle nozzle, double speed) =>
        speed * ExtrudedLine.Area(1.1 * nozzle.Diameter!.Value, nozzle.Diameter.Value / 2);

    private static string Say(FormattableString text) => text.ToString(CultureInfo.InvariantCulture);
}

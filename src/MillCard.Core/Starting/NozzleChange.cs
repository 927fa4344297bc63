using MillCard.Core.Documents;
using MillCard.Core.Flow;

namespace MillCard.Core.Starting;

/// <summary>One figure before and after a change of nozzle.</summary>
/// <param name="Name">What it is.</param>
/// <param name="Before">With its unit.</param>
/// <param name="After">With its unit.</param>
public sealed record ChangedFigure(string Name, string Before, string After);

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
    /// <summary>Of a change of nozzle.</summary>
    /// <param name="before">The nozzle as it is; with its diameter.</param>
    /// <param name="after">The nozzle as it would be; with its diameter.</param>
    /// <param name="recipes">All recipes there are.</param>
    public static NozzleChange Of(Nozzle before, Nozzle after, IEnumerable<Recipe> recipes)
    {
        ChangedFigure Figure(string name, Func<Nozzle, string> say) => new(name, say(before), say(after));
        var figures = new List<ChangedFigure>
        {
            Figure("bore", n => Invariant($"{n.Diameter:0.##} mm")),
            Figure("line widths",
                n => Invariant($"{NozzleBounds.LeastWidth * n.Diameter:0.##} to {NozzleBounds.MostWidth * n.Diameter:0.##} mm")),
            Figure("layer heights",
                n => Invariant($"{NozzleBounds.LeastHeight * n.Diameter:0.###} to {NozzleBounds.MostHeight * n.Diameter:0.###} mm")),
            Figure("finest detail", n => Invariant($"about {n.Diameter:0.##} mm wide")),
            Figure("plastic at 50 mm/s",
                n => Invariant($"{Typical(n, 50):0.#} mm³/s in lines {1.1 * n.Diameter:0.##} wide, {n.Diameter / 2:0.##} high")),
            Figure("fastest such lines", n => n.MaxFlow is { } most
                ? Invariant($"{ExtrudedLine.FastestSpeed(most, 1.1 * n.Diameter!.Value, n.Diameter.Value / 2, 1):0} mm/s")
                : "melting limit not known"),
            Figure("filled filament", n => n.WearKnown() switch { WearRating.High => "stands it", WearRating.Middling => "now and then",
                WearRating.Low => "wears it", _ => "wear not known" }),
        };
        return new NozzleChange([.. figures.Where((f, i) => i < 3 || f.Before != f.After)],
            [.. recipes.Select(r => new RecipeVerdict(r.Name ?? "without a name", NozzleBounds.Misfits(before, r).Count == 0,
                [.. NozzleBounds.Misfits(after, r).Select(m => m.Said.Text)]))]);
    }

    private static double Typical(Nozzle nozzle, double speed) =>
        speed * ExtrudedLine.Area(1.1 * nozzle.Diameter!.Value, nozzle.Diameter.Value / 2);

}

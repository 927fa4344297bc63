using MillCard.Core.Documents;
using MillCard.Core.Wording;

namespace MillCard.Core.Flow;

/// <summary>One way in which a recipe's lines do not suit a nozzle.</summary>
/// <param name="Code">What it is, kebab-case.</param>
/// <param name="Said">A sentence with the numbers.</param>
/// <param name="Asks">Pointer of the recipe's setting.</param>
/// <param name="Weight">How much it weighs.</param>
public sealed record Misfit(string Code, Sentence Said, string Asks, MisfitWeight Weight);

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

/// <summary>Which lines go with a nozzle, as shares of its bore. Common practice, no source.</summary>
public static class NozzleBounds
{
    /// <summary>Narrowest line.</summary>
    public const double LeastWidth = 0.6;
    /// <summary>Widest line.</summary>
    public const double MostWidth = 2;
    /// <summary>Widest line of the first layer.</summary>
    public const double MostFirstWidth = 2.5;
    /// <summary>Lowest layer.</summary>
    public const double LeastHeight = 0.25;
    /// <summary>Highest layer that holds well.</summary>
    public const double MostHeight = 0.75;
    /// <summary>Above this, layers come apart.</summary>
    public const double BadHeight = 0.8;

    /// <summary>How a recipe's lines do not suit a nozzle; empty where they do.</summary>
    public static IReadOnlyList<Misfit> Misfits(Nozzle nozzle, Recipe recipe)
    {
        if (nozzle.Diameter is not { } d) return [];
        var misfits = new List<Misfit>();
        foreach (var (name, width, pointer, most) in new[] { ("lines", recipe.LineWidth, "/lineWidth", MostWidth),
            ("first layer's lines", recipe.LineWidth * recipe.Widths.First, "/widths/first", MostFirstWidth) })
            if (width is { } w && (w < LeastWidth * d - 1e-9 || w > most * d + 1e-9))
            {
                var (share, least, greatest) = (100 * w / d, 100 * LeastWidth, 100 * most);
                misfits.Add(new("width-for-nozzle",
                    Sentence.Of($"Its {name} of {w:0.##} mm are {share:0} % of the nozzle; {least:0} to {greatest:0} % go."),
                    pointer, MisfitWeight.Impossible));
            }
        foreach (var (name, are, height, pointer) in new[] { ("first layer", "is", recipe.Layers.First, "/layers/first"),
            ("layers", "are", recipe.Layers.Others, "/layers/others"),
            ("lowest layers", "are", Varying(recipe.Layers, r => r.Lowest), "/layers/lowest"),
            ("highest layers", "are", Varying(recipe.Layers, r => r.Highest), "/layers/highest") })
        {
            if (height is not { } h || h >= LeastHeight * d - 1e-9 && h <= MostHeight * d + 1e-9) continue;
            var (share, least, most, worst) = (100 * h / d, 100 * LeastHeight, 100 * MostHeight, 100 * BadHeight);
            var of = Sentence.Of($"Its {name} of {h:0.###} mm {are} {share:0.#} % of the nozzle");
            if (h < LeastHeight * d - 1e-9)
                misfits.Add(new("low-for-nozzle", Sentence.Of(
                    $"{of}; below {least:0} % an uneven bed or drive shows."), pointer, MisfitWeight.Unusual));
            else if (h > BadHeight * d + 1e-9)
                misfits.Add(new("coming-apart", Sentence.Of(
                    $"{of}; above {worst:0} % the line is hardly pressed onto the one below: layers come apart."),
                    pointer, MisfitWeight.Bad));
            else
                misfits.Add(new("high-for-nozzle", Sentence.Of(
                    $"{of}; above {most:0} % layers hold together less well."), pointer, MisfitWeight.Unusual));
        }
        return misfits;
    }

    /// <summary>A bound of heights that vary, where it is not the usual height; null where heights are alike.</summary>
    private static double? Varying(LayerSizes layers, Func<(double Lowest, double Highest), double> of) =>
        layers is { Error: not null, Others: { } usual } && of(layers.Range) is var height && height != usual ? height : null;
}

using MillCard.Core.Rules;
using MillCard.Core.Wording;

namespace MillCard.Web.Endpoints;

/// <summary>What the handbook tells that only the code knows.</summary>
internal static class HandbookEndpoint
{
    /// <summary>A formula that the application computes with.</summary>
    /// <param name="Room">What it belongs to.</param>
    /// <param name="Name">What it gives.</param>
    /// <param name="Text">The formula.</param>
    /// <param name="Where">What its letters stand for.</param>
    /// <param name="Source">Where it comes from.</param>
    internal sealed record FormulaAnswer(string Room, string Name, string Text, string Where, string Source);

    /// <summary>All of it.</summary>
    /// <param name="Rules">Every rule with a place where it fires.</param>
    /// <param name="Formulas">Every formula with its source.</param>
    internal sealed record Handbook(IReadOnlyList<RuleExample> Rules, IReadOnlyList<FormulaAnswer> Formulas);

    private static readonly Handbook All = new(RuleExample.All, [.. Formulas.All.Select(f =>
        new FormulaAnswer(f.Room, f.Formula.Name, f.Formula.Text, f.Formula.Where, f.Formula.Source))]);

    public static void MapHandbook(this IEndpointRouteBuilder api) =>
        api.MapGet("/handbook", () => TypedResults.Ok(All))
            .WithSummary("Every rule with an example where it fires, every formula with its source").WithTags("Documents");
}

using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Rules;
using MillCard.Core.Starting;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>Patterns: read, never written.</summary>
internal static class PatternEndpoints
{
    /// <summary>A pattern on its shelf.</summary>
    internal sealed record PatternHead(string Id, int Version, string Name, string About, CardSummary Card);

    public static void MapPatterns(this IEndpointRouteBuilder api)
    {
        api.MapGet("/patterns", () =>
            TypedResults.Ok(Pattern.All.Select(p => new PatternHead(p.Id, p.Version, p.Name, p.About, p.Summary)).ToArray()))
            .WithSummary("Patterns to start a card from").WithTags("Cards");

        api.MapGet("/patterns/{id}/card", Results<Ok<Card>, JsonHttpResult<Refusal>> (string id) =>
            Pattern.All.FirstOrDefault(p => p.Id == id) is { } pattern ? TypedResults.Ok(pattern.Start()) : Refusal.Missing("This pattern"))
            .Produces<Refusal>(404, Refusal.MediaType)
                .WithSummary("A card to be made from a pattern: every figure assumed, the pattern remembered").WithTags("Cards");
    }
}

using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Starting;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What follows from a card, and what a first trial on it could use.</summary>
internal static class MeasureUpEndpoint
{
    internal sealed record MeasureUpAnswer(IReadOnlyList<Consequence> Consequences, Recipe Recipe, Filament Filament);

    internal sealed record RoutinesAnswer(string Start, string End);

    public static void MapMeasureUp(this IEndpointRouteBuilder api)
    {
        api.MapPost("/plain-routines", async Task<Results<Ok<RoutinesAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft: true, stop);
            return reading.Document is { } card ? TypedResults.Ok(new RoutinesAnswer(Proposal.Start(card), Proposal.End(card)))
                : Refusal.Fields(reading.Errors);
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Plain start and end routines for a card, complete or not").WithTags("Computation");

        api.MapPost("/consequences", async Task<Results<Ok<MeasureUpAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } card) return Refusal.Fields(reading.Errors);
            var recipe = Proposal.Recipe(card);
            return TypedResults.Ok(new MeasureUpAnswer(Consequences.Of(card, recipe), recipe, Proposal.Filament(card)));
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("What follows from a complete card, with a moderate recipe and filament for it").WithTags("Computation");
    }
}

using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Routines.Previews;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What is to be said about a card.</summary>
internal static class CheckEndpoint
{
    internal sealed record CheckAnswer(IReadOnlyList<Finding> Findings);

    public static void MapCheck(this IEndpointRouteBuilder api) =>
        api.MapPost("/check", async Task<Results<Ok<CheckAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop, bool draft = false) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft, stop);
            return reading.Document is { } card ? TypedResults.Ok(new CheckAnswer(CardCheck.Of(card, stop)))
                : Refusal.Fields(reading.Errors);
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Findings about a card; with draft=true needed facts may be missing and are findings").WithTags("Computation");
}

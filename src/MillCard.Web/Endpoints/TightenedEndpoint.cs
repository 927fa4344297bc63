using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>A card as a trial with limits of its own may use it.</summary>
internal static class TightenedEndpoint
{
    /// <summary>A card and what a trial adds to it.</summary>
    internal sealed record TightenedQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>Tighter limits than the card's; null for none.</summary>
        public TrialLimits? Limits { get; init; }
    }

    public static void MapTightened(this IEndpointRouteBuilder api) =>
        api.MapPost("/trials/card", async Task<Results<Ok<Card>, JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<TightenedQuestion>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { Card: { } card } question) return Refusal.Fields(reading.Errors);
            return TypedResults.Ok(card.Tightened(question.Limits));
        })
            .Accepts<TightenedQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("A card as a trial with limits of its own may use it").WithTags("Trials");
}

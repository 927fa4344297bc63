using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Starting;
using MillCard.Store;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What follows from another nozzle, before it is taken.</summary>
internal static class NozzleChangeEndpoint
{
    /// <summary>The nozzle as it is and as it would be.</summary>
    internal sealed record NozzleChangeQuestion : OpenRecord
    {
        /// <summary>As it is.</summary>
        [Field("nozzle", Needed = true)] public Nozzle? Before { get; init; }
        /// <summary>As it would be.</summary>
        [Field("new nozzle", Needed = true)] public Nozzle? After { get; init; }
    }

    public static void MapNozzleChange(this IEndpointRouteBuilder api) =>
        api.MapPost("/nozzle-change", async Task<Results<Ok<NozzleChange>,
            JsonHttpResult<Refusal>>> (HttpRequest request, DocumentStore<Recipe> recipes, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<NozzleChangeQuestion>(Bounds.Document, draft: false, stop);
            return reading.Document is { } question
                ? TypedResults.Ok(NozzleChange.Of(question.Before!, question.After!, (await recipes.AllAsync(stop))
                    .Select(r => r.Document)))
                : Refusal.Fields(reading.Errors);
        })
            .Accepts<NozzleChangeQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("What follows from another nozzle: widths, heights, flow, and which recipes no longer fit")
                .WithTags("Computation");
}

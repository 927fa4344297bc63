using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Store;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What was deleted: look, and clear for good. A document's own address brings it back.</summary>
internal static class BinEndpoints
{
    /// <summary>What went.</summary>
    /// <param name="Documents">How many documents.</param>
    internal sealed record Cleared(int Documents);

    public static void MapBin(this IEndpointRouteBuilder api)
    {
        var bin = api.MapGroup("/bin").WithTags("Bin");

        bin.MapGet("", async (Bin store, CancellationToken stop) => TypedResults.Ok(await store.ListAsync(stop)))
            .WithSummary("What was deleted and can be brought back, the last first");

        bin.MapDelete("", async (Bin store, CancellationToken stop) => TypedResults.Ok(new Cleared(await store.ClearAsync(null, stop))))
            .WithSummary("Clears the bin now; nothing in it can be brought back then");

        bin.MapDelete("/{id:guid}", async Task<Results<Ok<Cleared>,
            JsonHttpResult<Refusal>>> (Guid id, Bin store, CancellationToken stop) =>
            await store.ClearAsync(id, stop) is > 0 and var gone ? TypedResults.Ok(new Cleared(gone)) : Refusal.Missing("This document"))
            .Produces<Refusal>(404, Refusal.MediaType).WithSummary("Clears one document of the bin now");
    }
}

using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What is left of a bed, and what its keep-outs cost.</summary>
internal static class RegionsEndpoint
{
    /// <summary>A region that parts must stay out of.</summary>
    /// <param name="KeepOut">Name of the keep-out it comes from.</param>
    /// <param name="With">The body of the head that makes it; null for the nozzle itself.</param>
    /// <param name="Below">It counts for what lies below this height, mm; null for any height.</param>
    /// <param name="Rings">Outlines [x, y], mm, bed frame.</param>
    internal sealed record RegionAnswer(string KeepOut, string? With, double? Below, double[][][] Rings);

    /// <summary>The plan of a card.</summary>
    /// <param name="Usable">Outlines of the bed within its margin.</param>
    /// <param name="Regions">What parts must stay out of.</param>
    internal sealed record RegionsAnswer(double[][][] Usable, IReadOnlyList<RegionAnswer> Regions);

    public static void MapRegions(this IEndpointRouteBuilder api) =>
        api.MapPost("/regions", async Task<Results<Ok<RegionsAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { } card) return Refusal.Fields(reading.Errors);
            if (Machine.OfDraft(card) is not { } machine) return TypedResults.Ok(new RegionsAnswer([], []));
            var fit = new Fit(machine);
            return TypedResults.Ok(new RegionsAnswer(Rings.Of(machine.Usable),
                [.. fit.Regions.Select(r =>
                    new RegionAnswer(r.KeepOut.Name, r.With, double.IsFinite(r.Below) ? r.Below : null, Rings.Of(r.Grown)))]));
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("What is left of a bed, and what its keep-outs cost once the head is grown on").WithTags("Computation");
}

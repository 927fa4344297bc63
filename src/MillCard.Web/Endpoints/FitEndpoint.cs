using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Reach;
using MillCard.Web.Hosting;

namespace MillCard.Web.Endpoints;

/// <summary>Whether parts fit the machine of a card.</summary>
internal static class FitEndpoint
{
    internal sealed record FitAnswer(IReadOnlyList<PartFit> Parts);

    public static void MapFit(this IEndpointRouteBuilder api) =>
        api.MapPost("/fit", async Task<Results<Ok<FitAnswer>, JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await ReadJob.OfAsync(request, toSlice: false, stop);
            if (reading.Document is not { } job) return Refusal.Fields(reading.Errors);
            var standing = job.Parts.Select(p => new StandingPart(p.Part.Name, p.Footprints, p.Part.X, p.Part.Y, p.Part.Turn)).ToArray();
            return TypedResults.Ok(new FitAnswer(new Fit(job.Machine, job.Job.Recipe).Of(standing, cure: true, stop)));
        })
            .Accepts<JobForm>("multipart/form-data").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Whether parts fit, by how much they do not, and which move cures it").WithTags("Computation");
}

using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Whether parts fit the machine of a card.</summary>
internal static class FitEndpoint
{
    /// <summary>The verdicts.</summary>
    /// <param name="Parts">One for each part, in their order.</param>
    /// <param name="Mode">What the mode of two carriages makes of it; null on a machine with one.</param>
    internal sealed record FitAnswer(IReadOnlyList<PartFit> Parts, ModeAnswer? Mode);

    /// <summary>A mode as it runs with what lies on the bed.</summary>
    /// <param name="Distance">Distance of the copy, mm.</param>
    /// <param name="ProposedDistance">What lies on the bed asks for, whole mm.</param>
    /// <param name="Widest">Widest part at this distance, mm.</param>
    /// <param name="MirrorAt">Where the mirror stands, mm, bed frame.</param>
    /// <param name="Second">Where the second part comes to lie; null where only one is printed.</param>
    /// <param name="Region">Outlines of where the first nozzle may print.</param>
    internal sealed record ModeAnswer(double Distance, double ProposedDistance, double Widest, double MirrorAt, SecondPart? Second,
        double[][][] Region)
    {
        public static ModeAnswer? Of(ModePlan? plan) => plan is null
            ? null
            : new ModeAnswer(plan.Distance, plan.ProposedDistance, plan.Widest, plan.MirrorAt, plan.Second,
                Rings.Of(plan.RegionOnBed(plan.Printing[0])));
    }

    public static void MapFit(this IEndpointRouteBuilder api) =>
        api.MapPost("/fit", async Task<Results<Ok<FitAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await SentJob.OfAsync(request, toSlice: false, stop);
            if (reading.Document is not { } sent) return Refusal.Fields(reading.Errors);
            return TypedResults.Ok(await queue.BySizeAsync(sent.Bytes, left =>
            {
                var job = sent.Read(left);
                var fit = new Fit(job.Machine, job.Job.Recipe);
                return new FitAnswer(fit.Of(job.Standing, job.Job.Mode, Cures.Sought, left),
                    ModeAnswer.Of(fit.PlanOf(job.Standing, job.Job.Mode, left)));
            }, stop));
        })
            .Accepts<JobForm>("multipart/form-data").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Whether parts fit, by how much they do not, and which move cures it").WithTags("Computation");
}

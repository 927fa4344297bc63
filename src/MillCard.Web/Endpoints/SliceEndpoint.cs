using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>From parts and documents to a program.</summary>
internal static class SliceEndpoint
{
    public static void MapSlice(this IEndpointRouteBuilder api) =>
        api.MapPost("/slice", async Task<Results<FileContentHttpResult,
            JsonHttpResult<Refusal>>> (HttpRequest request, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await SentJob.OfAsync(request, toSlice: true, stop);
            if (reading.Document is not { } sent) return Refusal.Fields(reading.Errors);
            var sliced = await queue.LargeAsync(sent.Bytes, left => Slicer.Slice(JobOf(sent.Read(left)), null, left), stop);
            if (!sliced.Sliced) return Refusal.Because(sliced.Findings);
            FindingsHeader.SetOn(request.HttpContext.Response, sliced.Findings);
            return TypedResults.Bytes(sliced.Gcode.ToArray(), "text/x.gcode", sliced.FileName);
        })
            .Accepts<JobForm>("multipart/form-data").Produces<string>(200, "text/x.gcode").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Slices parts; the program with its findings in a header, or findings that say why not").WithTags("Computation");

    private static SliceJob JobOf(ReadJob job) =>
        new(job.Parts.Count > 0 ? job.Parts[0].Part.Name : "job", job.Machine, job.Job.Filament!, job.Job.Recipe!, job.Parts)
        {
            Sequence = job.Job.Sequence,
            Mode = job.Job.Mode,
            SecondFilament = job.Job.SecondFilament,
            Loaded = job.Job.Loaded,
            Zones = job.Zones,
            Stops = job.Job.Stops,
            Heights = job.Job.Heights,
        };
}

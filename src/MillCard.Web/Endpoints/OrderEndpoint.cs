using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Clearance;
using MillCard.Core.Reach;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>The order in which parts can be printed one at a time.</summary>
internal static class OrderEndpoint
{
    /// <summary>The order, and what stands against others.</summary>
    /// <param name="Order">Names in the order of printing; null where there is none.</param>
    /// <param name="Conflicts">Every pair that does not go in one sense.</param>
    internal sealed record OrderAnswer([property: JsonIgnore(Condition = JsonIgnoreCondition.Never)] IReadOnlyList<string>? Order,
        IReadOnlyList<ConflictAnswer> Conflicts);

    /// <summary>Printing one part after another drives the head into the first.</summary>
    /// <param name="First">Name of the part that stands.</param>
    /// <param name="Then">Name of the part that is printed then.</param>
    /// <param name="With">What of the head hits.</param>
    /// <param name="Cure">The smallest move of the second part that frees the pair in this order.</param>
    internal sealed record ConflictAnswer(string First, string Then, string With, Move? Cure);

    public static void MapOrder(this IEndpointRouteBuilder api) =>
        api.MapPost("/order", async Task<Results<Ok<OrderAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await SentJob.OfAsync(request, toSlice: false, stop);
            if (reading.Document is not { } sent) return Refusal.Fields(reading.Errors);
            var result = await queue.BySizeAsync(sent.Bytes, left => sent.Read(left) is var job
                ? new PrintOrder(job.Machine, job.Job.Recipe).Of(job.Standing, job.Job.Mode, Cures.Sought, left) : null!, stop);
            string Name(int part) => sent.Job.Parts[part].Name;
            return TypedResults.Ok(new OrderAnswer(result.Order?.Select(Name)
                .ToArray(), [.. result.Conflicts.Select(c => new ConflictAnswer(Name(c.First), Name(c.Then), c.With, c.Cure))]));
        })
            .Accepts<JobForm>("multipart/form-data").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("The order in which parts can be printed one at a time, and which pairs stand against others")
                .WithTags("Computation");
}

using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Packets;
using MillCard.Core.Patterns;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Sources;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Pattern sources: looked at first, taken with the key that was looked at, looked at again, forgotten.</summary>
internal static class PatternSourceEndpoints
{
    /// <summary>A pattern source that is here.</summary>
    /// <param name="Id">Its id.</param>
    /// <param name="Name">What it is called.</param>
    /// <param name="About">What it holds.</param>
    /// <param name="Place">Where it is read from again; empty where it was dropped or comes with the application.</param>
    /// <param name="Key">Fingerprint of its key.</param>
    /// <param name="Number">Number of its list.</param>
    /// <param name="Patterns">How many patterns its maker offers.</param>
    /// <param name="IsOwn">Whether it comes with the application.</param>
    /// <param name="SignedAt">When it was signed.</param>
    /// <param name="TakenAt">When it was taken as it is now.</param>
    /// <param name="LookedAt">When it was last looked at.</param>
    /// <param name="Trouble">Why the last look gave nothing; empty where it went well.</param>
    internal sealed record PatternSource(string Id, string Name, string About, string Place, string Key, int Number, int Patterns,
        bool IsOwn, DateTimeOffset? SignedAt, DateTimeOffset? TakenAt, DateTimeOffset? LookedAt, string Trouble);

    /// <summary>The sources, and where others may be read from.</summary>
    internal sealed record PatternSources(IReadOnlyList<PatternSource> Sources, IReadOnlyList<string> Folders, IReadOnlyList<string> Hosts);

    /// <summary>Where a source lies.</summary>
    internal sealed record SourcePlace : OpenRecord
    {
        /// <summary>A folder, a zip, or an address.</summary>
        [Field("place", Needed = true, Fewest = 1, Most = 1000)] public string Place { get; init; } = "";
        /// <summary>To take it: fingerprint of the key that was looked at.</summary>
        [Field("key", Most = 100)] public string? Key { get; init; }
    }

    /// <summary>The files of a source that was dropped.</summary>
    internal sealed class SourceForm
    {
        /// <summary>The files, their paths as their names.</summary>
        public required IFormFileCollection Files { get; init; }
        /// <summary>Path of the list of patterns among them.</summary>
        public string? List { get; init; }
        /// <summary>To take it: fingerprint of the key that was looked at.</summary>
        public string? Key { get; init; }
    }

    private const string NotTaken = "The source is not taken.";

    public static void MapPatternSources(this IEndpointRouteBuilder api)
    {
        var sources = api.MapGroup("/pattern-sources").WithTags("Patterns");

        sources.MapGet("", async (PatternStore store, SourcePlaces places, CancellationToken stop) =>
        {
            var offered = await store.OfferedAsync(stop);
            var taken = (await store.SourcesAsync(stop)).Select(s => new PatternSource(s.Id, s.Name, s.About, s.Place,
                new SourceKey(s.Key).Fingerprint, s.Number, offered.GetValueOrDefault(s.Id), IsOwn: false, s.SignedAt, s.TakenAt,
                s.LookedAt, s.Trouble ?? ""));
            var own = Pattern.Own.List;
            return TypedResults.Ok(new PatternSources([new PatternSource(own.Index.Id, own.Index.Name, own.Index.About, "",
                own.Key.Fingerprint, own.Index.Number, Pattern.All.Count, IsOwn: true, own.Index.At, null, null, ""), .. taken],
                places.Folders, places.Hosts));
        }).WithSummary("Pattern sources");

        sources.MapPost("/look", (HttpRequest request, SourcePlaces places, SourceDesk desk, CancellationToken stop) =>
            AtPlaceAsync(request, places, async (read, _) => TypedResults.Ok(await desk.ReviewAsync(read, stop)), stop))
            .Accepts<SourcePlace>("application/json").Produces<SourceReview>().Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Looks at a source where it lies; nothing is kept");

        sources.MapPost("/take", (HttpRequest request, SourcePlaces places, SourceDesk desk, CancellationToken stop) =>
            AtPlaceAsync(request, places, async (read, asked) =>
            {
                await desk.TakeAsync(read, asked.Key ?? "", asked.Place, stop);
                return TypedResults.NoContent();
            }, stop))
            .Accepts<SourcePlace>("application/json").Produces(204).Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Takes a source with the key that was looked at; it is looked at again once a day");

        sources.MapPost("/look-dropped", (HttpRequest request, WorkQueue queue, SourceDesk desk, CancellationToken stop) =>
            DroppedAsync(request, queue, async (read, _) => TypedResults.Ok(await desk.ReviewAsync(read, stop)), stop))
            .Accepts<SourceForm>("multipart/form-data").Produces<SourceReview>().Produces<Refusal>(422, Refusal.MediaType)
            .Produces<Refusal>(413, Refusal.MediaType).WithSummary("Looks at a source that was dropped; nothing is kept");

        sources.MapPost("/take-dropped", (HttpRequest request, WorkQueue queue, SourceDesk desk, CancellationToken stop) =>
            DroppedAsync(request, queue, async (read, key) =>
            {
                await desk.TakeAsync(read, key, null, stop);
                return TypedResults.NoContent();
            }, stop))
            .Accepts<SourceForm>("multipart/form-data").Produces(204).Produces<Refusal>(422, Refusal.MediaType)
            .Produces<Refusal>(413, Refusal.MediaType).WithSummary("Takes a source that was dropped, with the key that was looked at");

        sources.MapPost("/{id}/look-again", async Task<Results<NoContent, JsonHttpResult<Refusal>>> (string id, SourceDesk desk,
            CancellationToken stop) =>
            await desk.LookAgainAsync(id, stop) ? TypedResults.NoContent() : Refusal.Missing("A source that has a place"))
            .Produces<Refusal>(404, Refusal.MediaType)
            .WithSummary("Reads a source again and takes what is newer; what went wrong is told with the source");

        sources.MapDelete("/{id}", async Task<Results<NoContent, JsonHttpResult<Refusal>>> (string id, PatternStore store,
            CancellationToken stop) => await store.ForgetAsync(id, stop) ? TypedResults.NoContent() : Refusal.Missing("This source"))
            .Produces<Refusal>(404, Refusal.MediaType)
            .WithSummary("Forgets a source with its key and patterns; cards that were made from them stay");
    }

    private static async Task<IResult> AtPlaceAsync(HttpRequest request, SourcePlaces places,
        Func<PublishedSource, SourcePlace, Task<IResult>> then, CancellationToken stop)
    {
        var reading = await request.ReadDocumentAsync<SourcePlace>(Bounds.Document, draft: false, stop);
        if (reading.Document is not { } asked) return Refusal.Fields(reading.Errors);
        try
        {
            return await then(await places.AtAsync(asked.Place.Trim(), stop), asked);
        }
        catch (SourceRefusedException refused)
        {
            return Refusal.Sentence(422, NotTaken, refused.Message, "/place");
        }
    }

    private static async Task<IResult> DroppedAsync(HttpRequest request, WorkQueue queue, Func<PublishedSource, string, Task<IResult>> then,
        CancellationToken stop)
    {
        if (await request.ReadDroppedAsync(stop) is not { } dropped) return Refusal.NoForm();
        try
        {
            var read = await queue.BySizeAsync(dropped.Files.Sum(f => (long)f.Bytes.Length), left => Read(dropped, left), stop);
            return await then(read, dropped.Form["key"].ToString());
        }
        catch (SourceRefusedException refused)
        {
            return Refusal.Sentence(422, NotTaken, refused.Message);
        }
    }

    private static PublishedSource Read(DroppedForm dropped, CancellationToken stop)
    {
        var files = Unpacking.Of(dropped.Files, stop).Files;
        var list = dropped.Form["list"].ToString();
        var home = PublishedSource.HomesIn(files).FirstOrDefault(h => list.Length == 0 || h + PatternIndex.FileName == list)
            ?? throw new SourceRefusedException($"There is no {PatternIndex.FileName} in what was dropped.");
        return PublishedSource.Of(files, home, stop);
    }
}

using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Records;
using MillCard.Store;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>Revisions of a filament or a recipe.</summary>
internal static class StockRevisionEndpoints
{
    /// <summary>A revision in the list.</summary>
    /// <param name="Letter">A, B, C …</param>
    /// <param name="Note">What is said of it.</param>
    /// <param name="Who">Who fixed it; null where nobody said.</param>
    /// <param name="At">When it was fixed.</param>
    /// <param name="Changed">Settings in which the draft differs from it.</param>
    internal sealed record StockRevision(string Letter, string Note, string? Who, DateTimeOffset At, IReadOnlyList<string> Changed);

    public static void MapStockRevisions<T>(this IEndpointRouteBuilder api, string address, string tag) where T : class, IDocument
    {
        var revisions = api.MapGroup($"/{address}/{{id:guid}}/revisions").WithTags(tag);

        revisions.MapGet("", async Task<Results<Ok<StockRevision[]>,
            JsonHttpResult<Refusal>>> (Guid id, DocumentStore<T> documents, RevisionStore store, CancellationToken stop) =>
            await documents.FindAsync(id, stop) is { } found ? TypedResults.Ok(await ListAsync(id, found.Document, store, stop))
                : Refusal.Missing($"This {T.Kind}"))
            .WithSummary($"The revisions of a {T.Kind}, the newest first");

        revisions.MapGet("/{letter}", async Task<Results<Ok<T>,
            JsonHttpResult<Refusal>>> (Guid id, string letter, RevisionStore store, CancellationToken stop) =>
            await store.FindAsync(id, RevisionStore.NumberOf(letter), stop) is { } row
                ? TypedResults.Ok(JsonSerializer.Deserialize<T>(row.Document, DocumentJson.Options)!) : Refusal.Missing("This revision"))
            .WithSummary("A revision, whole");

        revisions.MapPost("", async Task<Results<Ok<StockRevision[]>,
            JsonHttpResult<Refusal>>> (Guid id, HttpRequest request, DocumentStore<T> documents, RevisionStore store,
            CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<RevisionEndpoints.RevisionQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            if (await documents.FindAsync(id, stop) is not { } found) return Refusal.Missing($"This {T.Kind}");
            await store.AddAsync(id, JsonSerializer.Serialize(found.Document, DocumentJson.Options), question.Note ?? "", question.Who,
                stop);
            return TypedResults.Ok(await ListAsync(id, found.Document, store, stop));
        })
            .Accepts<RevisionEndpoints.RevisionQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary($"Fixes the draft of a {T.Kind} as the next revision");
    }

    private static async Task<StockRevision[]> ListAsync<T>(Guid id, T draft, RevisionStore store, CancellationToken stop)
    {
        var now = JsonSerializer.SerializeToElement(draft, DocumentJson.Options);
        return [.. (await store.ListAsync(id, stop))
            .Select(row => new StockRevision(RevisionStore.LetterOf(row.Number), row.Note, row.Who, row.At,
            Differences.Of(JsonDocument.Parse(row.Document).RootElement, now)))];
    }
}

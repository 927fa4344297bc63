using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Store;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>Documents of one kind: list, read, make, save the draft, delete.</summary>
internal static class DocumentEndpoints
{
    public static void MapDocuments<T>(this IEndpointRouteBuilder api, string address, string tag) where T : class, IDocument
    {
        var kind = T.Kind;
        var documents = api.MapGroup($"/{address}").WithTags(tag);

        documents.MapGet("", async (DocumentStore<T> store, CancellationToken stop, Guid? card = null, bool archived = false) =>
            DocumentHeads.Answer(await store.ListAsync(archived ? DocumentPlace.Archive : DocumentPlace.Shelf, card, stop)))
            .Produces<DocumentHead[]>()
            .WithSummary($"All {address}, by name; with archived=true those that are put away");

        documents.MapGet("/{id:guid}", async Task<Results<Ok<Stored<T>>,
            JsonHttpResult<Refusal>>> (Guid id, DocumentStore<T> store, HttpResponse response, CancellationToken stop) =>
            await store.FindAsync(id, stop) is { } found ? Tagged(response, found) : Refusal.Missing($"This {kind}"))
            .Produces<Refusal>(404, Refusal.MediaType).WithSummary($"One {kind}; its version is the ETag");

        documents.MapPost("", async Task<Results<Created<Stored<T>>,
            JsonHttpResult<Refusal>>> (HttpRequest request, DocumentStore<T> store, TimeProvider clock, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<T>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { } document) return Refusal.Fields(reading.Errors);
            var made = await store.AddAsync(Guid.CreateVersion7(clock.GetUtcNow()), document, stop);
            return TypedResults.Created($"/api/{address}/{made.Id}", made);
        })
            .Accepts<T>("application/json").Produces<Refusal>(422, Refusal.MediaType).WithSummary($"Makes a {kind}");

        documents.MapPost("/holds", async Task<Results<NoContent, JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
            (await request.ReadDocumentAsync<T>(Bounds.Document, draft: true, stop)).Errors is { Count: > 0 } errors
                ? Refusal.Fields(errors) : TypedResults.NoContent())
            .Accepts<T>("application/json").Produces<Refusal>(422, Refusal.MediaType)
                .WithSummary($"Whether a draft of a {kind} holds against its schema; nothing is kept");

        documents.MapPut("/{id:guid}", async Task<Results<Ok<Stored<T>>, JsonHttpResult<Clash<T>>,
            JsonHttpResult<Refusal>>> (Guid id, HttpRequest request, HttpResponse response, DocumentStore<T> store,
            CancellationToken stop) =>
        {
            if (Version(request) is not { } version)
                return Refusal.Sentence(428, "Which version?", "A save must say in If-Match which version it changes.");
            var reading = await request.ReadDocumentAsync<T>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { } document) return Refusal.Fields(reading.Errors);
            return await store.SaveAsync(id, version, document, stop) switch
            {
                null => Refusal.Missing($"This {kind}"),
                { Saved: { } saved } => Tagged(response, saved),
                { Current: var current } =>
                    TypedResults.Json(new Clash<T>(current!, document), DocumentJson.Options, "application/json", 412),
            };
        })
            .Accepts<T>("application/json").Produces<Clash<T>>(412).Produces<Refusal>(422, Refusal.MediaType)
                .Produces<Refusal>(404, Refusal.MediaType)
            .WithSummary("Saves the draft; If-Match names the version it changes");

        documents.MapDelete("/{id:guid}",
            (Guid id, DocumentStore<T> store, CancellationToken stop) => PutAsync(store, id, DocumentPlace.Bin, stop))
            .Produces<Refusal>(404, Refusal.MediaType).WithSummary($"Deletes a {kind}; it can be brought back for {Bin.Keeps.Days} days");

        documents.MapPost("/{id:guid}/archive",
            (Guid id, DocumentStore<T> store, CancellationToken stop) => PutAsync(store, id, DocumentPlace.Archive, stop))
            .Produces<Refusal>(404, Refusal.MediaType).WithSummary($"Puts a {kind} away");

        documents.MapPost("/{id:guid}/restore",
            (Guid id, DocumentStore<T> store, CancellationToken stop) => PutAsync(store, id, DocumentPlace.Shelf, stop))
            .Produces<Refusal>(404, Refusal.MediaType).WithSummary($"Brings a {kind} back from the archive or the bin");
    }

    private static async Task<Results<NoContent,
        JsonHttpResult<Refusal>>> PutAsync<T>(DocumentStore<T> store, Guid id, DocumentPlace place, CancellationToken stop)
        where T : class, IDocument =>
        await store.PutAsync(id, place, stop) ? TypedResults.NoContent() : Refusal.Missing($"This {T.Kind}");

    /// <summary>Somebody else saved in between: their state, and what was sent.</summary>
    internal sealed record Clash<T>(Stored<T> Current, T Sent) where T : class, IDocument;

    private static Ok<Stored<T>> Tagged<T>(HttpResponse response, Stored<T> stored) where T : class, IDocument
    {
        response.Headers.ETag = Invariant($"\"{stored.Version}\"");
        return TypedResults.Ok(stored);
    }

    private static uint? Version(HttpRequest request) =>
        uint.TryParse(request.Headers.IfMatch.ToString().Trim('"'), CultureInfo.InvariantCulture, out var version) ? version : null;
}

using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Records;
using MillCard.Store;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>The record of real prints.</summary>
internal static class PrintEndpoints
{
    /// <summary>A noted print.</summary>
    internal sealed record NotedPrint(Guid Id, DateTimeOffset At, PrintRecord Record, bool Picture);

    /// <summary>All prints of a card, and what they leave open.</summary>
    internal sealed record PrintsAnswer(IReadOnlyList<NotedPrint> Prints, IReadOnlyList<OpenFact> Open);

    public static void MapPrints(this IEndpointRouteBuilder api)
    {
        var prints = api.MapGroup("/cards/{id:guid}/prints").WithTags("Prints");

        prints.MapGet("", async (Guid id, RevisionStore store, CancellationToken stop) =>
            TypedResults.Ok(await AnswerAsync(id, store, stop)))
            .WithSummary("How real prints came out, the newest first, and which values they leave open, the safest first");

        prints.MapPost("", async Task<Results<Ok<PrintsAnswer>,
            JsonHttpResult<Refusal>>> (Guid id, HttpRequest request, RevisionStore store, DocumentStore<Card> cards,
            CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<PrintRecord>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } record) return Refusal.Fields(reading.Errors);
            if (await cards.FindAsync(id, stop) is null) return Refusal.Missing("This card");
            if (record.Revision is { } letter && await store.FindAsync(id, RevisionStore.NumberOf(letter), stop) is null)
                return Refusal.Sentence(422, "The record is refused.", $"There is no revision {letter}.", "/revision");
            await store.NoteAsync(id, JsonSerializer.Serialize(record, DocumentJson.Options), stop);
            return TypedResults.Ok(await AnswerAsync(id, store, stop));
        })
            .Accepts<PrintRecord>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Notes how a print came out");

        prints.MapPut("/{print:guid}/picture", async Task<Results<NoContent,
            JsonHttpResult<Refusal>>> (Guid id, Guid print, HttpRequest request, RevisionStore store, BlobStore blobs,
            CancellationToken stop) =>
        {
            var bytes = await request.ReadAsync(Bounds.Picture, stop);
            if (PictureFile.TypeOf(bytes) is not { } kind)
                return Refusal.Sentence(422, "The picture is refused.", "This is no picture that is taken: PNG, JPEG or WebP.");
            return await store.PictureAsync(id, print, await blobs.KeepAsync(bytes, kind, stop), stop) ? TypedResults.NoContent()
                : Refusal.Missing("This print");
        })
            .Produces<Refusal>(413, Refusal.MediaType).WithSummary("Gives a print its picture; the body is the file");

        prints.MapGet("/{print:guid}/picture", async Task<Results<FileContentHttpResult,
            JsonHttpResult<Refusal>>> (Guid id, Guid print, RevisionStore store, BlobStore blobs, CancellationToken stop) =>
            await store.PrintAsync(id, print, stop) is { Picture: { } hash } && await blobs.FindAsync(hash, stop) is { } blob
                ? TypedResults.Bytes(blob.Bytes, blob.MediaType) : Refusal.Missing("This picture"))
            .WithSummary("A print's picture");

        prints.MapDelete("/{print:guid}", async Task<Results<NoContent,
            JsonHttpResult<Refusal>>> (Guid id, Guid print, RevisionStore store, CancellationToken stop) =>
            await store.StrikeAsync(id, print, stop) ? TypedResults.NoContent() : Refusal.Missing("This print"))
            .WithSummary("Strikes a print out");
    }

    private static async Task<PrintsAnswer> AnswerAsync(Guid id, RevisionStore store, CancellationToken stop)
    {
        NotedPrint[] noted = [.. (await store.PrintsAsync(id, stop))
            .Select(p => new NotedPrint(p.Id, p.At, JsonSerializer.Deserialize<PrintRecord>(p.Record, DocumentJson.Options)!,
            p.Picture is not null))];
        return new PrintsAnswer(noted, OpenValues.Of(noted.Select(p => p.Record)));
    }
}

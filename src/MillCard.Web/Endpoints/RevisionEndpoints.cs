using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Trials;

namespace MillCard.Web.Endpoints;

/// <summary>Revisions of a card and their proof.</summary>
internal static class RevisionEndpoints
{
    internal sealed record RevisionQuestion : OpenRecord
    {
        /// <summary>What is said of it.</summary>
        [Field("note", Most = 1000)] public string? Note { get; init; }
        /// <summary>Who fixes it.</summary>
        [Field("who", Most = 120)] public string? Who { get; init; }
    }

    internal sealed record ProofQuestion : OpenRecord
    {
        /// <summary>The trial that ran without a stop.</summary>
        [Field("trial", Needed = true)] public Guid? Trial { get; init; }
    }

    public static void MapRevisions(this IEndpointRouteBuilder api)
    {
        api.MapGet("/cards/states", async (ProofDesk desk, CancellationToken stop) => TypedResults.Ok(await desk.StatesAsync(stop)))
            .WithSummary("How the cards on the shelf stand to their last revisions").WithTags("Revisions");

        var revisions = api.MapGroup("/cards/{id:guid}/revisions").WithTags("Revisions");

        revisions.MapGet("", async Task<Results<Ok<RevisionAnswer[]>,
            JsonHttpResult<Refusal>>> (Guid id, ProofDesk desk, DocumentStore<Card> cards, CancellationToken stop) =>
            await cards.FindAsync(id, stop) is { } card ? TypedResults.Ok(await desk.ListAsync(id, card.Document, stop))
                : Refusal.Missing("This card"))
            .WithSummary("The revisions of a card with their stamps, the newest first");

        revisions.MapGet("/{letter}", async Task<Results<Ok<Card>,
            JsonHttpResult<Refusal>>> (Guid id, string letter, RevisionStore store, CancellationToken stop) =>
            await store.FindAsync(id, RevisionStore.NumberOf(letter), stop) is { } row
                ? TypedResults.Ok(JsonSerializer.Deserialize<Card>(row.Document, DocumentJson.Options)!) : Refusal.Missing("This revision"))
            .WithSummary("A revision, whole");

        revisions.MapPost("", async Task<Results<Ok<RevisionAnswer[]>,
            JsonHttpResult<Refusal>>> (Guid id, HttpRequest request, ProofDesk desk, DocumentStore<Card> cards, RevisionStore store,
            CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<RevisionQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } q) return Refusal.Fields(reading.Errors);
            if (await cards.FindAsync(id, stop) is not { } card) return Refusal.Missing("This card");
            var errors = SchemaCheck.Of(DocumentSchema.Of(typeof(Card)),
                JsonSerializer.SerializeToElement(card.Document, DocumentJson.Options));
            if (errors.Count > 0) return Refusal.Fields(errors);
            await store.AddAsync(id, JsonSerializer.Serialize(card.Document, DocumentJson.Options), q.Note ?? "", q.Who, stop);
            return TypedResults.Ok(await desk.ListAsync(id, card.Document, stop));
        })
            .Accepts<RevisionQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Fixes the draft as the next revision");

        revisions.MapPost("/{letter}/proof", async Task<Results<Ok<RevisionAnswer[]>,
            JsonHttpResult<Refusal>>> (Guid id, string letter, HttpRequest request, ProofDesk desk, DocumentStore<Card> cards,
            CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<ProofQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } q) return Refusal.Fields(reading.Errors);
            if (await cards.FindAsync(id, stop) is not { } card) return Refusal.Missing("This card");
            return await desk.StampAsync(id, RevisionStore.NumberOf(letter), q.Trial!.Value, stop) is { } why
                ? Refusal.Sentence(422, "It cannot be stamped.", why, "/trial")
                : TypedResults.Ok(await desk.ListAsync(id, card.Document, stop));
        })
            .Accepts<ProofQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Stamps a revision whose trial and dry run have no stop");
    }
}

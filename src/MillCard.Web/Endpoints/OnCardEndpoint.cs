using System.Runtime.CompilerServices;
using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.WhatIf;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Trials;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>A trial on every card of the rack.</summary>
internal static class OnCardEndpoint
{
    /// <summary>What a trial comes to on one card.</summary>
    /// <param name="Card">Id of the card.</param>
    /// <param name="Name">Its name.</param>
    /// <param name="Figures">What it comes to; null where it cannot be printed there.</param>
    /// <param name="Why">Why it cannot; null where it can.</param>
    /// <param name="Changed">What had to change for it.</param>
    /// <param name="PerBed">How often a trial's only part goes onto the bed; null where it has several, or does not fit.</param>
    /// <param name="Trial">The trial as it would be there; null where it cannot be laid.</param>
    internal sealed record TrialOnCard(Guid Card, string Name, Figures? Figures, string? Why, IReadOnlyList<string> Changed, int? PerBed,
        Trial? Trial);

    /// <summary>One message of the comparison in progress, a card each.</summary>
    /// <param name="Of">How many cards there are.</param>
    /// <param name="On">One of them.</param>
    /// <param name="Problem">Why nothing can be compared.</param>
    internal sealed record OnCardMessage(int Of, TrialOnCard? On = null, Refusal? Problem = null);

    public static void MapOnCard(this IEndpointRouteBuilder api) =>
        api.MapGet("/trials/{id:guid}/on-cards", (Guid id, TrialDesk desk, DocumentStore<Card> cards, FiguresShelf shelf, WorkQueue queue,
            HttpResponse response, CancellationToken stop) =>
        {
            queue.EnsureRoom();
            return MessageStream.WriteAllAsync(response, MessagesAsync(id, desk, cards, shelf, queue, stop),
                refusal => new OnCardMessage(0, Problem: refusal), stop);
        })
            .Produces<OnCardMessage>(200, MessageStream.MediaType).WithTags("Trials")
            .WithSummary("Slices a trial on every card of the rack; one JSON message a line");

    private static async IAsyncEnumerable<OnCardMessage> MessagesAsync(Guid id, TrialDesk desk, DocumentStore<Card> cards,
        FiguresShelf shelf, WorkQueue queue, [EnumeratorCancellation] CancellationToken stop)
    {
        var (laidOut, refusal) = await desk.LayOutAsync(id, toSlice: true, stop);
        if (laidOut is null)
        {
            yield return new OnCardMessage(0, Problem: refusal);
            yield break;
        }
        var job = await desk.JobAsync(laidOut, stop);
        var all = await cards.AllAsync(stop);
        foreach (var card in all)
        {
            stop.ThrowIfCancellationRequested();
            yield return new OnCardMessage(all.Count, await OnAsync(card));
        }

        async Task<TrialOnCard> OnAsync(Stored<Card> card)
        {
            var name = card.Document.Name ?? "a card without a name";
            var missing = SchemaCheck.Of(DocumentSchema.Of(typeof(Card)),
                JsonSerializer.SerializeToElement(card.Document, DocumentJson.Options));
            if (missing.Count > 0)
                return new(card.Id, name, null, $"The card is not complete: {missing[0].Message}", [], null, null);
            var size = job.Parts.Sum(p => MeshShelf.SizeOf(p.Mesh));
            var here = card.Id == laidOut.Trial.Card ? new OnCard(job, [])
                : await queue.LargeAsync(size, left => OnCard.Of(job, card.Document, left), stop);
            var (figures, why) = await shelf.TakeAsync(here.Job, stop);
            var perBed = figures is null ? null : await queue.LargeAsync(size, left => here.PerBed(left), stop);
            return new(card.Id, name, figures, why, here.Changed, perBed, laidOut.Trial with
            {
                Card = card.Id,
                Mode = here.Job.Mode,
                Limits = card.Id == laidOut.Trial.Card ? laidOut.Trial.Limits : null,
                Parts = [.. here.Job.Parts.Select(p => p.Part)],
                Zones = [.. here.Job.Zones.Select(z => z.Zone)],
                Loaded = laidOut.Trial.Loaded.Where(held => here.Job.Loaded.ContainsKey(held.Key)).ToDictionary(),
            });
        }
    }
}

using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Matching;
using MillCard.Store;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>Which cards a filament or a recipe fits, and copies for another card.</summary>
internal static class MatchEndpoints
{
    /// <summary>The verdict on one document.</summary>
    /// <param name="Id">Of the document that is matched: a card, a filament or a recipe.</param>
    /// <param name="Name">Its name.</param>
    /// <param name="Verdict">How it goes.</param>
    /// <param name="Reasons">The weightiest first.</param>
    internal sealed record MatchAnswer(Guid Id, string Name, Verdict Verdict, IReadOnlyList<Reason> Reasons);

    /// <summary>Filaments and recipes that a card is matched with.</summary>
    internal sealed record CardMatches(IReadOnlyList<MatchAnswer> Filaments, IReadOnlyList<MatchAnswer> Recipes);

    /// <summary>One filament or recipe in the table of all.</summary>
    /// <param name="Id">Its id.</param>
    /// <param name="Name">Its name.</param>
    /// <param name="Matches">One a card, in the order of the cards.</param>
    internal sealed record MatchRow(Guid Id, string Name, IReadOnlyList<Match> Matches);

    /// <summary>All filaments and recipes against all cards.</summary>
    /// <param name="Cards">Ids of the cards.</param>
    /// <param name="CardNames">Their names.</param>
    /// <param name="Filaments">By name.</param>
    /// <param name="Recipes">By name.</param>
    internal sealed record MatchTable(IReadOnlyList<Guid> Cards, IReadOnlyList<string> CardNames, IReadOnlyList<MatchRow> Filaments,
        IReadOnlyList<MatchRow> Recipes);

    /// <summary>A copy for another card.</summary>
    /// <param name="Id">Of the copy.</param>
    /// <param name="Left">What was left out.</param>
    internal sealed record CopyAnswer(Guid Id, IReadOnlyList<LeftOut> Left);

    /// <summary>Documents to be matched; nothing is stored.</summary>
    internal sealed record MatchQuestion : OpenRecord
    {
        /// <summary>The machine; a draft will do.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The material; null for none.</summary>
        public Filament? Filament { get; init; }
        /// <summary>The settings; null for none.</summary>
        public Recipe? Recipe { get; init; }
        /// <summary>Ids of the nozzles that print; empty for the one that suits best.</summary>
        [Field("nozzles in use", Most = 16)] public IReadOnlyList<string> Nozzles { get; init; } = [];
        /// <summary>What single nozzles hold, by their ids; the others hold the filament.</summary>
        [Field("filaments by nozzle", Most = 16)]
        public IReadOnlyDictionary<string,
            Filament> Loaded
        { get; init; } = new Dictionary<string, Filament>();
        /// <summary>The mode of two carriages; null for none.</summary>
        public ModeUse? Mode { get; init; }
    }

    public static void MapMatches(this IEndpointRouteBuilder api)
    {
        api.MapGet("/matches", async (DocumentStore<Card> cards, DocumentStore<Filament> filaments, DocumentStore<Recipe> recipes,
            CancellationToken stop) =>
        {
            var all = await cards.AllAsync(stop);
            MatchRow Row<T>(Stored<T> stored, Func<Card, T, Match> match)
                where T : class, IDocument =>
                new(stored.Id, stored.Document.Name ?? "without a name", [.. all.Select(c => match(c.Document, stored.Document))]);
            return TypedResults.Ok(new MatchTable([.. all.Select(c => c.Id)], [.. all.Select(c => c.Document.Name ?? "without a name")],
                [.. (await filaments.AllAsync(stop)).Select(f => Row(f, FilamentMatch.Of))],
                    [.. (await recipes.AllAsync(stop)).Select(r => Row(r, (card, recipe) => RecipeMatch.Of(card, recipe)))]));
        })
            .WithSummary("All filaments and recipes against all cards").WithTags("Cards");

        api.MapGet("/filaments/{id:guid}/matches", async Task<Results<Ok<MatchAnswer[]>,
            JsonHttpResult<Refusal>>> (Guid id, DocumentStore<Filament> filaments, DocumentStore<Card> cards, CancellationToken stop) =>
            await filaments.FindAsync(id, stop) is { } filament
                ? TypedResults.Ok((await cards.AllAsync(stop)).Select(c => Answer(c, FilamentMatch.Of(c.Document, filament.Document)))
                    .ToArray())
                : Refusal.Missing("This filament"))
            .WithSummary("Whether a filament fits each card, with reasons").WithTags("Filaments");

        api.MapGet("/recipes/{id:guid}/matches", async Task<Results<Ok<MatchAnswer[]>,
            JsonHttpResult<Refusal>>> (Guid id, DocumentStore<Recipe> recipes, DocumentStore<Card> cards, CancellationToken stop) =>
            await recipes.FindAsync(id, stop) is { } recipe
                ? TypedResults.Ok((await cards.AllAsync(stop)).Select(c => Answer(c, RecipeMatch.Of(c.Document, recipe.Document)))
                    .ToArray())
                : Refusal.Missing("This recipe"))
            .WithSummary("Whether a recipe fits each card, with reasons").WithTags("Recipes");

        api.MapGet("/cards/{id:guid}/matches", async Task<Results<Ok<CardMatches>,
            JsonHttpResult<Refusal>>> (Guid id, DocumentStore<Card> cards, DocumentStore<Filament> filaments,
            DocumentStore<Recipe> recipes, CancellationToken stop) =>
            await cards.FindAsync(id, stop) is { } card
                ? TypedResults.Ok(new CardMatches([.. (await filaments.AllAsync(stop))
                    .Select(f => Answer(f, FilamentMatch.Of(card.Document, f.Document)))],
                    [.. (await recipes.AllAsync(stop)).Select(r => Answer(r, RecipeMatch.Of(card.Document, r.Document)))]))
                : Refusal.Missing("This card"))
            .WithSummary("Which filaments and recipes fit a card, with reasons").WithTags("Cards");

        api.MapPost("/match", async Task<Results<Ok<Match>, JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<MatchQuestion>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            if (question.Card is not { } card) return Refusal.Fields([FieldError.Missing("/card", "Card is missing.")]);
            if (InUse(card, question) is { Count: > 0 } used)
                return TypedResults.Ok(TrialMatch.Of(card, used, question.Recipe, question.Mode));
            var filament = question.Filament is { } f ? FilamentMatch.Of(card, f) : new Match(Verdict.Fits, []);
            return TypedResults.Ok(question.Recipe is { } r ? filament.And(RecipeMatch.Of(card, r, question.Filament)) : filament);
        })
            .Accepts<MatchQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Whether filament and recipe fit a card, with reasons").WithTags("Computation");

        MapCopies<Filament>(api, "filaments", "Filaments", Copying.ForAnother);
        MapCopies<Recipe>(api, "recipes", "Recipes", Copying.ForAnother);
    }

    private static IReadOnlyList<NozzleInUse> InUse(Card card, MatchQuestion question) => [.. (card.Head.Nozzles ?? []).Index()
        .Where(n => question.Nozzles.Contains(n.Item.Id))
        .Select(n => new NozzleInUse(n.Index, question.Loaded.TryGetValue(n.Item.Id, out var own) ? own : question.Filament))];

    private static void MapCopies<T>(IEndpointRouteBuilder api, string address, string tag, Func<T, Card,
        (T, IReadOnlyList<LeftOut>)> copying) where T : class, IDocument =>
        api.MapPost($"/{address}/{{id:guid}}/copies", async Task<Results<Ok<CopyAnswer>,
            JsonHttpResult<Refusal>>> (Guid id, Guid card, DocumentStore<T> store, DocumentStore<Card> cards, TimeProvider clock,
            CancellationToken stop) =>
        {
            if (await store.FindAsync(id, stop) is not { } original) return Refusal.Missing($"This {T.Kind}");
            if (await cards.FindAsync(card, stop) is not { } other) return Refusal.Missing("This card");
            var (copy, left) = copying(original.Document, other.Document);
            return TypedResults.Ok(new CopyAnswer((await store.AddAsync(Guid.CreateVersion7(clock.GetUtcNow()), copy, stop)).Id, left));
        })
            .Produces<Refusal>(404, Refusal.MediaType).WithSummary("Makes a copy for another card and lists what was left out")
                .WithTags(tag);

    private static MatchAnswer Answer<T>(Stored<T> stored, Match match)
        where T : class, IDocument => new(stored.Id, stored.Document.Name ?? "without a name", match.Verdict, match.Reasons);
}

using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Records;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Trials;

namespace MillCard.Web.Endpoints;

/// <summary>Kept states of a trial with what came of them. They stand beside the revisions of other documents, under letters of the trial's
/// own.</summary>
internal static class VariantEndpoints
{
    private const int Most = 60;

    /// <summary>A kept state, in short.</summary>
    /// <param name="Letter">A, B, C …</param>
    /// <param name="At">When it was kept.</param>
    /// <param name="Figures">What came of it.</param>
    /// <param name="Recipe">The recipe's settings as they were, where they are others now: by their pointers.</param>
    /// <param name="Otherwise">What else is otherwise now, by the members of the trial.</param>
    internal sealed record VariantAnswer(string Letter, DateTimeOffset At, VariantFigures Figures,
        IReadOnlyDictionary<string, JsonElement?> Recipe, IReadOnlyList<string> Otherwise);

    public static void MapVariants(this IEndpointRouteBuilder api)
    {
        var variants = api.MapGroup("/trials/{id:guid}/variants").WithTags("Trials");

        variants.MapGet("", async Task<Results<Ok<VariantAnswer[]>, JsonHttpResult<Refusal>>> (
            Guid id, DocumentStore<Trial> trials, DocumentStore<Recipe> recipes, RevisionStore store, CancellationToken stop) =>
            await AllAsync(id, trials, recipes, store, stop) is { } all ? TypedResults.Ok(all) : Refusal.Missing("This trial"))
            .WithSummary("Kept states of a trial with what came of them, the first kept first");

        variants.MapGet("/{letter}", async Task<Results<Ok<VariantState>, JsonHttpResult<Refusal>>> (
            Guid id, string letter, RevisionStore store, CancellationToken stop) =>
            await store.FindAsync(id, RevisionStore.NumberOf(letter), stop) is { } row ? TypedResults.Ok(StateOf(row))
                : Refusal.Missing("This variant"))
            .WithSummary("A kept state, whole");

        variants.MapPost("", async Task<Results<Ok<VariantAnswer[]>, JsonHttpResult<Refusal>>> (
            Guid id, DocumentStore<Trial> trials, DocumentStore<Recipe> recipes, DocumentStore<Card> cards,
            DocumentStore<Filament> filaments, RunStore runs, RevisionStore store, CancellationToken stop) =>
        {
            if (await trials.FindAsync(id, stop) is not { } trial) return Refusal.Missing("This trial");
            if (trial.Document.Recipe is not { } named || await recipes.FindAsync(named, stop) is not { } recipe)
                return Refusal.Missing("The recipe of this trial");
            var card = trial.Document.Card is { } of ? await cards.FindAsync(of, stop) : null;
            DateTimeOffset?[] saved = [trial.SavedAt, recipe.SavedAt, card?.SavedAt, await SavedAsync(trial.Document.Filament),
                await SavedAsync(trial.Document.SecondFilament)];
            if (await runs.FindAsync(id, stop) is not { } run || run.At < saved.Max())
                return Refusal.Sentence(409, "It is not computed yet.",
                    "A variant is kept with what comes of it: wait until it is computed.");
            if ((await store.ListAsync(id, stop)).Count >= Most)
                return Refusal.Sentence(422, "There are too many.", $"A trial keeps {Most} variants at most.");
            var result = JsonSerializer.Deserialize<RunResult>(run.Result, DocumentJson.Options)!;
            await store.AddAsync(id, JsonSerializer.Serialize(new VariantState
            {
                Trial = trial.Document,
                Recipe = recipe.Document,
                Figures = FiguresOf(result),
            }, DocumentJson.Options), "", null, stop);
            return TypedResults.Ok(await AllAsync(id, trials, recipes, store, stop));

            async Task<DateTimeOffset?> SavedAsync(Guid? filament) =>
                filament is { } given ? (await filaments.FindAsync(given, stop))?.SavedAt : null;
        })
            .Produces<Refusal>(409, Refusal.MediaType).Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Keeps the trial as it is, with its recipe and what came of them, under the next letter");
    }

    private static VariantFigures FiguresOf(RunResult result) => new(result.Seconds, result.Filament, result.Grams, result.Cost,
        result.PeakFlow?.Flow, result.Layers, result.Findings.Count(f => f.Severity == Core.Findings.Severity.Stop),
        result.Findings.Count(f => f.Severity == Core.Findings.Severity.Caution));

    private static VariantState StateOf(RevisionRow row) => JsonSerializer.Deserialize<VariantState>(row.Document, DocumentJson.Options)!;

    private static async Task<VariantAnswer[]?> AllAsync(Guid id, DocumentStore<Trial> trials, DocumentStore<Recipe> recipes,
        RevisionStore store, CancellationToken stop)
    {
        if (await trials.FindAsync(id, stop) is not { } trial) return null;
        var recipe = trial.Document.Recipe is { } named ? (await recipes.FindAsync(named, stop))?.Document : null;
        var (now, own) = (Json(recipe), Json(trial.Document with { Name = null }));
        return [.. (await store.ListAsync(id, stop)).OrderBy(row => row.Number).Select(row =>
        {
            var state = StateOf(row);
            var kept = Json(state.Recipe);
            return new VariantAnswer(RevisionStore.LetterOf(row.Number), row.At, state.Figures,
                now.ValueKind == JsonValueKind.Object
                    ? Differences.Of(now, kept).ToDictionary(at => at, at => JsonPointer.Parse(at).In(kept))
                    : new Dictionary<string, JsonElement?>(),
                [.. Differences.Of(own, Json(state.Trial with { Name = null }))
                    .Select(at => JsonPointer.Parse(at).Steps.First()).Distinct()]);
        })];
    }

    private static JsonElement Json<T>(T document) => JsonSerializer.SerializeToElement(document, DocumentJson.Options);
}

using System.Globalization;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Settings;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Paper;
using MillCard.Web.Trials;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Cards and trials as sheets of paper, PDF.</summary>
internal static class PaperEndpoints
{
    private const string Pdf = "application/pdf";
    private const long Small = 0;

    public static void MapPaper(this IEndpointRouteBuilder api)
    {
        api.MapGet("/cards/{id:guid}/sheet.pdf", async Task<Results<FileContentHttpResult, JsonHttpResult<Refusal>>> (Guid id,
            DocumentStore<Card> cards, RevisionStore revisions, ProofDesk desk, WorkQueue queue, HttpRequest request,
                CancellationToken stop,
            string size = "a3", string revision = "") =>
        {
            if (SizeOf(size) is not { } paper) return NoSize();
            if (await cards.FindAsync(id, stop) is not { } found) return Refusal.Missing("This card");
            var all = await desk.ListAsync(id, found.Document, stop);
            var (card, letter, at) = (found.Document, StateOf(all), found.SavedAt);
            if (revision.Length > 0)
            {
                if (await revisions.FindAsync(id, RevisionStore.NumberOf(revision), stop) is not { } row)
                    return Refusal.Missing("This revision");
                (card, letter, at) = (JsonSerializer.Deserialize<Card>(row.Document, DocumentJson.Options)!, revision, row.At);
            }
            var proof = all.FirstOrDefault(r => r.Letter == letter)?.Proof;
            var title = new TitleFields(card.Maker ?? "", card.Name ?? "card without a name", "Card of a 3D printer", letter,
                SaidOf(proof), Day(at), $"{request.Scheme}://{request.Host}/cards/{id}");
            return TypedResults.Bytes(await queue.BySizeAsync(Small, _ => CardPaper.Of(card, paper, title), stop), Pdf);
        })
            .Produces(200, contentType: Pdf).Produces<Refusal>(404, Refusal.MediaType).Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("A card as drawing sheets: the draft, or a revision").WithTags("Cards");

        api.MapGet("/trials/{id:guid}/sheet.pdf", async Task<Results<FileContentHttpResult, JsonHttpResult<Refusal>>> (Guid id,
            TrialDesk desk, RunStore runs, BlobStore blobs, MeshShelf shelf, DocumentStore<Trial> trials, WorkQueue queue,
            HttpRequest request, CancellationToken stop, string size = "a4") =>
        {
            if (SizeOf(size) is not { } paper) return NoSize();
            if (await trials.FindAsync(id, stop) is not { } found) return Refusal.Missing("This trial");
            var (trial, refusal) = await desk.LayOutAsync(id, toSlice: false, stop);
            if (trial is null) return Refusal.Answer(refusal!);
            var parts = await shelf.StandingAsync(trial.Trial.Parts, blobs, stop);
            var run = await runs.FindAsync(id, stop);
            var result = run is null ? null : JsonSerializer.Deserialize<RunResult>(run.Result, DocumentJson.Options);
            var settings = trial is { Filament: not null, Recipe: not null }
                ? ResolvedSettings.Of(await desk.JobAsync(trial, stop)).Where(s => s.From != GivenBy.Usual).ToArray() : [];
            var isOld = run is not null && run.At < found.SavedAt;
            var title = new TitleFields(trial.Machine.Card.Maker ?? "", found.Document.Name ?? "trial without a name",
                $"Trial on {trial.Machine.Card.Name}", trial.Revision ?? "draft", "", Day(found.SavedAt),
                $"{request.Scheme}://{request.Host}/trials/{id}");
            return TypedResults.Bytes(await queue.BySizeAsync(Small, _ => TrialPaper.Of(trial, parts, result, isOld, settings, paper,
                title), stop), Pdf);
        })
            .Produces(200, contentType: Pdf).Produces<Refusal>(404, Refusal.MediaType).Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("A trial as drawing sheets: parts list, plan, settings, time, what to watch").WithTags("Trials");
    }

    private static PaperSize? SizeOf(string size) => size.ToUpperInvariant() switch
    {
        "A3" => PaperSize.A3,
        "A4" => PaperSize.A4,
        _ => null,
    };

    private static JsonHttpResult<Refusal> NoSize() => Refusal.Sentence(422, "There is no such paper.", "Sheets are made in a3 and a4.");

    /// <summary>The newest letter where the draft is that revision; that it is a draft otherwise.</summary>
    private static string StateOf(IReadOnlyList<RevisionAnswer> all) => all switch
    {
        [] => "draft",
        [{ Changed.Count: 0 } newest, ..] => newest.Letter,
        [var newest, ..] => $"after {newest.Letter}",
    };

    private static string SaidOf(ProofAnswer? proof) => proof switch
    {
        null => "not proved",
        { Lapsed.Count: 0 } => $"proved with {proof.Trial}, {Day(proof.At)}",
        _ => $"lapsed: stamped {Day(proof.At)}",
    };

    private static string Day(DateTimeOffset at) => at.UtcDateTime.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}

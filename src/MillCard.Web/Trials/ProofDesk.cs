using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Records;
using MillCard.Core.Routines.Previews;
using MillCard.Store;

namespace MillCard.Web.Trials;

/// <summary>Stamps revisions, and says which stamps have lapsed.</summary>
internal sealed class ProofDesk(RevisionStore store, DocumentStore<Trial> trials, DocumentStore<Filament> filaments,
    DocumentStore<Recipe> recipes, RunStore runs, TimeProvider clock)
{
    /// <summary>The revisions of a card.</summary>
    public async Task<RevisionAnswer[]> ListAsync(Guid id, Card draft, CancellationToken stop)
    {
        var proofs = (await store.ProofsAsync(id, stop)).ToDictionary(p => p.Number);
        var now = RestsOn.Of(draft);
        var answers = new List<RevisionAnswer>();
        foreach (var row in await store.ListAsync(id, stop))
        {
            var revision = JsonSerializer.Deserialize<Card>(row.Document, DocumentJson.Options)!;
            var proof = proofs.TryGetValue(row.Number, out var stamp)
                ? new ProofAnswer(stamp.Trial, stamp.At, await LapsedAsync(stamp, revision, stop)) : null;
            answers.Add(new(RevisionStore.LetterOf(row.Number), row.Note, row.Who, row.At,
                [.. Differences.Of(RestsOn.Of(revision), now).Select(p => p["/card".Length..])], proof));
        }
        return [.. answers];
    }

    /// <summary>Facts of filament, recipe and trial that have changed since; the revision itself cannot.</summary>
    private async Task<IReadOnlyList<string>> LapsedAsync(ProofRow proof, Card revision, CancellationToken stop)
    {
        var before = JsonDocument.Parse(proof.RestsOn).RootElement;
        if (await trials.FindAsync(proof.TrialId, stop) is not { } trial) return ["/trial"];
        return Differences.Of(before, await FactsAsync(revision, trial.Document, stop));
    }

    private async Task<JsonElement> FactsAsync(Card card, Trial trial, CancellationToken stop)
    {
        var loaded = new Dictionary<string, Filament>();
        if (trial.SecondFilament is { } second && await filaments.FindAsync(second, stop) is { } other) loaded["second"] = other.Document;
        foreach (var (nozzle, id) in trial.Loaded)
            if (await filaments.FindAsync(id, stop) is { } own) loaded[nozzle] = own.Document;
        return RestsOn.Of(card, trial.Filament is { } f ? (await filaments.FindAsync(f, stop))?.Document : null,
            trial.Recipe is { } r ? (await recipes.FindAsync(r, stop))?.Document : null, trial, loaded);
    }

    /// <summary>Stamps a revision.</summary>
    /// <returns>Why it cannot be stamped; null where it was.</returns>
    public async Task<string?> StampAsync(Guid id, int number, Guid trialId, CancellationToken stop)
    {
        if (await store.FindAsync(id, number, stop) is not { } row) return "There is no such revision.";
        if (await trials.FindAsync(trialId, stop) is not { } trial || trial.Document.Card != id)
            return "This trial is not one of this card.";
        if (await runs.FindAsync(trialId, stop) is not { } run) return "This trial has no program yet; slice it first.";
        var revision = JsonSerializer.Deserialize<Card>(row.Document, DocumentJson.Options)!;
        var ran = JsonSerializer.Deserialize<Card>(run.Card, DocumentJson.Options)!;
        var facts = RestsOn.Of(revision.Tightened(trial.Document.Limits));
        if (Differences.Of(facts, RestsOn.Of(ran)) is { Count: > 0 } others)
            return $"The program was sliced for other facts than this revision has, first of them "
                + $"{others[0]["/card".Length..]}; slice it again.";
        if (run.At < trial.SavedAt) return "The trial was changed after it was sliced; slice it again.";
        var result = JsonSerializer.Deserialize<RunResult>(run.Result, DocumentJson.Options)!;
        if (result.Origin != ProgramOrigin.Sliced)
            return "The program of this trial was brought as a file; a proof needs one that was sliced with the card.";
        if (result.Findings.Concat(CardCheck.Of(revision, stop))
            .FirstOrDefault(f => f.Severity == Severity.Stop
            && f.AcceptedBecause is null) is { } finding) return $"There is a stop: {finding.Message}";
        var at = clock.GetUtcNow();
        await store.StampAsync(new ProofRow
        {
            CardId = id,
            Number = number,
            TrialId = trialId,
            Trial = trial.Document.Name
            ?? "trial",
            RestsOn = (await FactsAsync(revision, trial.Document, stop)).GetRawText(),
            Program = run.Program,
            At = at
        }, stop);
        return null;
    }
}

using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Packets;
using MillCard.Core.Records;
using MillCard.Core.Routines.Previews;
using MillCard.Store;

namespace MillCard.Web.Trials;

/// <summary>Stamps revisions, and says which stamps have lapsed.</summary>
internal sealed class ProofDesk(RevisionStore store, DocumentStore<Trial> trials, RunStore runs, TimeProvider clock)
{
    /// <summary>The revisions of a card.</summary>
    public async Task<RevisionAnswer[]> ListAsync(Guid id, Card draft, CancellationToken stop)
    {
        var proofs = (await store.ProofsAsync(id, stop)).ToDictionary(p => p.Number);
        var drafts = await RestedOnAsync(proofs.Values, stop);
        var now = RestsOn.Of(draft);
        return [.. (await store.ListAsync(id, stop)).Select(row =>
        {
            var revision = Read<Card>(row.Document);
            var proof = proofs.TryGetValue(row.Number, out var stamp)
                ? new ProofAnswer(stamp.Trial, stamp.At, LapsedOf(stamp, revision, drafts)) : null;
            return new RevisionAnswer(RevisionStore.LetterOf(row.Number), row.Note, row.Who, row.At,
                [.. Differences.Of(RestsOn.Of(revision), now).Select(p => p["/card".Length..])], proof);
        })];
    }

    /// <summary>How all cards on the shelf stand to their last revisions; those without a revision are left out.</summary>
    public async Task<CardState[]> StatesAsync(CancellationToken stop)
    {
        var latest = await store.LatestAsync(stop);
        var drafts = await RestedOnAsync(latest.Select(l => l.Proof).OfType<ProofRow>(), stop);
        return [.. latest.Select(l =>
        {
            var revision = Read<Card>(l.Document);
            return new CardState(l.Card, RevisionStore.LetterOf(l.Number),
                l.Draft is { } draft && Differences.Of(RestsOn.Of(revision), RestsOn.Of(Read<Card>(draft))).Count > 0,
                l.Proof is { } proof && LapsedOf(proof, revision, drafts).Count == 0);
        })];
    }

    /// <summary>Drafts of the trials that proofs were made with, and of what those name.</summary>
    private async Task<IReadOnlyDictionary<Guid, KeptDraft>> RestedOnAsync(IEnumerable<ProofRow> proofs, CancellationToken stop)
    {
        var drafts = await store.DraftsAsync([.. proofs.Select(p => p.TrialId).Distinct()], stop);
        var named = drafts.Values.Where(d => d.Kind == Trial.Kind).SelectMany(d => Exchange.References(Read<Trial>(d.Json)));
        foreach (var (id, draft) in await store.DraftsAsync([.. named.Select(n => n.Id).Distinct()], stop)) drafts.TryAdd(id, draft);
        return drafts;
    }

    /// <summary>Facts of filament, recipe and trial that have changed since; the revision itself cannot.</summary>
    private static IReadOnlyList<string> LapsedOf(ProofRow proof, Card revision, IReadOnlyDictionary<Guid, KeptDraft> drafts) =>
        Find<Trial>(drafts, proof.TrialId) is { } trial
            ? Differences.Of(JsonDocument.Parse(proof.RestsOn).RootElement, FactsOf(revision, trial, drafts)) : ["/trial"];

    private static JsonElement FactsOf(Card card, Trial trial, IReadOnlyDictionary<Guid, KeptDraft> drafts)
    {
        var loaded = new Dictionary<string, Filament>();
        if (Find<Filament>(drafts, trial.SecondFilament) is { } second) loaded["second"] = second;
        foreach (var (nozzle, id) in trial.Loaded)
            if (Find<Filament>(drafts, id) is { } own) loaded[nozzle] = own;
        return RestsOn.Of(card, Find<Filament>(drafts, trial.Filament), Find<Recipe>(drafts, trial.Recipe), trial, loaded);
    }

    private static T? Find<T>(IReadOnlyDictionary<Guid, KeptDraft> drafts, Guid? id) where T : class, IDocument =>
        id is { } asked && drafts.TryGetValue(asked, out var draft) && draft.Kind == T.Kind ? Read<T>(draft.Json) : null;

    private static T Read<T>(string json) => JsonSerializer.Deserialize<T>(json, DocumentJson.Options)!;

    /// <summary>Stamps a revision.</summary>
    /// <returns>Why it cannot be stamped; null where it was.</returns>
    public async Task<string?> StampAsync(Guid id, int number, Guid trialId, CancellationToken stop)
    {
        if (await store.FindAsync(id, number, stop) is not { } row) return "There is no such revision.";
        if (await trials.FindAsync(trialId, stop) is not { } trial || trial.Document.Card != id)
            return "This trial is not one of this card.";
        if (await runs.FindAsync(trialId, stop) is not { } run) return "This trial has no program yet; slice it first.";
        var revision = Read<Card>(row.Document);
        var ran = Read<Card>(run.Card);
        var facts = RestsOn.Of(revision.Tightened(trial.Document.Limits));
        if (Differences.Of(facts, RestsOn.Of(ran)) is { Count: > 0 } others)
            return $"The program was sliced for other facts than this revision has, first of them "
                + $"{others[0]["/card".Length..]}; slice it again.";
        if (run.At < trial.SavedAt) return "The trial was changed after it was sliced; slice it again.";
        var result = Read<RunResult>(run.Result);
        if (result.Origin != ProgramOrigin.Sliced)
            return "The program of this trial was brought as a file; a proof needs one that was sliced with the card.";
        if (result.Findings.Concat(CardCheck.Of(revision, stop))
            .FirstOrDefault(f => f.Severity == Severity.Stop
            && f.AcceptedBecause is null) is { } finding) return $"There is a stop: {finding.Message}";
        var at = clock.GetUtcNow();
        var drafts = await store.DraftsAsync([.. Exchange.References(trial.Document).Select(r => r.Id).Distinct()], stop);
        await store.StampAsync(new ProofRow
        {
            CardId = id,
            Number = number,
            TrialId = trialId,
            Trial = trial.Document.Name
            ?? "trial",
            RestsOn = FactsOf(revision, trial.Document, drafts).GetRawText(),
            Program = run.Program,
            At = at
        }, stop);
        return null;
    }
}

using System.Diagnostics;
using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Machines;
using MillCard.Core.Records;
using MillCard.Core.Rules;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Writing;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Trials;

/// <summary>A trial with all it names, complete and ready to be sliced.</summary>
internal sealed record LaidOutTrial(Guid Id, Trial Trial, Machine Machine, Filament? Filament, Filament? SecondFilament, Recipe? Recipe)
{
    /// <summary>When it was read: what is saved later is not in it.</summary>
    public DateTimeOffset AsOf { get; init; }

    /// <summary>Letter of the card's newest revision, and whether the draft has changed since; null where there is none.</summary>
    public string? Revision { get; init; }

    /// <summary>What single nozzles hold, by their ids.</summary>
    public IReadOnlyDictionary<string, Filament> Loaded { get; init; } = new Dictionary<string, Filament>();

    /// <summary>What is in the nozzles, by tool.</summary>
    public IReadOnlyList<Filament?> Filaments => new Loading(Filament, SecondFilament, Loaded).All(Machine);

    /// <summary>How many parts come of each that lies on the bed.</summary>
    public int Copies => Trial.Mode?.Kind is ModeKind.Copy or ModeKind.Mirror ? 2 : 1;
}

/// <summary>Gathers what a trial names, slices it, and keeps what comes of it.</summary>
internal sealed class TrialDesk(
    DocumentStore<Trial> trials, DocumentStore<Card> cards, DocumentStore<Filament> filaments, DocumentStore<Recipe> recipes,
    BlobStore blobs, RunStore runs, RevisionStore revisions, MeshShelf meshes, StageShelf stages, RunShelf shelf, WorkQueue queue,
    TimeProvider clock)
{
    /// <summary>The trial, or why it is not complete.</summary>
    /// <param name="id">The trial.</param>
    /// <param name="toSlice">Whether filament and recipe are needed too.</param>
    /// <param name="stop">Ends the wait.</param>
    public async Task<(LaidOutTrial? Trial, Refusal? Refusal)> LayOutAsync(Guid id, bool toSlice, CancellationToken stop)
    {
        var asOf = clock.GetUtcNow();
        if (await trials.FindAsync(id, stop) is not { } trial) return (null, Refusal.Missing("This trial").Value);
        var errors = new List<FieldError>();
        var card = await TakeAsync(cards, trial.Document.Card, "/card", needed: true, errors, stop);
        var filament = await TakeAsync(filaments, trial.Document.Filament, "/filament", toSlice, errors, stop);
        var second = trial.Document.SecondFilament is { } given
            ? await TakeAsync(filaments, given, "/secondFilament", toSlice, errors, stop) : null;
        var loaded = new Dictionary<string, Filament>();
        foreach (var (nozzle, held) in trial.Document.Loaded)
            if (await TakeAsync(filaments, held, JsonPointer.Root / "loaded" / nozzle, toSlice, errors, stop) is { } own)
                loaded[nozzle] = own;
        var recipe = await TakeAsync(recipes, trial.Document.Recipe, "/recipe", toSlice, errors, stop);
        return errors.Count > 0
            ? (null, Refusal.Fields(errors).Value)
            : (new LaidOutTrial(id, trial.Document, Machine.Of(card!, trial.Document.Limits), filament, second,
                recipe)
            { AsOf = asOf, Revision = await RevisionAsync(trial.Document.Card!.Value, card!, stop), Loaded = loaded }, null);
    }

    private async Task<string?> RevisionAsync(Guid id, Card draft, CancellationToken stop)
    {
        if ((await revisions.ListAsync(id, stop)).FirstOrDefault() is not { } newest) return null;
        var fixedState = JsonSerializer.Deserialize<Card>(newest.Document, DocumentJson.Options)!;
        var letter = RevisionStore.LetterOf(newest.Number);
        return Differences.Of(RestsOn.Of(fixedState), RestsOn.Of(draft)).Count == 0 ? letter : $"{letter} with later changes";
    }

    /// <summary>What is to be sliced: the trial with the meshes of its parts and zones.</summary>
    /// <exception cref="Core.Meshes.MeshRefusedException">A mesh is not there any more.</exception>
    public async Task<SliceJob> JobAsync(LaidOutTrial trial, CancellationToken stop)
    {
        var parts = new List<PartToSlice>();
        foreach (var part in trial.Trial.Parts)
        {
            var mesh = await meshes.TakeAsync(part, blobs, stop);
            parts.Add(new PartToSlice(part, mesh.Mesh, mesh.Footprints));
        }
        var zones = new List<ZoneToSlice>();
        foreach (var zone in trial.Trial.Zones)
            zones.Add(new ZoneToSlice(zone, zone is MeshZone { File: var file }
                ? await meshes.AsReadAsync(file, blobs, stop) : null));
        return new SliceJob(trial.Trial.Name ?? "trial", trial.Machine, trial.Filament!, trial.Recipe!, parts, trial.Revision)
        {
            Sequence = trial.Trial.Sequence,
            Mode = trial.Machine.HasTwoCarriages ? trial.Trial.Mode : null,
            SecondFilament = trial.SecondFilament,
            Loaded = trial.Loaded,
            Zones = zones,
            Stops = trial.Trial.Stops,
            Heights = trial.Trial.Heights,
            Shelf = stages,
        };
    }

    /// <summary>Slices, dry-runs and keeps the program.</summary>
    public async Task<(StoredRun? Run, Refusal? Refusal)> SliceAsync(LaidOutTrial trial, IProgress<Progress> progress,
        CancellationToken stop)
    {
        var clock = Stopwatch.StartNew();
        var sliced = await SlicedAsync(await JobAsync(trial, stop), progress, stop);
        if (!sliced.Sliced) return (null, Refusal.Because(sliced.Findings).Value);
        var result = Result(trial, sliced, clock.Elapsed);
        return (await KeepAsync(trial, sliced.Gcode, Layers(sliced), result, sliced.Run!, stop), null);
    }

    /// <summary>Slices and dry-runs beside all other work and keeps no program: whoever slices it next finds its meshes read and the
    /// stages of slicing on the shelf.</summary>
    public async Task<(StoredRun? Run, Refusal? Refusal)> RehearseAsync(LaidOutTrial trial, IProgress<Progress> progress,
        CancellationToken stop)
    {
        var clock = Stopwatch.StartNew();
        var sliced = await SlicedAsync(await JobAsync(trial, stop) with { Threads = 1 }, progress, stop);
        if (!sliced.Sliced) return (null, Refusal.Because(sliced.Findings).Value);
        var result = Result(trial, sliced, clock.Elapsed);
        await runs.RehearseAsync(ToKeep(trial, sliced.Gcode, Layers(sliced), result), stop);
        return (new StoredRun(trial.AsOf, result), null);
    }

    private Task<SliceResult> SlicedAsync(SliceJob job, IProgress<Progress> progress, CancellationToken stop) =>
        queue.LargeAsync(job.Parts.Sum(p => MeshShelf.SizeOf(p.Mesh)), left => Slicer.Slice(job, progress, left), stop, progress);

    private static RunResult Result(LaidOutTrial trial, SliceResult sliced, TimeSpan took) =>
        RunResult.Of(trial.Trial.Name ?? "trial", ProgramOrigin.Sliced, sliced.Run!, sliced.Findings, sliced.Layers.Count,
            took.TotalSeconds, trial.Machine, trial.Filaments, trial.Copies) with
        { FileName = sliced.FileName, Changes = sliced.Changes, Uses = sliced.Uses, Times = sliced.Times };

    private static byte[] Layers(SliceResult sliced) => LayerFile.Write(sliced.Layers, sliced.Lines, sliced.Times!.EachTakes());

    private static RunToKeep ToKeep(LaidOutTrial trial, ReadOnlyMemory<byte> program, byte[]? layers, RunResult result) =>
        new(trial.Id, trial.AsOf, program, layers, JsonSerializer.Serialize(trial.Machine.Card, DocumentJson.Options),
            JsonSerializer.Serialize(result, DocumentJson.Options));

    /// <summary>Dry-runs a program brought as a file, and keeps it.</summary>
    public async Task<StoredRun> BringAsync(LaidOutTrial trial, string name, byte[] gcode, CancellationToken stop)
    {
        var clock = Stopwatch.StartNew();
        var (run, findings) = await queue.BySizeAsync(gcode.Length, left =>
        {
            var report = SimulatedMachine.Run(trial.Machine, gcode, trial.Filaments, left);
            return (report, RuleBook.Check(report, trial.Machine));
        }, stop);
        var result = RunResult.Of(name, ProgramOrigin.File, run, findings, 0, clock.Elapsed.TotalSeconds, trial.Machine,
            trial.Filaments);
        return await KeepAsync(trial, gcode, null, result, run, stop);
    }

    private async Task<StoredRun> KeepAsync(LaidOutTrial trial, ReadOnlyMemory<byte> program, byte[]? layers, RunResult result,
        DryRunReport run, CancellationToken stop)
    {
        var row = await runs.KeepAsync(ToKeep(trial, program, layers, result), stop);
        shelf.Put(row, run);
        return new StoredRun(row.At, result);
    }

    private static async Task<T?> TakeAsync<T>(DocumentStore<T> store, Guid? id, JsonPointer at, bool needed, List<FieldError> errors,
        CancellationToken stop) where T : class, IDocument
    {
        var name = string.Join(' ', at.Steps);
        if (id is not { } given)
        {
            if (needed) errors.Add(FieldError.Missing(at, $"No {name} is chosen yet."));
            return null;
        }
        if (await store.FindAsync(given, stop) is not { } found)
        {
            errors.Add(FieldError.Missing(at, $"The {name} of this trial is not there any more; choose another."));
            return null;
        }
        foreach (var error in SchemaCheck.Of(DocumentSchema.Of(typeof(T)),
            JsonSerializer.SerializeToElement(found.Document, DocumentJson.Options)))
            errors.Add(error with
            {
                Pointer = at + error.Pointer,
                Message = $"In {found.Document.Name ?? $"the {name}"}: {error.Message}"
            });
        return found.Document;
    }
}

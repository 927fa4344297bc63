using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing;
using MillCard.Core.Slicing.Writing;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Trials;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>A trial's program: slice it, bring one, look at its lines, take it away.</summary>
internal static class RunEndpoints
{
    /// <summary>One message of a slicing in progress; the last has the run or the refusal.</summary>
    internal sealed record SliceMessage(Progress? Progress = null, StoredRun? Run = null, Refusal? Refusal = null);

    /// <summary>One line of a program with what it does.</summary>
    /// <param name="Line">Counted from 1.</param>
    /// <param name="Text">The line itself.</param>
    /// <param name="Start">When it begins, s.</param>
    /// <param name="Seconds">How long it takes.</param>
    /// <param name="Effect">What it does, in plain words.</param>
    /// <param name="Path">From x, y, z to x, y, z, mm, bed frame; null where nothing moves.</param>
    internal sealed record RunLine(int Line, string Text, double Start, double Seconds, string Effect, double[]? Path);

    public static void MapRuns(this IEndpointRouteBuilder api)
    {
        var trial = api.MapGroup("/trials/{id:guid}").WithTags("Trials");

        trial.MapPost("/slice", async (Guid id, TrialDesk desk, WorkQueue queue, HttpResponse response, CancellationToken stop) =>
        {
            queue.EnsureRoom();
            var (laidOut, refusal) = await desk.LayOutAsync(id, toSlice: true, stop);
            await TellAsync(response, async progress =>
                laidOut is null ? (null, refusal) : await desk.SliceAsync(laidOut, progress, stop), stop);
        })
            .Produces<SliceMessage>(200, MessageStream.MediaType)
                .WithSummary("Slices a trial; one JSON message a line, the last has the run or the refusal");

        trial.MapPut("/run/program", async Task<Results<Ok<StoredRun>,
            JsonHttpResult<Refusal>>> (Guid id, string name, HttpRequest request, TrialDesk desk, CancellationToken stop) =>
        {
            var gcode = await request.ReadAsync(Bounds.Gcode, stop);
            if (gcode.AsSpan().Contains((byte)0))
                return Refusal.Sentence(422, "The file is refused.", "This is not G-code: it holds bytes that are not text.");
            var (laidOut, refusal) = await desk.LayOutAsync(id, toSlice: false, stop);
            return laidOut is null ? Refusal.Answer(refusal!) : TypedResults.Ok(await desk.BringAsync(laidOut, name, gcode, stop));
        })
            .Produces<Refusal>(422, Refusal.MediaType).Produces<Refusal>(413, Refusal.MediaType)
            .WithSummary("Brings a program as a file and runs it; the body is the file");

        trial.MapGet("/run", async Task<Results<Ok<StoredRun>, NoContent>> (Guid id, RunStore runs, CancellationToken stop) =>
            await runs.FindAsync(id, stop) is { } row
                ? TypedResults.Ok(new StoredRun(row.At, JsonSerializer.Deserialize<RunResult>(row.Result, DocumentJson.Options)!))
                : TypedResults.NoContent())
            .WithSummary("What came of the trial's last program");

        trial.MapGet("/run/lines", async Task<Results<Ok<RunLine[]>,
            JsonHttpResult<Refusal>>> (Guid id, RunStore runs, BlobStore blobs, RunShelf shelf, CancellationToken stop, int from = 1,
            int count = 200) =>
        {
            if (await runs.FindAsync(id, stop) is not { } row) return Refusal.Missing("This program");
            var run = await shelf.TakeAsync(row, blobs, stop);
            var frames = Frames.Of(JsonSerializer.Deserialize<Card>(row.Card, DocumentJson.Options)!.Envelope.Origin!);
            var first = Math.Clamp(from - 1, 0, run.Text.Count);
            return TypedResults.Ok(Enumerable.Range(first, Math.Min(Math.Clamp(count, 0, Bounds.Lines), run.Text.Count - first))
                .Select(i => Line(run, frames, i)).ToArray());
        })
            .WithSummary("Lines of the program with what they do");

        trial.MapGet("/run/series", async Task<Results<Ok<RunSeries>,
            JsonHttpResult<Refusal>>> (Guid id, RunStore runs, BlobStore blobs, RunShelf shelf, CancellationToken stop, double from = 0,
            double? to = null, int points = 200) =>
        {
            if (await runs.FindAsync(id, stop) is not { } row) return Refusal.Missing("This program");
            var run = await shelf.TakeAsync(row, blobs, stop);
            return TypedResults.Ok(RunSeries.Of(run, Numbers.Within(from, 0, run.TotalSeconds),
                Numbers.Within(to ?? run.TotalSeconds, 0, run.TotalSeconds), Math.Clamp(points, 2, 1000)));
        })
            .WithSummary("Temperatures, fan and speed over time");

        trial.MapGet("/run/layers", async Task<Results<FileContentHttpResult,
            NoContent>> (Guid id, RunStore runs, BlobStore blobs, CancellationToken stop) =>
            await runs.FindAsync(id, stop) is { Layers: { } hash } && await blobs.FindAsync(hash, stop) is { } blob
                && LayerFile.IsCurrent(blob.Bytes)
                ? TypedResults.Bytes(blob.Bytes, "application/octet-stream")
                : TypedResults.NoContent())
            .WithSummary("The layers as typed paths, binary; nothing where an older version computed them");

        trial.MapGet("/run/program", async Task<Results<FileContentHttpResult,
            JsonHttpResult<Refusal>>> (Guid id, RunStore runs, BlobStore blobs, CancellationToken stop) =>
        {
            if (await runs.FindAsync(id, stop) is not { } row || await blobs.FindAsync(row.Program, stop) is not { } blob)
                return Refusal.Missing("This program");
            var result = JsonSerializer.Deserialize<RunResult>(row.Result, DocumentJson.Options)!;
            return TypedResults.Bytes(blob.Bytes, "text/x.gcode", result.FileName ?? FileName(result.Name));
        })
            .WithSummary("The program, to be saved");
    }

    /// <summary>Slices and tells how far it is, and at last what came of it.</summary>
    internal static Task TellAsync(HttpResponse response, Func<IProgress<Progress>, Task<(StoredRun? Run, Refusal? Refusal)>> slice,
        CancellationToken stop) =>
        MessageStream.WriteAsync(response, async progress =>
        {
            var (run, refusal) = await slice(progress);
            return new SliceMessage(Run: run, Refusal: refusal);
        }, step => new SliceMessage(Progress: step), failed => new SliceMessage(Refusal: failed), stop);

    private static RunLine Line(DryRunReport run, Frames frames, int line)
    {
        double[]? path = null;
        if (run.PathOf(line) is var (from, to))
        {
            var (a, b) = (frames.ToBed(new(from.X, from.Y)), frames.ToBed(new(to.X, to.Y)));
            path = [a.X, a.Y, from.Z, b.X, b.Y, to.Z];
        }
        return new RunLine(line + 1, run.Text.Text(line), run.Starts[line], run.Seconds[line], run.EffectOf(line), path);
    }

    /// <summary>A job's name as a file name: letters, digits and dashes.</summary>
    private static string FileName(string name)
    {
        var stem = Path.GetFileNameWithoutExtension(name).ToLowerInvariant();
        var words = new string([.. stem.Select(c => char.IsLetterOrDigit(c) ? c : '-')]).Split('-', StringSplitOptions.RemoveEmptyEntries);
        return (words.Length > 0 ? string.Join('-', words) : "program") + ".gcode";
    }
}

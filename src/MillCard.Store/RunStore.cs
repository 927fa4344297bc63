using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>A trial's program with what came of it.</summary>
/// <param name="TrialId">The trial.</param>
/// <param name="At">When what it was made from was read.</param>
/// <param name="Program">G-code.</param>
/// <param name="Layers">Lines of its layers; null for a program that was brought.</param>
/// <param name="Card">The card it was made for, JSON.</param>
/// <param name="Result">What came of it, JSON.</param>
public sealed record RunToKeep(Guid TrialId, DateTimeOffset At, ReadOnlyMemory<byte> Program, byte[]? Layers, string Card, string Result);

/// <summary>The last program of each trial.</summary>
public sealed class RunStore(MillCardContext context, BlobStore blobs)
{
    /// <summary>Keeps a trial's program in place of the one before; bytes that nothing names any more are dropped.</summary>
    public async Task<RunRow> KeepAsync(RunToKeep run, CancellationToken stop)
    {
        await using var whole = await context.Database.BeginTransactionAsync(stop);
        var row = await PutAsync(run, stop);
        await whole.CommitAsync(stop);
        return row;
    }

    /// <summary>Does all that <see cref="KeepAsync"/> does and takes it back, so that the first program kept does not wait for code to be
    /// compiled.</summary>
    public async Task RehearseAsync(RunToKeep run, CancellationToken stop)
    {
        await using var whole = await context.Database.BeginTransactionAsync(stop);
        await PutAsync(run, stop);
        await whole.RollbackAsync(stop);
        context.ChangeTracker.Clear();
    }

    private async Task<RunRow> PutAsync(RunToKeep run, CancellationToken stop)
    {
        var (trialId, at, program, layers, card, result) = run;
        var programHash = await blobs.KeepAsync(program.ToArray(), "text/x.gcode", stop);
        var layersHash = layers is null ? null : await blobs.KeepAsync(layers, "application/octet-stream", stop);
        var row = await context.Runs.FirstOrDefaultAsync(r => r.TrialId == trialId, stop);
        string?[] before = [row?.Program, row?.Layers];
        if (row is null) context.Runs.Add(row = new RunRow { TrialId = trialId, Program = programHash, Card = card, Result = result });
        (row.Program, row.Layers, row.Card, row.Result, row.At) = (programHash, layersHash, card, result, at);
        await context.SaveChangesAsync(stop);
        await context.Blobs
            .Where(b => before.Contains(b.Hash) && !context.Runs.Any(r => r.Program == b.Hash || r.Layers == b.Hash)
                && !context.Prints.Any(p => p.Picture == b.Hash))
            .ExecuteDeleteAsync(stop);
        return row;
    }

    /// <summary>A trial's program, or null.</summary>
    public Task<RunRow?> FindAsync(Guid trialId, CancellationToken stop) => context.Runs.AsNoTracking()
        .FirstOrDefaultAsync(r => r.TrialId == trialId, stop);
}

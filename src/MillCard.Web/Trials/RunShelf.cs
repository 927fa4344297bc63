using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Machines;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Trials;

/// <summary>Dry runs that were looked at lately, so that a page of lines does not run the program again.</summary>
internal sealed class RunShelf(WorkQueue queue) : IDisposable
{
    private readonly MemoryCache _shelf = new(new MemoryCacheOptions { SizeLimit = 1L << 30 });

    /// <summary>The dry run of a stored program, from the shelf or run again.</summary>
    public async Task<DryRunReport> TakeAsync(RunRow row, BlobStore blobs, CancellationToken stop)
    {
        var key = (row.TrialId, row.Program, row.At);
        if (_shelf.TryGetValue(key, out DryRunReport? known)) return known!;
        var program = await blobs.FindAsync(row.Program, stop)
            ?? throw new GoneException("The program is not there any more; slice again.");
        var card = JsonSerializer.Deserialize<Card>(row.Card, DocumentJson.Options)!;
        var run = await queue.BySizeAsync(program.Bytes.Length, left => SimulatedMachine.Run(Machine.Of(card), program.Bytes, left), stop);
        return Put(row, run);
    }

    /// <summary>Puts a dry run that was just made on the shelf.</summary>
    public DryRunReport Put(RunRow row, DryRunReport run) =>
        _shelf.Set((row.TrialId, row.Program, row.At), run,
            new MemoryCacheEntryOptions { Size = run.Text.Bytes.Length + 40L * run.Text.Count + 36L * run.Moves.Length });

    public void Dispose() => _shelf.Dispose();
}

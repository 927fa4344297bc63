using MillCard.Core.Documents;
using Microsoft.Extensions.Caching.Memory;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.WhatIf;
using MillCard.Web.Work;

namespace MillCard.Web.Trials;

/// <summary>Figures of jobs that were sliced to be compared, so that the same is not sliced twice.</summary>
internal sealed class FiguresShelf(WorkQueue queue) : IDisposable
{
    private static readonly MemoryCacheEntryOptions Kept = new() { Size = 1, SlidingExpiration = TimeSpan.FromHours(2) };
    private readonly MemoryCache _shelf = new(new MemoryCacheOptions { SizeLimit = 5000 });

    /// <summary>What a job comes to, or why it cannot be sliced.</summary>
    public async Task<(Figures? Figures, string? Refusal)> TakeAsync(SliceJob job, CancellationToken stop)
    {
        var key = Fingerprint.Of(new
        {
            Card = job.Machine.Card.Bare(),
            job.Filament,
            job.SecondFilament,
            job.Loaded,
            job.Recipe,
            Parts = job.Parts.Select(p => p.Part),
            Zones = job.Zones.Select(z => z.Zone),
            job.Stops,
            job.Heights,
            job.Sequence,
            job.Mode,
        });
        if (_shelf.TryGetValue(key, out (Figures?, string?) known)) return known;
        return _shelf.Set(key, await queue.LargeAsync(job.Parts.Sum(p => MeshShelf.SizeOf(p.Mesh)), left => Variants.Measure(job, left),
            stop), Kept);
    }

    public void Dispose() => _shelf.Dispose();
}

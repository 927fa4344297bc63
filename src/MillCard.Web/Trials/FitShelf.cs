using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.Extensions.Caching.Memory;
using MillCard.Core.Documents;
using MillCard.Core.Reach;

namespace MillCard.Web.Trials;

/// <summary>Machines made ready for verdicts lately, so that what does not change under a moving pointer is computed once.</summary>
internal sealed class FitShelf : IDisposable
{
    private static readonly MemoryCacheEntryOptions Kept = new() { Size = 1, SlidingExpiration = TimeSpan.FromMinutes(10) };
    private readonly MemoryCache _shelf = new(new MemoryCacheOptions { SizeLimit = 32 });

    /// <summary>The verdicts on a card with a recipe's apron and a trial's limits.</summary>
    public Fit Take(Card card, Recipe? recipe, TrialLimits? limits)
    {
        // only what bears on the verdict: where a fact comes from or what a routine says does not
        var bears = JsonSerializer.SerializeToUtf8Bytes(new { card.Envelope, card.Head, card.Motion, card.Modes, recipe?.Layers, recipe?.Skirt, recipe?.Brim, recipe?.Raft, recipe?.Widths, recipe?.LineWidth, limits }, DocumentJson.Options);
        var key = Convert.ToHexString(SHA256.HashData(bears));
        return _shelf.TryGetValue(key, out Fit? known) ? known! : _shelf.Set(key, new Fit(Machine.Of(card.Tightened(limits)), recipe), Kept);
    }

    public void Dispose() => _shelf.Dispose();
}

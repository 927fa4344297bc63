using Microsoft.Extensions.Caching.Memory;
using MillCard.Core.Documents;
using MillCard.Core.Machines;
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
        var key = Fingerprint.Of(new { Card = card.Bare() with { Routines = new Routines() }, Recipe = recipe, Limits = limits });
        return _shelf.TryGetValue(key, out Fit? known) ? known! : _shelf.Set(key, new Fit(Machine.Of(card, limits), recipe), Kept);
    }

    public void Dispose() => _shelf.Dispose();
}

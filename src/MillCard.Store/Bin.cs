using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>What was deleted, and when it goes for good.</summary>
public sealed class Bin(MillCardContext context, TimeProvider clock)
{
    /// <summary>How long the way back stays open.</summary>
    public static TimeSpan Keeps { get; } = TimeSpan.FromDays(30);

    /// <summary>Removes what has been in the bin for longer, with all that belongs to it.</summary>
    public Task<int> ClearAsync(CancellationToken stop)
    {
        var before = clock.GetUtcNow() - Keeps;
        return context.Documents.Where(d => d.Place == DocumentPlace.Bin && d.SavedAt < before).ExecuteDeleteAsync(stop);
    }
}

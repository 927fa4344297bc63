using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>A document in the bin.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">Kind of document, such as "card".</param>
/// <param name="Name">Its name; empty where it has none.</param>
/// <param name="DeletedAt">When it was deleted.</param>
/// <param name="GoesAt">From when on it can go for good.</param>
/// <param name="Trials">How many trials go with it.</param>
public sealed record BinEntry(Guid Id, string Kind, string Name, DateTimeOffset DeletedAt, DateTimeOffset GoesAt, int Trials);

/// <summary>What was deleted, and when it goes for good.</summary>
public sealed class Bin(MillCardContext context, TimeProvider clock)
{
    /// <summary>How long the way back stays open.</summary>
    public static TimeSpan Keeps { get; } = TimeSpan.FromDays(30);

    private IQueryable<DocumentRow> Deleted => context.Documents.Where(d => d.Place == DocumentPlace.Bin);

    /// <summary>All that is in it, the last deleted first.</summary>
    public Task<List<BinEntry>> ListAsync(CancellationToken stop) => Deleted.OrderByDescending(d => d.SavedAt)
        .Select(d => new BinEntry(d.Id, d.Kind, d.Name, d.SavedAt, d.SavedAt + Keeps, context.Documents.Count(t => t.CardId == d.Id)))
        .ToListAsync(stop);

    /// <summary>Removes what has been in the bin for longer, with all that belongs to it.</summary>
    public Task<int> ClearOldAsync(CancellationToken stop)
    {
        var before = clock.GetUtcNow() - Keeps;
        return Deleted.Where(d => d.SavedAt < before).ExecuteDeleteAsync(stop);
    }

    /// <summary>Removes one document, or all, now.</summary>
    /// <param name="id">Which; null for all.</param>
    /// <param name="stop">Ends the wait.</param>
    /// <returns>How many went.</returns>
    public Task<int> ClearAsync(Guid? id, CancellationToken stop) => Deleted.Where(d => id == null || d.Id == id).ExecuteDeleteAsync(stop);
}

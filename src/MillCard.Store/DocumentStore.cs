using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using MillCard.Core.Documents;
using Npgsql;

namespace MillCard.Store;

/// <summary>A stored document.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Version">What a save must name to show that it saw this state.</param>
/// <param name="SavedAt">When the draft was last saved.</param>
/// <param name="Document">The draft.</param>
public sealed record Stored<T>(Guid Id, uint Version, DateTimeOffset SavedAt, T Document) where T : class, IDocument;

/// <summary>A document in a list.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name; empty where it has none yet.</param>
/// <param name="Version">What a save must name.</param>
/// <param name="SavedAt">When the draft was last saved.</param>
/// <param name="Summary">What lists show of it, JSON as stored; null where the name is enough.</param>
public sealed record DocumentEntry(Guid Id, string Name, uint Version, DateTimeOffset SavedAt, string? Summary);

/// <summary>What a save came to.</summary>
/// <param name="Saved">The new state; null where the save was refused.</param>
/// <param name="Current">The state in the database where somebody else saved in between.</param>
public sealed record SaveOutcome<T>(Stored<T>? Saved, Stored<T>? Current) where T : class, IDocument;

/// <summary>A document names another one that is not there.</summary>
public sealed class MissingReferenceException(string message, Exception inner) : Exception(message, inner);

/// <summary>Documents of one kind in the database.</summary>
public sealed class DocumentStore<T>(MillCardContext context, TimeProvider clock) where T : class, IDocument
{
    private static readonly string Kind = T.Kind;

    /// <summary>All of the kind that stand in a place, by name.</summary>
    /// <param name="place">Where.</param>
    /// <param name="cardId">Only those that belong to this card; null for all.</param>
    /// <param name="stop">Ends the query.</param>
    public Task<List<DocumentEntry>> ListAsync(DocumentPlace place, Guid? cardId, CancellationToken stop) =>
        context.Documents.AsNoTracking()
        .Where(d => d.Kind == Kind && d.Place == place && (cardId == null || d.CardId == cardId))
        .OrderBy(d => d.Name).ThenBy(d => d.CreatedAt)
        .Select(d => new DocumentEntry(d.Id, d.Name, d.Version, d.SavedAt, d.Summary))
        .ToListAsync(stop);

    /// <summary>All that stand on the shelf, whole.</summary>
    public async Task<IReadOnlyList<Stored<T>>> AllAsync(CancellationToken stop) =>
        [.. (await context.Documents.AsNoTracking().Where(d => d.Kind == Kind && d.Place == DocumentPlace.Shelf).OrderBy(d => d.Name)
            .ToListAsync(stop)).Select(Read)];

    /// <summary>Those on the shelf that were saved last, the latest first.</summary>
    public Task<List<Guid>> LatestAsync(int count, CancellationToken stop) =>
        context.Documents.AsNoTracking().Where(d => d.Kind == Kind && d.Place == DocumentPlace.Shelf)
            .OrderByDescending(d => d.SavedAt).ThenBy(d => d.Id).Select(d => d.Id).Take(count).ToListAsync(stop);

    /// <summary>One document, or null; one in the bin is not there.</summary>
    public async Task<Stored<T>?> FindAsync(Guid id, CancellationToken stop) =>
        await context.Documents.AsNoTracking()
            .FirstOrDefaultAsync(d => d.Id == id && d.Kind == Kind && d.Place != DocumentPlace.Bin, stop) is { } row ? Read(row) : null;

    /// <summary>Keeps a new document.</summary>
    /// <exception cref="MissingReferenceException">It belongs to a card that is not there.</exception>
    public async Task<Stored<T>> AddAsync(Guid id, T document, CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        var row = new DocumentRow { Id = id, Kind = Kind, Name = "", Draft = "", CreatedAt = now };
        row.Hold(document, now);
        context.Documents.Add(row);
        await SaveAsync(stop);
        return Read(row);
    }

    /// <summary>Saves a draft if nobody else has since the given version.</summary>
    /// <returns>Null where there is no such document.</returns>
    /// <exception cref="MissingReferenceException">It belongs to a card that is not there.</exception>
    public async Task<SaveOutcome<T>?> SaveAsync(Guid id, uint version, T document, CancellationToken stop)
    {
        if (await context.Documents.FirstOrDefaultAsync(d => d.Id == id && d.Kind == Kind, stop) is not { } row) return null;
        if (row.Version != version) return new SaveOutcome<T>(null, Read(row));
        row.Hold(document, clock.GetUtcNow());
        try
        {
            await SaveAsync(stop);
            return new SaveOutcome<T>(Read(row), null);
        }
        catch (DbUpdateConcurrencyException)
        {
            context.ChangeTracker.Clear();
            return await FindAsync(id, stop) is { } current ? new SaveOutcome<T>(null, current) : null;
        }
    }

    /// <summary>Puts a document somewhere else: away, into the bin, or back on its shelf.</summary>
    /// <returns>Whether there is one.</returns>
    public async Task<bool> PutAsync(Guid id, DocumentPlace place, CancellationToken stop) =>
        await context.Documents.Where(d => d.Id == id && d.Kind == Kind)
            .ExecuteUpdateAsync(d => d.SetProperty(x => x.Place, place).SetProperty(x => x.SavedAt, clock.GetUtcNow()), stop) > 0;

    private async Task SaveAsync(CancellationToken stop)
    {
        try
        {
            await context.SaveChangesAsync(stop);
        }
        catch (DbUpdateException broken) when (
            broken.InnerException is PostgresException
            {
                SqlState: PostgresErrorCodes.ForeignKeyViolation or PostgresErrorCodes.CheckViolation,
            })
        {
            throw new MissingReferenceException("It must belong to a card that is there.", broken);
        }
    }

    private static Stored<T> Read(DocumentRow row) =>
        new(row.Id, row.Version, row.SavedAt, JsonSerializer.Deserialize<T>(row.Draft, DocumentJson.Options)!);
}

using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>What saving a draft led to.</summary>
/// <param name="Row">The document as it stands now; null where there is none.</param>
/// <param name="Clash">Somebody saved in between: nothing was written, and <paramref name="Row"/> is theirs.</param>
public sealed record SaveOutcome(DocumentRow? Row, bool Clash);

/// <summary>Documents and their drafts.</summary>
public sealed class DocumentStore(MillCardContext context, TimeProvider clock)
{
    /// <summary>All documents of a kind by name, without their drafts.</summary>
    public Task<List<DocumentRow>> ListAsync(string kind, CancellationToken stop) => context.Documents.AsNoTracking()
        .Where(d => d.Kind == kind).OrderBy(d => d.Name).ThenBy(d => d.Id)
        .Select(d => new DocumentRow { Id = d.Id, Kind = d.Kind, Name = d.Name, Archived = d.Archived, Draft = "{}", Summary = d.Summary, Saved = d.Saved, Version = d.Version })
        .ToListAsync(stop);

    /// <summary>One document, or null.</summary>
    public Task<DocumentRow?> FindAsync(Guid id, CancellationToken stop) => context.Documents.AsNoTracking().FirstOrDefaultAsync(d => d.Id == id, stop);

    /// <summary>A new document. The id may be given, so that demo documents keep theirs.</summary>
    public async Task<DocumentRow> AddAsync(string kind, string name, string draft, string summary, CancellationToken stop, Guid? id = null)
    {
        var row = new DocumentRow { Id = id ?? Guid.CreateVersion7(clock.GetUtcNow()), Kind = kind, Name = name, Draft = draft, Summary = summary, Saved = clock.GetUtcNow() };
        context.Add(row);
        await context.SaveChangesAsync(stop);
        return row;
    }

    /// <summary>Saves a draft if nobody else has since.</summary>
    /// <param name="id">The document.</param>
    /// <param name="seen">The version that the change was made on.</param>
    /// <param name="name">Its name now.</param>
    /// <param name="draft">JSON.</param>
    /// <param name="summary">JSON.</param>
    /// <param name="stop">Ends the wait.</param>
    public async Task<SaveOutcome> SaveAsync(Guid id, uint seen, string name, string draft, string summary, CancellationToken stop)
    {
        var row = await context.Documents.FirstOrDefaultAsync(d => d.Id == id, stop);
        if (row is null) return new SaveOutcome(null, false);
        context.Entry(row).Property(d => d.Version).OriginalValue = seen;
        (row.Name, row.Draft, row.Summary, row.Saved) = (name, draft, summary, clock.GetUtcNow());
        try
        {
            await context.SaveChangesAsync(stop);
            return new SaveOutcome(row, false);
        }
        catch (DbUpdateConcurrencyException)
        {
            context.ChangeTracker.Clear();
            return new SaveOutcome(await FindAsync(id, stop), true);
        }
    }

    /// <summary>Deletes a document; tells whether there was one.</summary>
    public async Task<bool> DeleteAsync(Guid id, CancellationToken stop) => await context.Documents.Where(d => d.Id == id).ExecuteDeleteAsync(stop) > 0;
}

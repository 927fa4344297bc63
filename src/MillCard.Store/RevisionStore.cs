using Microsoft.EntityFrameworkCore;
using MillCard.Core.Documents;

namespace MillCard.Store;

/// <summary>The last revision of a card.</summary>
/// <param name="Card">The card's id.</param>
/// <param name="Number">The revision's number.</param>
/// <param name="Document">The card as it was, JSON.</param>
/// <param name="Draft">The card as it is now, JSON; null where it is the same.</param>
/// <param name="Proof">The revision's stamp; null where it has none.</param>
public sealed record LatestRevision(Guid Card, int Number, string Document, string? Draft, ProofRow? Proof);

/// <summary>A draft with the kind of its document, JSON.</summary>
public sealed record KeptDraft(string Kind, string Json);

/// <summary>Revisions of cards, filaments and recipes; proofs of cards, and real prints.</summary>
public sealed class RevisionStore(MillCardContext context, TimeProvider clock)
{
    /// <summary>The revisions of a document, the newest first.</summary>
    public Task<List<RevisionRow>> ListAsync(Guid document, CancellationToken stop) => context.Revisions.AsNoTracking()
        .Where(r => r.DocumentId == document).OrderByDescending(r => r.Number).ToListAsync(stop);

    /// <summary>One revision, or null.</summary>
    public Task<RevisionRow?> FindAsync(Guid document, int number, CancellationToken stop) => context.Revisions.AsNoTracking()
        .FirstOrDefaultAsync(r => r.DocumentId == document && r.Number == number, stop);

    /// <summary>Fixes a state under the next letter. Of several at once each gets a letter of its own.</summary>
    public async Task<RevisionRow> AddAsync(Guid id, string document, string note, string? who, CancellationToken stop)
    {
        await using var whole = await context.Database.BeginTransactionAsync(stop);
        // whoever else fixes this document waits here until this letter is taken
        await context.Database.ExecuteSqlAsync($"select 1 from document where id = {id} for update", stop);
        var last = await context.Revisions.Where(r => r.DocumentId == id).MaxAsync(r => (int?)r.Number, stop) ?? 0;
        var row = new RevisionRow
        {
            DocumentId = id,
            Number = last + 1,
            Document = document,
            Note = note,
            Who = who,
            At = clock.GetUtcNow()
        };
        context.Revisions.Add(row);
        await context.SaveChangesAsync(stop);
        await whole.CommitAsync(stop);
        return row;
    }

    /// <summary>The last revision of every card on the shelf that has one.</summary>
    public async Task<IReadOnlyList<LatestRevision>> LatestAsync(CancellationToken stop)
    {
        var rows = await (
            from d in context.Documents.AsNoTracking()
            where d.Kind == Card.Kind && d.Place == DocumentPlace.Shelf
            from r in context.Revisions.AsNoTracking().Where(r => r.DocumentId == d.Id).OrderByDescending(r => r.Number).Take(1)
            select new { d.Id, r.Number, r.Document, Draft = r.Document == d.Draft ? null : d.Draft }).ToListAsync(stop);
        var proofs = await context.Proofs.AsNoTracking().ToDictionaryAsync(p => (p.CardId, p.Number), stop);
        return [.. rows.Select(r => new LatestRevision(r.Id, r.Number, r.Document, r.Draft, proofs.GetValueOrDefault((r.Id, r.Number))))];
    }

    /// <summary>Drafts of documents that are not in the bin.</summary>
    public Task<Dictionary<Guid, KeptDraft>> DraftsAsync(IReadOnlyCollection<Guid> ids, CancellationToken stop) =>
        context.Documents.AsNoTracking().Where(d => ids.Contains(d.Id) && d.Place != DocumentPlace.Bin)
            .ToDictionaryAsync(d => d.Id, d => new KeptDraft(d.Kind, d.Draft), stop);

    /// <summary>The proofs of a card's revisions.</summary>
    public Task<List<ProofRow>> ProofsAsync(Guid card, CancellationToken stop) => context.Proofs.AsNoTracking().Where(p => p.CardId == card)
        .ToListAsync(stop);

    /// <summary>Stamps a revision, in place of an older stamp.</summary>
    public async Task StampAsync(ProofRow proof, CancellationToken stop)
    {
        await using var whole = await context.Database.BeginTransactionAsync(stop);
        await context.Proofs.Where(p => p.CardId == proof.CardId && p.Number == proof.Number).ExecuteDeleteAsync(stop);
        context.Proofs.Add(proof);
        await context.SaveChangesAsync(stop);
        await whole.CommitAsync(stop);
    }

    /// <summary>Real prints of a card, the newest first.</summary>
    public Task<List<PrintRow>> PrintsAsync(Guid card, CancellationToken stop) => context.Prints.AsNoTracking().Where(p => p.CardId == card)
        .OrderByDescending(p => p.At).Take(500).ToListAsync(stop);

    /// <summary>Notes a print.</summary>
    public async Task<PrintRow> NoteAsync(Guid card, string record, CancellationToken stop)
    {
        var row = new PrintRow { Id = Guid.CreateVersion7(), CardId = card, Record = record, At = clock.GetUtcNow() };
        context.Prints.Add(row);
        await context.SaveChangesAsync(stop);
        return row;
    }

    /// <summary>Gives a print its picture; false where there is no such print.</summary>
    public async Task<bool> PictureAsync(Guid card, Guid print, string hash, CancellationToken stop) =>
        await context.Prints.Where(p => p.CardId == card && p.Id == print)
            .ExecuteUpdateAsync(p => p.SetProperty(x => x.Picture, hash), stop) > 0;

    /// <summary>One print, or null.</summary>
    public Task<PrintRow?> PrintAsync(Guid card, Guid print, CancellationToken stop) => context.Prints.AsNoTracking()
        .FirstOrDefaultAsync(p => p.CardId == card && p.Id == print, stop);

    /// <summary>Strikes a print out; false where there is no such print.</summary>
    public async Task<bool> StrikeAsync(Guid card, Guid print, CancellationToken stop) =>
        await context.Prints.Where(p => p.CardId == card && p.Id == print).ExecuteDeleteAsync(stop) > 0;

    /// <summary>The letter of a revision: A to Z, AA, AB …</summary>
    public static string LetterOf(int number) => number <= 26 ? ((char)('A' + number - 1)).ToString()
        : LetterOf((number - 1) / 26) + LetterOf((number - 1) % 26 + 1);

    /// <summary>The number of a letter; 0 where it is none.</summary>
    public static int NumberOf(string letter) => letter.Length is > 0 and <= 4 && letter.All(c => c is >= 'A' and <= 'Z')
        ? letter.Aggregate(0, (sum, c) => sum * 26 + c - 'A' + 1) : 0;
}

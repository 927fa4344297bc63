using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using MillCard.Core.Documents;
using MillCard.Core.Patterns;

namespace MillCard.Store;

/// <summary>The newest version of a pattern, as the rack shows it.</summary>
/// <param name="Source">Id of its source.</param>
/// <param name="SourceName">What its source is called.</param>
/// <param name="LocalId">Its id within the source.</param>
/// <param name="Name">What it is called.</param>
/// <param name="About">One sentence.</param>
/// <param name="Versions">All versions that are here, the newest first.</param>
/// <param name="Listed">Whether its maker still lists it.</param>
/// <param name="Summary">What the rack shows of the newest version, JSON.</param>
public sealed record KeptPattern(string Source, string SourceName, string LocalId, string Name, string About,
    IReadOnlyList<KeptVersion> Versions, bool Listed, string Summary);

/// <summary>A version of a pattern.</summary>
public sealed record KeptVersion(int Version, string Note, DateTimeOffset? At);

/// <summary>Pattern sources that were taken, and their patterns.</summary>
public sealed class PatternStore(MillCardContext context, TimeProvider clock)
{
    /// <summary>All sources, by name.</summary>
    public async Task<IReadOnlyList<PatternSourceRow>> SourcesAsync(CancellationToken stop) =>
        await context.PatternSources.AsNoTracking().OrderBy(s => s.Name).ThenBy(s => s.Id).ToListAsync(stop);

    /// <summary>A source, or null.</summary>
    public Task<PatternSourceRow?> SourceAsync(string id, CancellationToken stop) =>
        context.PatternSources.AsNoTracking().FirstOrDefaultAsync(s => s.Id == id, stop);

    /// <summary>How many patterns each source offers.</summary>
    public Task<Dictionary<string, int>> OfferedAsync(CancellationToken stop) => context.PatternVersions.Where(v => v.Listed)
        .Select(v => new { v.SourceId, v.PatternId }).Distinct().GroupBy(v => v.SourceId)
        .Select(g => new { g.Key, Count = g.Count() }).ToDictionaryAsync(s => s.Key, s => s.Count, stop);

    /// <summary>All patterns of all sources, by source and name.</summary>
    public async Task<IReadOnlyList<KeptPattern>> PatternsAsync(CancellationToken stop)
    {
        var names = await context.PatternSources.AsNoTracking().ToDictionaryAsync(s => s.Id, s => s.Name, stop);
        var rows = await context.PatternVersions.AsNoTracking()
            .Select(v => new { v.SourceId, v.PatternId, v.Version, v.Name, v.About, v.Note, v.At, v.Listed, v.Summary }).ToListAsync(stop);
        return [.. rows.GroupBy(v => (v.SourceId, v.PatternId)).Select(g => (g.Key, Rows: g.OrderByDescending(v => v.Listed)
            .ThenByDescending(v => v.Version).ToArray()))
            .Select(g => new KeptPattern(g.Key.SourceId, names[g.Key.SourceId], g.Key.PatternId, g.Rows[0].Name, g.Rows[0].About,
                [.. g.Rows.Select(v => new KeptVersion(v.Version, v.Note, v.At))], g.Rows[0].Listed, g.Rows[0].Summary))
            .OrderBy(p => p.SourceName, StringComparer.Ordinal).ThenBy(p => p.Name, StringComparer.Ordinal)];
    }

    /// <summary>A version of a pattern, whether it is still listed or not; the newest that is listed where none is named.</summary>
    public async Task<Pattern?> PatternAsync(string source, string localId, int? version, CancellationToken stop)
    {
        var own = context.PatternVersions.AsNoTracking().Where(v => v.SourceId == source && v.PatternId == localId);
        var row = await (version is { } asked ? own.Where(v => v.Version == asked)
            : own.OrderByDescending(v => v.Listed).ThenByDescending(v => v.Version)).FirstOrDefaultAsync(stop);
        return row is null ? null : new Pattern(source, localId, row.Version, row.Name, row.About,
            JsonSerializer.Deserialize<Card>(row.Card, DocumentJson.Options)!)
        { Note = row.Note, At = row.At, Sha256 = row.Sha256 };
    }

    /// <summary>What is known of a source; null where nothing is.</summary>
    public async Task<KnownSource?> KnownAsync(string id, CancellationToken stop)
    {
        if (await SourceAsync(id, stop) is not { } row) return null;
        var sums = await context.PatternVersions.AsNoTracking().Where(v => v.SourceId == id)
            .Select(v => new { v.PatternId, v.Version, v.Sha256 }).ToListAsync(stop);
        return new KnownSource(new SourceKey(row.Key), row.Number, row.Sha256,
            sums.ToDictionary(v => (v.PatternId, v.Version), v => v.Sha256));
    }

    /// <summary>Takes a source as it was read: all of it, or nothing. Its key is pinned where it is new.</summary>
    /// <param name="read">The source.</param>
    /// <param name="place">Where it is read from again; null keeps the place that it has.</param>
    /// <param name="stop">Ends the wait.</param>
    /// <exception cref="SourceRefusedException">It is not what may follow on what is here.</exception>
    public async Task TakeAsync(PublishedSource read, string? place, CancellationToken stop)
    {
        await using var whole = await context.Database.BeginTransactionAsync(stop);
        var list = read.List.Index;
        var standing = KnownSource.StandingOf(read, await KnownAsync(list.Id, stop));
        if (KnownSource.Refused(standing, list.Name) is { } why) throw new SourceRefusedException(why);
        var now = clock.GetUtcNow();
        var row = await context.PatternSources.FirstOrDefaultAsync(s => s.Id == list.Id, stop);
        if (row is null)
        {
            row = new PatternSourceRow { Id = list.Id, Name = "", About = "", Place = "", Key = read.List.Key.Base64, Sha256 = "" };
            context.PatternSources.Add(row);
        }
        if (place is not null) row.Place = place;
        if (row.Sha256 != read.List.Sha256) row.TakenAt = now;
        (row.Name, row.About, row.Number, row.Sha256) = (list.Name, list.About, list.Number, read.List.Sha256);
        (row.SignedAt, row.LookedAt, row.Trouble) = (list.At?.ToUniversalTime(), now, null);
        var kept = await context.PatternVersions.Where(v => v.SourceId == list.Id)
            .ToDictionaryAsync(v => (v.PatternId, v.Version), stop);
        foreach (var gone in kept.Values) gone.Listed = false;
        foreach (var pattern in read.Patterns)
        {
            if (!kept.TryGetValue((pattern.LocalId, pattern.Version), out var version))
                context.PatternVersions.Add(version = RowOf(pattern));
            (version.Name, version.About, version.Note) = (pattern.Name, pattern.About, pattern.Note);
            (version.At, version.Listed) = (pattern.At?.ToUniversalTime(), true);
        }
        await context.SaveChangesAsync(stop);
        await whole.CommitAsync(stop);
    }

    /// <summary>Notes that a source was looked at and could not be taken.</summary>
    public Task NoteTroubleAsync(string id, string why, CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        return context.PatternSources.Where(s => s.Id == id)
            .ExecuteUpdateAsync(s => s.SetProperty(r => r.Trouble, why).SetProperty(r => r.LookedAt, now), stop);
    }

    /// <summary>Forgets a source with its key and its patterns. Cards that were made from them stay as they are.</summary>
    /// <returns>Whether it was there.</returns>
    public async Task<bool> ForgetAsync(string id, CancellationToken stop) =>
        await context.PatternSources.Where(s => s.Id == id).ExecuteDeleteAsync(stop) > 0;

    private static PatternVersionRow RowOf(Pattern pattern) => new()
    {
        SourceId = pattern.Source,
        PatternId = pattern.LocalId,
        Version = pattern.Version,
        Name = pattern.Name,
        About = pattern.About,
        Note = pattern.Note,
        Sha256 = pattern.Sha256,
        Card = JsonSerializer.Serialize(pattern.Card, DocumentJson.Options),
        Summary = JsonSerializer.Serialize(pattern.Summary, DocumentJson.Options),
    };
}

using MillCard.Core.Patterns;
using MillCard.Store;

namespace MillCard.Web.Sources;

/// <summary>A pattern source as it was read, held against what is here.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">What it is called.</param>
/// <param name="About">What it holds.</param>
/// <param name="Number">Number of its list.</param>
/// <param name="SignedAt">When it was signed; null where nobody said.</param>
/// <param name="Key">Fingerprint of the key that signed it.</param>
/// <param name="Standing">How it stands to what is here.</param>
/// <param name="Refused">Why it cannot be taken; empty where it can.</param>
/// <param name="Patterns">Its patterns, in their newest versions.</param>
/// <param name="Left">What is not understood here, a sentence each.</param>
internal sealed record SourceReview(string Id, string Name, string About, int Number, DateTimeOffset? SignedAt, string Key,
    SourceStanding Standing, string Refused, IReadOnlyList<ReviewedPattern> Patterns, IReadOnlyList<string> Left);

/// <summary>A pattern of a source that was read.</summary>
/// <param name="Name">What it is called.</param>
/// <param name="About">One sentence.</param>
/// <param name="Version">Its newest version.</param>
/// <param name="Note">What is new in it.</param>
/// <param name="Here">The newest version that is here already; null where none is.</param>
internal sealed record ReviewedPattern(string Name, string About, int Version, string Note, int? Here);

/// <summary>Looks at pattern sources and takes them, their keys pinned.</summary>
internal sealed class SourceDesk(PatternStore store, SourcePlaces places)
{
    /// <summary>How a source that was read stands; nothing is kept.</summary>
    public async Task<SourceReview> ReviewAsync(PublishedSource read, CancellationToken stop)
    {
        var list = read.List.Index;
        var known = await store.KnownAsync(list.Id, stop);
        var standing = KnownSource.StandingOf(read, known);
        int? Here(string pattern) => known?.Versions.Keys.Where(v => v.Pattern == pattern).Select(v => (int?)v.Version).Max();
        return new SourceReview(list.Id, list.Name, list.About, list.Number, list.At, read.List.Key.Fingerprint, standing,
            KnownSource.Refused(standing, list.Name) ?? "", [.. read.Patterns.GroupBy(p => p.LocalId).Select(g => g.MaxBy(p => p.Version)!)
                .Select(p => new ReviewedPattern(p.Name, p.About, p.Version, p.Note, Here(p.LocalId)))], read.Left);
    }

    /// <summary>Takes a source that somebody has looked at.</summary>
    /// <param name="read">The source as it is now.</param>
    /// <param name="key">Fingerprint of the key that was looked at.</param>
    /// <param name="place">Where it lies; null where it was dropped.</param>
    /// <param name="stop">Ends it.</param>
    /// <exception cref="SourceRefusedException">It is not taken.</exception>
    public Task TakeAsync(PublishedSource read, string key, string? place, CancellationToken stop) => read.List.Key.Fingerprint == key
        ? store.TakeAsync(read, place, stop)
        : throw new SourceRefusedException("The key is another than the one that was looked at.");

    /// <summary>Reads a source again from its place, and takes what is newer; what went wrong is noted with it.</summary>
    /// <returns>Whether there is such a source with a place.</returns>
    public async Task<bool> LookAgainAsync(string id, CancellationToken stop)
    {
        if (await store.SourceAsync(id, stop) is not { Place.Length: > 0 } source) return false;
        try
        {
            var read = await places.AtAsync(source.Place, stop);
            if (read.List.Index.Id != id)
                throw new SourceRefusedException($"At {source.Place} lies another source now: {read.List.Index.Name}.");
            await store.TakeAsync(read, source.Place, stop);
        }
        catch (SourceRefusedException refused)
        {
            await store.NoteTroubleAsync(id, refused.Message, stop);
        }
        return true;
    }
}

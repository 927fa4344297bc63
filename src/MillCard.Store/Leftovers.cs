using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>Files that nothing names any more.</summary>
public sealed class Leftovers(MillCardContext context, TimeProvider clock)
{
    /// <summary>How long a file stays that nothing names: it may have been sent for a document that is not saved yet, or an undo may bring
    /// it back.</summary>
    public static TimeSpan Keeps { get; } = TimeSpan.FromDays(7);

    /// <summary>Removes files that no run, print, document or revision names, and that nobody has sent for some time.</summary>
    /// <returns>How many went, and their bytes.</returns>
    public async Task<(int Files, long Bytes)> ClearAsync(CancellationToken stop)
    {
        var before = clock.GetUtcNow() - Keeps;
        // a document names a file by its hash somewhere in its text; anything that looks like one counts
        FormattableString clear = $$"""
            with named as (
                select program as hash from run
                union select layers from run where layers is not null
                union select picture from print where picture is not null
                union select program from proof
                union select m[1] from document, regexp_matches(draft::text, '"([0-9a-f]{64})"', 'g') m
                union select m[1] from revision, regexp_matches(document::text, '"([0-9a-f]{64})"', 'g') m
            ), gone as (
                delete from blob where at < {{before}} and not exists (select 1 from named where named.hash = blob.hash)
                returning length(bytes) as size
            )
            select count(*)::int as "Files", coalesce(sum(size), 0)::bigint as "Bytes" from gone
            """;
        var gone = await context.Database.SqlQuery<Gone>(clear).ToListAsync(stop);
        return (gone[0].Files, gone[0].Bytes);
    }

    private sealed record Gone(int Files, long Bytes);
}

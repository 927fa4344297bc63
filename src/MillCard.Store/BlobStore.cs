using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;

namespace MillCard.Store;

/// <summary>Bytes by their SHA-256.</summary>
public sealed class BlobStore(MillCardContext context, TimeProvider clock)
{
    /// <summary>Keeps bytes; the same bytes are kept once, as if sent now.</summary>
    /// <returns>Their hash, lower-case hexadecimal.</returns>
    public async Task<string> KeepAsync(byte[] bytes, string mediaType, CancellationToken stop)
    {
        var hash = Convert.ToHexStringLower(SHA256.HashData(bytes));
        await context.Database.ExecuteSqlAsync($"""
            insert into blob (hash, bytes, media_type, at) values ({hash}, {bytes}, {mediaType}, {clock.GetUtcNow()})
            on conflict (hash) do update set at = excluded.at
            """, stop);
        return hash;
    }

    /// <summary>The bytes of a hash, or null.</summary>
    public Task<BlobRow?> FindAsync(string hash, CancellationToken stop) => context.Blobs.AsNoTracking()
        .FirstOrDefaultAsync(b => b.Hash == hash, stop);
}

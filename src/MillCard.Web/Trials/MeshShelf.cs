using Microsoft.Extensions.Caching.Memory;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Store;
using MillCard.Web.Work;

namespace MillCard.Web.Trials;

/// <summary>A mesh that has been read, with the projections it has in one orientation.</summary>
/// <param name="Mesh">As the file has it.</param>
/// <param name="Footprints">Scaled and tilted.</param>
internal sealed record ShelvedMesh(Mesh Mesh, Footprints Footprints);

/// <summary>Meshes that were asked for lately, by hash and orientation, so that a dragged part is read and projected once.</summary>
internal sealed class MeshShelf(WorkQueue queue) : IDisposable
{
    private readonly MemoryCache _shelf = new(new MemoryCacheOptions { SizeLimit = 1L << 30 });

    /// <summary>The mesh of a part, in its scale and tilt.</summary>
    /// <exception cref="MeshRefusedException">There is no such mesh.</exception>
    public Task<ShelvedMesh> TakeAsync(TrialPart part, BlobStore blobs, CancellationToken stop) =>
        TakeAsync(part.File, Stance.Of(part), blobs, stop);

    /// <summary>Parts as they stand.</summary>
    /// <exception cref="MeshRefusedException">There is no such mesh.</exception>
    public async Task<IReadOnlyList<StandingPart>> StandingAsync(IReadOnlyList<TrialPart> parts, BlobStore blobs, CancellationToken stop)
    {
        var standing = new List<StandingPart>(parts.Count);
        foreach (var part in parts) standing.Add(StandingPart.Of(part, (await TakeAsync(part, blobs, stop)).Footprints));
        return standing;
    }

    /// <summary>The mesh of a hash as it stands, from the shelf or from the database.</summary>
    /// <exception cref="MeshRefusedException">There is no such mesh.</exception>
    public async Task<ShelvedMesh> TakeAsync(string hash, Stance stance, BlobStore blobs, CancellationToken stop)
    {
        var (scale, tilt) = (stance.Scale, stance.Tilt);
        var key = (hash, scale?.X ?? 1, scale?.Y ?? 1, scale?.Z ?? 1, scale?.Mirrored ?? false, tilt?.X ?? 0, tilt?.Y ?? 0, stance.Lift);
        if (_shelf.TryGetValue(key, out ShelvedMesh? known)) return known!;
        var read = await AsReadAsync(hash, blobs, stop);
        var shelved = new ShelvedMesh(read,
            await queue.BySizeAsync(SizeOf(read), left => stance.Stood(read, left), stop));
        // the projections keep a copy of their own and a table of neighbours
        return _shelf.Set(key, shelved, new MemoryCacheEntryOptions { Size = 2 * SizeOf(read) });
    }

    /// <summary>The mesh of a hash as its file has it, from the shelf or from the database.</summary>
    /// <exception cref="MeshRefusedException">There is no such mesh.</exception>
    public async Task<Mesh> AsReadAsync(string hash, BlobStore blobs, CancellationToken stop)
    {
        if (_shelf.TryGetValue(hash, out Mesh? known)) return known!;
        var row = await blobs.FindAsync(hash, stop)
            ?? throw new MeshRefusedException("The file of this part is not there any more; drop it on the bed again.");
        return Put(hash, await queue.BySizeAsync(row.Bytes.Length, left => MeshFile.ReadOne(row.Bytes, left), stop));
    }

    /// <summary>Puts a mesh that was just read on the shelf.</summary>
    public Mesh Put(string hash, Mesh mesh) => _shelf.Set(hash, mesh, new MemoryCacheEntryOptions { Size = SizeOf(mesh) });

    public void Dispose() => _shelf.Dispose();

    /// <summary>Bytes that a mesh takes in memory.</summary>
    public static long SizeOf(Mesh mesh) => 4L * (mesh.Corners.Length + mesh.Faces.Length) + 1024;
}

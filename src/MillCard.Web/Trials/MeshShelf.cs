using Microsoft.Extensions.Caching.Memory;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Store;

namespace MillCard.Web.Trials;

/// <summary>A mesh that has been read, with its projections.</summary>
internal sealed record ShelvedMesh(Mesh Mesh, Footprints Footprints);

/// <summary>Meshes that were asked for lately, by hash, so that a dragged part is read and projected once.</summary>
internal sealed class MeshShelf : IDisposable
{
    private readonly MemoryCache _shelf = new(new MemoryCacheOptions { SizeLimit = 1L << 30 });

    /// <summary>The mesh of a hash, from the shelf or from the database.</summary>
    /// <exception cref="MeshRefusedException">There is no such mesh.</exception>
    public async Task<ShelvedMesh> TakeAsync(string hash, BlobStore blobs, CancellationToken stop)
    {
        if (_shelf.TryGetValue(hash, out ShelvedMesh? known)) return known!;
        var row = await blobs.FindAsync(hash, stop) ?? throw new MeshRefusedException("The file of this part is not there any more; drop it on the bed again.");
        return Put(hash, Stl.Read(row.Bytes));
    }

    /// <summary>Puts a mesh that was just read on the shelf.</summary>
    public ShelvedMesh Put(string hash, Mesh mesh)
    {
        var shelved = new ShelvedMesh(mesh, new Footprints(mesh));
        // corners and faces, twice over for the projections' own copy and its table of neighbours
        return _shelf.Set(hash, shelved, new MemoryCacheEntryOptions { Size = 8L * (mesh.Corners.Length + mesh.Faces.Length) + 1024 });
    }

    public void Dispose() => _shelf.Dispose();
}

using System.Net;
using System.Net.Sockets;
using MillCard.Core.Packets;
using MillCard.Core.Patterns;
using MillCard.Web.Http;

namespace MillCard.Web.Sources;

/// <summary>Reads pattern sources from where they lie: in folders and at hosts that the server's configuration lists, nowhere else.
/// </summary>
internal sealed class SourcePlaces(IConfiguration configuration) : IDisposable
{
    private const int AtOnce = 4;
    private const int Piece = 81920;
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(2);

    // what is not listed is not asked, however an answer points at it
    private readonly HttpClient _client = new(new SocketsHttpHandler
    {
        AllowAutoRedirect = false,
        UseProxy = false,
        UseCookies = false,
        ConnectTimeout = TimeSpan.FromSeconds(10),
    })
    { Timeout = Timeout.InfiniteTimeSpan };

    /// <summary>Folders below which sources may lie.</summary>
    public IReadOnlyList<string> Folders => configuration.GetSection("Patterns:Folders").Get<string[]>() ?? [];
    /// <summary>Hosts that may be asked.</summary>
    public IReadOnlyList<string> Hosts => configuration.GetSection("Patterns:Hosts").Get<string[]>() ?? [];

    /// <summary>Reads the source at a place.</summary>
    /// <param name="place">A folder, a zip, or an address of either.</param>
    /// <param name="stop">Ends it.</param>
    /// <exception cref="SourceRefusedException">It may not be asked, cannot be reached, or is not what was signed.</exception>
    public async Task<PublishedSource> AtAsync(string place, CancellationToken stop)
    {
        using var bound = CancellationTokenSource.CreateLinkedTokenSource(stop);
        bound.CancelAfter(Longest);
        try
        {
            return place.Contains("://", StringComparison.Ordinal) ? await AtAddressAsync(Allowed(place), bound.Token)
                : OnDisk(Below(place), bound.Token);
        }
        catch (OperationCanceledException) when (!stop.IsCancellationRequested)
        {
            throw new SourceRefusedException($"{place} did not give everything within {Longest.TotalMinutes:0} minutes.");
        }
        catch (Exception failure) when (failure is HttpRequestException or IOException or SocketException)
        {
            throw new SourceRefusedException($"{place} could not be read: {failure.GetBaseException().Message}");
        }
        catch (UnauthorizedAccessException)
        {
            throw new SourceRefusedException($"{place} may not be read by this server.");
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _client.Dispose();

    private Uri Allowed(string place)
    {
        if (!Uri.TryCreate(place, UriKind.Absolute, out var address) || address.Scheme is not ("http" or "https")
            || address.UserInfo.Length > 0)
            throw new SourceRefusedException("This is no address that can be asked; it begins with https://.");
        if (!Hosts.Contains(address.IdnHost, StringComparer.OrdinalIgnoreCase))
            throw new SourceRefusedException($"{address.IdnHost} is not allowed: only hosts are asked that the server's configuration "
                + "lists under Patterns:Hosts. What was fetched by other means can be dropped here.");
        if (address.Scheme == "http" && !address.IsLoopback)
            throw new SourceRefusedException("Another machine is asked by https only.");
        return address;
    }

    private string Below(string place)
    {
        var within = Folders.Select(Path.GetFullPath).Select(folder => (Folder: folder, Full: Path.GetFullPath(place, folder)))
            .Where(f => f.Full == f.Folder || f.Full.StartsWith(Path.TrimEndingDirectorySeparator(f.Folder) + Path.DirectorySeparatorChar,
                StringComparison.Ordinal)).Select(f => f.Full).ToArray();
        var full = within.FirstOrDefault(Path.Exists) ?? within.FirstOrDefault();
        if (full is null)
            throw new SourceRefusedException("Folders are read only below " + (Folders.Count > 0 ? string.Join(", ", Folders)
                : "those that the server's configuration lists under Patterns:Folders") + ". Others can be dropped here.");
        return Path.Exists(full) ? full : throw new SourceRefusedException($"{place} is not there.");
    }

    private static PublishedSource OnDisk(string path, CancellationToken stop)
    {
        if (File.Exists(path)) return InZip(Path.GetFileName(path), Bounded(path, Bounds.Packet)!.Value, stop);
        ReadOnlyMemory<byte>? At(string name) => Bounded(Path.Combine(path, name), Bounds.Document);
        var index = At(PatternIndex.FileName) ?? throw new SourceRefusedException($"{path} holds no {PatternIndex.FileName}.");
        return PublishedSource.Of(SignedIndex.Of(index, At(SourceSignature.FileName)), At, stop);
    }

    private static ReadOnlyMemory<byte>? Bounded(string path, long most)
    {
        var file = new FileInfo(path);
        if (!file.Exists) return null;
        return file.Length <= most ? File.ReadAllBytes(path) : throw TooLarge(path, most);
    }

    private static PublishedSource InZip(string name, ReadOnlyMemory<byte> bytes, CancellationToken stop)
    {
        var files = Unpacking.Of([new DroppedFile(name, bytes)], stop).Files;
        return PublishedSource.HomesIn(files) is [var home, ..] ? PublishedSource.Of(files, home, stop)
            : throw new SourceRefusedException($"{name} holds no {PatternIndex.FileName}.");
    }

    private async Task<PublishedSource> AtAddressAsync(Uri address, CancellationToken stop)
    {
        if (address.AbsolutePath.EndsWith(".zip", StringComparison.OrdinalIgnoreCase))
            return InZip(address.Segments[^1], await FetchedAsync(address, Bounds.Packet, stop), stop);
        var home = address.AbsolutePath.EndsWith('/') ? address : new UriBuilder(address) { Path = address.AbsolutePath + "/" }.Uri;
        var index = await FetchedAsync(new Uri(home, PatternIndex.FileName), SignedIndex.MostBytes, stop);
        var list = SignedIndex.Of(index, await FetchedAsync(new Uri(home, SourceSignature.FileName), SignedIndex.MostBytes, stop));
        var paths = list.Index.Patterns.SelectMany(p => p.Versions).Select(v => v.Path).Distinct().ToArray();
        var (files, left) = (new ReadOnlyMemory<byte>[paths.Length], Bounds.Packet);
        await Parallel.ForAsync(0, paths.Length, new ParallelOptions { MaxDegreeOfParallelism = AtOnce, CancellationToken = stop },
            async (i, token) =>
            {
                files[i] = await FetchedAsync(new Uri(home, paths[i]), Math.Min(Bounds.Document, Interlocked.Read(ref left)), token);
                Interlocked.Add(ref left, -files[i].Length);
            });
        var byPath = paths.Zip(files).ToDictionary(f => f.First, f => f.Second, StringComparer.Ordinal);
        return PublishedSource.Of(list, path => byPath[path], stop);
    }

    private async Task<ReadOnlyMemory<byte>> FetchedAsync(Uri address, long most, CancellationToken stop)
    {
        using var answer = await _client.GetAsync(address, HttpCompletionOption.ResponseHeadersRead, stop);
        if (answer.StatusCode != HttpStatusCode.OK)
            throw new SourceRefusedException(Invariant($"{address} answered with {(int)answer.StatusCode}."));
        await using var stream = await answer.Content.ReadAsStreamAsync(stop);
        using var whole = new MemoryStream();
        var piece = new byte[Piece];
        for (int read; (read = await stream.ReadAsync(piece, stop)) > 0;)
        {
            if (whole.Length + read > most) throw TooLarge(address.ToString(), most);
            whole.Write(piece, 0, read);
        }
        return whole.ToArray();
    }

    private static SourceRefusedException TooLarge(string what, long most) =>
        new(Invariant($"{what} is larger than the {most >> 20} MB that are read of it."));
}

using System.IO.Compression;
using System.Runtime.InteropServices;

namespace MillCard.Core.Packets;

/// <summary>Opens zips, zips in zips included, within bounds.</summary>
public static class Unpacking
{
    /// <summary>Most bytes that all files together unpack to.</summary>
    public const long MostBytes = 512L << 20;
    /// <summary>Most files.</summary>
    public const int MostFiles = 6000;
    /// <summary>How deep zips may lie in zips.</summary>
    public const int Deepest = 4;

    private const int LongestPath = 600;

    /// <summary>All files, those in zips included; a 3MF or a packed AMF is a file of its own.</summary>
    /// <param name="dropped">What was dropped.</param>
    /// <param name="stop">Ends it.</param>
    public static (IReadOnlyList<DroppedFile> Files, IReadOnlyList<UnopenedFile> Unopened) Of(IEnumerable<DroppedFile> dropped,
        CancellationToken stop)
    {
        var all = new Opened();
        foreach (var file in dropped) Take(file, 0, all, stop);
        return (all.Files, all.Unopened);
    }

    private sealed class Opened
    {
        public List<DroppedFile> Files { get; } = [];
        public List<UnopenedFile> Unopened { get; } = [];
        public long Bytes { get; set; }
        public bool IsFull => Files.Count + Unopened.Count >= MostFiles;
        public void Leave(string path, string why) => Unopened.Add(new UnopenedFile(path, why));
    }

    private static void Take(DroppedFile file, int depth, Opened all, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        if (all.IsFull) return;
        if (file.Bytes.Span is not [(byte)'P', (byte)'K', 3 or 5, 4 or 6, ..])
        {
            all.Files.Add(file);
            return;
        }
        try
        {
            using var zip = new ZipArchive(StreamOf(file.Bytes), ZipArchiveMode.Read);
            if (zip.Entries.Any(IsOfMesh)) all.Files.Add(file);
            else if (depth >= Deepest) all.Leave(file.Path, $"It lies in more than {Deepest} zips; unpack the outer ones first.");
            else foreach (var entry in zip.Entries) Take(entry, file.Path, depth, all, stop);
        }
        catch (Exception broken) when (broken is InvalidDataException or NotSupportedException or IOException or ArgumentException)
        {
            all.Leave(file.Path, "This zip is broken or cut short; make it again.");
        }
    }

    private static void Take(ZipArchiveEntry entry, string zip, int depth, Opened all, CancellationToken stop)
    {
        // some programs write the other stroke between folders
        var name = entry.FullName.Replace('\\', '/');
        if (name.EndsWith('/') || IsOfTheSystem(name)) return;
        var path = $"{zip}/{name}";
        if (path.Length > LongestPath) path = path[..LongestPath] + "…";
        if (all.IsFull)
        {
            if (all.Files.Count + all.Unopened.Count == MostFiles) all.Leave(path,
                $"Only {MostFiles} files are opened at once; the rest is left.");
            return;
        }
        if (entry.IsEncrypted)
        {
            all.Leave(path, "It is locked with a password.");
            return;
        }
        try
        {
            if (Read(entry, MostBytes - all.Bytes, stop) is not { } bytes)
            {
                all.Leave(path, $"All files together unpack to more than {MostBytes >> 20} MB.");
                return;
            }
            all.Bytes += bytes.Length;
            Take(new DroppedFile(path, bytes), depth + 1, all, stop);
        }
        catch (Exception broken) when (broken is InvalidDataException or NotSupportedException or IOException or ArgumentException)
        {
            all.Leave(path, "It is broken, or packed in a way that is not known here.");
        }
    }

    /// <summary>The bytes of an entry, whatever it claims of its length; null where they are more than may be.</summary>
    private static byte[]? Read(ZipArchiveEntry entry, long most, CancellationToken stop)
    {
        using var stream = entry.Open();
        using var whole = new MemoryStream();
        var piece = new byte[16384];
        for (int read; (read = stream.Read(piece)) > 0;)
        {
            stop.ThrowIfCancellationRequested();
            if (whole.Length + read > most) return null;
            whole.Write(piece, 0, read);
        }
        return whole.ToArray();
    }

    /// <summary>The bytes as a stream, without a copy of them where they are an array's.</summary>
    private static MemoryStream StreamOf(ReadOnlyMemory<byte> bytes) => MemoryMarshal.TryGetArray(bytes, out var own)
        ? new MemoryStream(own.Array!, own.Offset, own.Count, writable: false) : new MemoryStream(bytes.ToArray(), writable: false);

    private static bool IsOfMesh(ZipArchiveEntry entry) =>
        entry.FullName.EndsWith(".model", StringComparison.OrdinalIgnoreCase)
        || entry.FullName.EndsWith(".amf", StringComparison.OrdinalIgnoreCase) && !entry.FullName.Contains('/', StringComparison.Ordinal);

    /// <summary>What systems add to zips of their own accord.</summary>
    private static bool IsOfTheSystem(string path) =>
        path.StartsWith("__MACOSX/", StringComparison.Ordinal) || path.Split('/')[^1] is ".DS_Store" or "Thumbs.db" or "desktop.ini";
}

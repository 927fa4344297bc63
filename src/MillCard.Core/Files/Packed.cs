using System.IO.Compression;
using MillCard.Core.Meshes;

namespace MillCard.Core.Files;

/// <summary>Mesh files in a zip archive: 3MF, and AMF that is packed.</summary>
internal static class Packed
{
    /// <summary>Most bytes that one file of an archive unpacks to.</summary>
    public const long MostBytes = 600L * 1024 * 1024;

    private const int MostEntries = 2000;

    public static IReadOnlyList<FilePart> Read(ReadOnlyMemory<byte> file, CancellationToken stop)
    {
        try
        {
            using var archive = new ZipArchive(new MemoryStream(file.ToArray(), writable: false), ZipArchiveMode.Read);
            if (archive.Entries.Count > MostEntries)
                throw new MeshRefusedException($"This archive has {archive.Entries.Count} entries; at most {MostEntries} are read.");
            if (archive.Entries.Any(e => e.FullName.EndsWith(".model", StringComparison.OrdinalIgnoreCase)))
                return ThreeMf.Read(archive, stop);
            if (archive.Entries.FirstOrDefault(e => e.FullName.EndsWith(".amf", StringComparison.OrdinalIgnoreCase)) is { } amf)
            {
                using var stream = Open(amf, stop);
                return Amf.Read(stream, stop);
            }
            throw new MeshRefusedException("This archive holds neither a 3MF model nor an AMF.");
        }
        catch (InvalidDataException broken)
        {
            throw new MeshRefusedException("This archive is broken or cut short; export it again.", broken);
        }
    }

    /// <summary>An entry that refuses to give more than it may, whatever it claims.</summary>
    public static Stream Open(ZipArchiveEntry entry, CancellationToken stop) => new Bounded(entry.Open(), entry.FullName, stop);

    private sealed class Bounded(Stream inner, string name, CancellationToken stop) : Stream
    {
        private long _read;

        public override int Read(byte[] buffer, int offset, int count)
        {
            stop.ThrowIfCancellationRequested();
            var got = inner.Read(buffer, offset, count);
            if ((_read += got) > MostBytes)
                throw new MeshRefusedException($"{name} unpacks to more than {MostBytes / (1024 * 1024)} MB; that is not read.");
            return got;
        }

        public override bool CanRead => true;
        public override bool CanSeek => false;
        public override bool CanWrite => false;
        public override long Length => throw new NotSupportedException();
        public override long Position { get => _read; set => throw new NotSupportedException(); }
        public override void Flush() { }
        public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();
        public override void SetLength(long value) => throw new NotSupportedException();
        public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();

        protected override void Dispose(bool disposing)
        {
            if (disposing) inner.Dispose();
            base.Dispose(disposing);
        }
    }
}

using System.Security.Cryptography;
using MillCard.Core.Documents;
using MillCard.Core.Packets;

namespace MillCard.Core.Patterns;

/// <summary>A list whose signature holds.</summary>
/// <param name="Index">The list.</param>
/// <param name="Key">With which key it was signed.</param>
/// <param name="Sha256">Checksum of the list's bytes, hexadecimal.</param>
public sealed record SignedIndex(PatternIndex Index, SourceKey Key, string Sha256)
{
    /// <summary>Most bytes of a list.</summary>
    public const int MostBytes = 1 << 20;
    /// <summary>Most versions in one list.</summary>
    public const int MostVersions = 2000;

    /// <summary>Reads a list.</summary>
    /// <param name="index">Its bytes.</param>
    /// <param name="signature">Bytes of the file with its signature; null where there is none.</param>
    /// <exception cref="SourceRefusedException">It is no list, or its signature does not hold.</exception>
    public static SignedIndex Of(ReadOnlyMemory<byte> index, ReadOnlyMemory<byte>? signature)
    {
        if (index.Length > MostBytes)
            throw new SourceRefusedException($"The list of patterns is larger than {MostBytes >> 20} MB.");
        if (signature is not { } sealing)
            throw new SourceRefusedException($"The list of patterns is not signed: {SourceSignature.FileName} is missing beside it.");
        var read = sealing.Length > MostBytes ? null : DocumentReader.Read<SourceSignature>(sealing).Document;
        // one signature, written in one way: whatever was changed in it is noticed
        if (read?.KeyOf(index.Span) is not { } key || !sealing.Span.SequenceEqual(SourceMaking.Written(read)))
            throw new SourceRefusedException("The signature does not hold: the list of patterns, or its signature, was changed or damaged "
                + "since it was signed.");
        var reading = DocumentReader.Read<PatternIndex>(index);
        if (reading.Document is not { } list)
            throw new SourceRefusedException($"The list of patterns cannot be read: {reading.Errors[0].Message}");
        if (list.Schema != PatternIndex.SchemaName)
            throw new SourceRefusedException($"The list of patterns says that it is {Short(list.Schema)}; known here is "
                + $"{PatternIndex.SchemaName}. A newer Mill Card may know it.");
        Check(list);
        return new SignedIndex(list, key, Convert.ToHexStringLower(SHA256.HashData(index.Span)));
    }

    /// <summary>Holds an id of a source or a pattern to its form.</summary>
    /// <exception cref="SourceRefusedException">It is not made of small letters, digits and hyphens, or too long.</exception>
    public static void HoldId(string id)
    {
        if (id.Length is 0 or > PatternIndex.LongestId || !id.All(c => char.IsAsciiLetterLower(c) || char.IsAsciiDigit(c) || c == '-'))
            throw new SourceRefusedException($"An id is made of small letters, digits and hyphens, {PatternIndex.LongestId} at most; "
                + $"“{Short(id)}” is not.");
    }

    private static void Check(PatternIndex list)
    {
        foreach (var id in list.Patterns.Select(p => p.Id).Prepend(list.Id)) HoldId(id);
        if (list.Patterns.GroupBy(p => p.Id).FirstOrDefault(g => g.Count() > 1) is { } twice)
            throw new SourceRefusedException($"The list of patterns holds {twice.Key} twice.");
        foreach (var pattern in list.Patterns)
        {
            if (pattern.Versions.GroupBy(v => v.Version).FirstOrDefault(g => g.Count() > 1) is { } again)
                throw new SourceRefusedException(Invariant($"The pattern {pattern.Id} has version {again.Key} twice."));
            if (pattern.Versions.FirstOrDefault(v => !IsPlain(v.Path)) is { } odd)
                throw new SourceRefusedException($"“{Short(odd.Path)}” is no path of a file below the list of patterns.");
        }
        if (list.Patterns.Sum(p => p.Versions.Count) > MostVersions)
            throw new SourceRefusedException($"The list holds more than {MostVersions} versions of patterns.");
    }

    /// <summary>Whether a path stays below where it begins, whatever takes it.</summary>
    private static bool IsPlain(string path) => path.Split('/').All(step => step.Length > 0 && step[0] != '.'
        && step.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_' or '.'));

    private static string Short(string text) => text.Length > 60 ? $"{text[..60]}…" : text;
}

/// <summary>A pattern source as its maker published it, its signature and all checksums held to what they name.</summary>
/// <param name="List">Its list.</param>
/// <param name="Patterns">All versions of all patterns.</param>
/// <param name="Left">What is not understood here and was left, a sentence each.</param>
public sealed record PublishedSource(SignedIndex List, IReadOnlyList<Pattern> Patterns, IReadOnlyList<string> Left)
{
    /// <summary>Folders, zips included, that hold a list of patterns.</summary>
    /// <param name="files">Files, out of their zips.</param>
    public static IReadOnlyList<string> HomesIn(IEnumerable<DroppedFile> files) => [.. files
        .Where(f => f.Path.Split('/')[^1] == PatternIndex.FileName).Select(f => f.Path[..^PatternIndex.FileName.Length]).Order()];

    /// <summary>Reads a source out of files.</summary>
    /// <param name="files">Files, out of their zips.</param>
    /// <param name="home">The folder in which its list lies, with its stroke at the end; empty where there is none.</param>
    /// <param name="stop">Ends it.</param>
    /// <exception cref="SourceRefusedException">It is not taken.</exception>
    public static PublishedSource Of(IEnumerable<DroppedFile> files, string home, CancellationToken stop)
    {
        var own = files.Where(f => f.Path.StartsWith(home, StringComparison.Ordinal)).DistinctBy(f => f.Path)
            .ToDictionary(f => f.Path[home.Length..], f => f.Bytes, StringComparer.Ordinal);
        ReadOnlyMemory<byte>? At(string path) => own.TryGetValue(path, out var bytes) ? bytes : (ReadOnlyMemory<byte>?)null;
        var index = At(PatternIndex.FileName)
            ?? throw new SourceRefusedException($"There is no list of patterns: {PatternIndex.FileName} is missing.");
        return Of(SignedIndex.Of(index, At(SourceSignature.FileName)), At, stop);
    }

    /// <summary>Reads the cards that a list names.</summary>
    /// <param name="list">The list.</param>
    /// <param name="file">Bytes of the file at a path of the list; null where there is none.</param>
    /// <param name="stop">Ends it.</param>
    /// <exception cref="SourceRefusedException">A card is missing or is not what was signed.</exception>
    public static PublishedSource Of(SignedIndex list, Func<string, ReadOnlyMemory<byte>?> file, CancellationToken stop)
    {
        var (patterns, left) = (new List<Pattern>(), new List<string>());
        foreach (var (entry, version) in list.Index.Patterns.SelectMany(p => p.Versions.Select(v => (p, v))))
        {
            stop.ThrowIfCancellationRequested();
            var bytes = file(version.Path) ?? throw new SourceRefusedException($"The list names {version.Path}, and it is not there.");
            if (bytes.Length > Exchange.MostBytes)
                throw new SourceRefusedException($"{version.Path} is larger than the {Exchange.MostBytes >> 20} MB of a card.");
            if (!Convert.ToHexStringLower(SHA256.HashData(bytes.Span)).Equals(version.Sha256, StringComparison.OrdinalIgnoreCase))
                throw new SourceRefusedException($"{version.Path} is not what was signed: it was changed or damaged since.");
            var (card, why) = CardOf(bytes);
            if (card is null) left.Add(Invariant($"{entry.Name}, version {version.Version}: {why}"));
            else patterns.Add(new Pattern(list.Index.Id, entry.Id, version.Version, entry.Name, entry.About,
                // whatever made it, a pattern brings nothing that is one owner's alone: no line to somewhere, nothing accepted
                SourceMaking.Bare(card))
            {
                SourceName = list.Index.Name,
                Note = version.Note,
                At = version.At,
                Sha256 = version.Sha256.ToLowerInvariant(),
            });
        }
        return new PublishedSource(list, patterns, left);
    }

    private static (Card? Card, string Why) CardOf(ReadOnlyMemory<byte> bytes)
    {
        if (Exchange.Parsed(bytes) is not { } json) return (null, "it is no JSON");
        if (Exchange.Of(json) is not { } read) return (null, "it names no schema that is known here");
        return (read.Document as Card, read.Document is Card or null ? read.Why : "it is no card");
    }
}

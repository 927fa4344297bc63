using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using MillCard.Core.Documents;

namespace MillCard.Core.Patterns;

/// <summary>What a maker does to publish patterns: cards put into a list, the list signed.</summary>
public static class SourceMaking
{
    private static readonly JsonSerializerOptions Indented = new(DocumentJson.Options) { WriteIndented = true, NewLine = "\n" };

    /// <summary>What a version is to be called.</summary>
    /// <param name="Id">Id of the pattern.</param>
    /// <param name="Name">Its name; null keeps the one that it has.</param>
    /// <param name="About">A sentence; null keeps the one that it has.</param>
    /// <param name="Note">What is new in this version.</param>
    public sealed record Titles(string Id, string? Name, string? About, string Note);

    /// <summary>A card as a pattern holds it: without what is one owner's alone, the name, tags, the line, what was accepted, and where
    /// figures come from.</summary>
    public static Card Bare(Card card) => card with
    {
        Name = null,
        Tags = [],
        Pattern = null,
        MeasureUp = null,
        Line = null,
        Accepted = [],
        Sources = new Dictionary<string, FactSource>(),
    };

    /// <summary>The list with a card as a new pattern, or as the next version of one that it holds; and the card's file.</summary>
    /// <exception cref="SourceRefusedException">It cannot be added.</exception>
    public static (PatternIndex Index, string Path, byte[] File) With(PatternIndex index, Titles titles, Card card, DateTimeOffset at)
    {
        SignedIndex.HoldId(titles.Id);
        var known = index.Patterns.FirstOrDefault(p => p.Id == titles.Id);
        var name = titles.Name ?? known?.Name ?? throw new SourceRefusedException($"{titles.Id} is new in this source; give it a name.");
        var version = 1 + (known?.Versions.Max(v => v.Version) ?? 0);
        var (path, file) = (Invariant($"{titles.Id}/{version}.json"), Written(Bare(card)));
        var sum = Convert.ToHexStringLower(SHA256.HashData(file));
        if (known?.Versions.MaxBy(v => v.Version) is { } last && last.Sha256 == sum)
            throw new SourceRefusedException(Invariant($"It is the same as version {last.Version} of {titles.Id}."));
        var made = (known ?? new PatternEntry { Id = titles.Id }) with
        {
            Name = name,
            About = titles.About ?? known?.About ?? "",
            Versions = [.. known?.Versions ?? [], new PatternVersion { Version = version, Path = path, Sha256 = sum, Note = titles.Note,
                At = at }],
        };
        return (index with { Patterns = [.. index.Patterns.Where(p => p.Id != titles.Id), made] }, path, file);
    }

    /// <summary>The bytes of a list signed anew, and of its signature.</summary>
    /// <param name="index">The list.</param>
    /// <param name="key">A key on the curve P-256 with its private half.</param>
    /// <param name="at">When.</param>
    public static (byte[] Index, byte[] Signature) Signed(PatternIndex index, ECDsa key, DateTimeOffset at)
    {
        var written = Written(index with { Number = index.Number + 1, At = at });
        return (written, Written(SourceSignature.Of(written, key)));
    }

    /// <summary>A file of a source as it is written: the same for the same document, whoever writes it.</summary>
    public static byte[] Written<T>(T document) => Encoding.UTF8.GetBytes(JsonSerializer.Serialize(document, Indented) + "\n");
}

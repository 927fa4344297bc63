namespace MillCard.Core.Patterns;

/// <summary>How a source that was read stands to what is known of it.</summary>
public enum SourceStanding
{
    /// <summary>It is not known yet: its key is to be looked at.</summary>
    New,
    /// <summary>It is what was taken already.</summary>
    Same,
    /// <summary>It was signed after what is known, with the same key.</summary>
    Newer,
    /// <summary>It was signed before what is known.</summary>
    Older,
    /// <summary>It is signed with another key than the one that was pinned.</summary>
    OtherKey,
    /// <summary>A version that is known already has other figures now, or two lists go by one number.</summary>
    Changed,
    /// <summary>It goes by the id of the source that comes with the application.</summary>
    Reserved,
}

/// <summary>What is known of a source since it was last taken.</summary>
/// <param name="Key">The pinned key.</param>
/// <param name="Number">Number of its list.</param>
/// <param name="Sha256">Checksum of its list.</param>
/// <param name="Versions">Checksums of the cards by pattern and version.</param>
public sealed record KnownSource(SourceKey Key, int Number, string Sha256,
    IReadOnlyDictionary<(string Pattern, int Version), string> Versions)
{
    /// <summary>How a source stands.</summary>
    /// <param name="read">The source as it was read.</param>
    /// <param name="known">What is known of the source of that id; null where nothing is.</param>
    public static SourceStanding StandingOf(PublishedSource read, KnownSource? known)
    {
        var list = read.List;
        if (list.Index.Id == Pattern.OwnSource) return SourceStanding.Reserved;
        if (known is null) return SourceStanding.New;
        if (known.Key != list.Key) return SourceStanding.OtherKey;
        if (list.Index.Number < known.Number) return SourceStanding.Older;
        if (list.Index.Number == known.Number) return list.Sha256 == known.Sha256 ? SourceStanding.Same : SourceStanding.Changed;
        return read.Patterns.Any(p => known.Versions.TryGetValue((p.LocalId, p.Version), out var sum) && sum != p.Sha256)
            ? SourceStanding.Changed : SourceStanding.Newer;
    }

    /// <summary>Why a source of that standing is not taken; null where it may be.</summary>
    /// <param name="standing">How it stands.</param>
    /// <param name="name">What it is called.</param>
    public static string? Refused(SourceStanding standing, string name) => standing switch
    {
        SourceStanding.OtherKey => $"{name} is signed with another key than the one that was pinned when it was first taken. "
            + "Ask its maker; if the key did change, forget the source and take it anew.",
        SourceStanding.Older => $"This state of {name} is older than the one that is here.",
        SourceStanding.Changed => $"{name} gives a version that is here already other figures. A version is never changed once it is "
            + "published; ask its maker.",
        SourceStanding.Reserved => "It goes by the id of the patterns that come with Mill Card; those are brought up to date with it.",
        _ => null,
    };
}

using System.Text.Json;

namespace MillCard.Store;

/// <summary>How a document that was dropped stands to those that are here.</summary>
public enum Standing
{
    /// <summary>Nothing here is like it.</summary>
    New,
    /// <summary>It is here already, value by value.</summary>
    Same,
    /// <summary>It is here in another state.</summary>
    Different,
    /// <summary>It was dropped twice.</summary>
    Repeated,
    /// <summary>It cannot be taken.</summary>
    Damaged,
}

/// <summary>A document that was dropped, held against those that are here.</summary>
/// <param name="Path">Where it lay.</param>
/// <param name="Kind">Its kind, such as "card".</param>
/// <param name="Name">Its name; empty where it has none.</param>
/// <param name="Standing">How it stands to those that are here.</param>
/// <param name="Says">Why it cannot be taken; empty where it can, or need not be.</param>
/// <param name="Notes">What is to be known before it is taken.</param>
/// <param name="Against">The document here that it is, or that has its name.</param>
/// <param name="AgainstName">That one's name.</param>
/// <param name="Document">The document where it differs from the one here; null for others.</param>
/// <param name="Revisions">How many revisions come with it.</param>
/// <param name="Prints">How many prints come with it.</param>
public sealed record ReviewedDocument(string Path, string Kind, string Name, Standing Standing, string Says, IReadOnlyList<string> Notes,
    Guid? Against, string? AgainstName, JsonElement? Document, int Revisions, int Prints);

/// <summary>A document that was taken.</summary>
public sealed record TakenDocument(string Path, string Kind, Guid Id, string Name);

/// <summary>What was chosen cannot be taken; nothing was.</summary>
public sealed class NotTakenException(string message) : Exception(message);

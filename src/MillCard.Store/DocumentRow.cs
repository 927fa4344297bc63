using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Packets;
using MillCard.Core.Rules;

namespace MillCard.Store;

/// <summary>A document as it is stored: its working copy and what lists need of it.</summary>
public sealed class DocumentRow
{
    /// <summary>Its id.</summary>
    public Guid Id { get; init; }
    /// <summary>Kind of document, such as "card".</summary>
    public required string Kind { get; init; }
    /// <summary>Name, taken from the draft; empty where the draft has none yet.</summary>
    public required string Name { get; set; }
    /// <summary>The draft, JSON.</summary>
    public required string Draft { get; set; }
    /// <summary>What a list shows of it, JSON; null where the name is enough.</summary>
    public string? Summary { get; set; }
    /// <summary>The card it belongs to; trials only.</summary>
    public Guid? CardId { get; set; }
    /// <summary>Where it stands: on its shelf, put away, or deleted with the way back still open.</summary>
    public DocumentPlace Place { get; set; }
    /// <summary>When it was made.</summary>
    public DateTimeOffset CreatedAt { get; init; }
    /// <summary>When the draft was last saved.</summary>
    public DateTimeOffset SavedAt { get; set; }
    /// <summary>Changes with every save; the version that a client must have seen.</summary>
    public uint Version { get; set; }

    /// <summary>Takes a state of the document, and what lists need of it.</summary>
    internal void Hold(IDocument document, DateTimeOffset now)
    {
        Name = document.Name ?? "";
        Draft = Exchange.JsonOf(document);
        Summary = document is Card card ? JsonSerializer.Serialize(CardSummary.Of(card), DocumentJson.Options) : null;
        CardId = document is Trial trial ? trial.Card : null;
        SavedAt = now;
    }
}

/// <summary>Where a document stands.</summary>
public enum DocumentPlace
{
    /// <summary>In the lists.</summary>
    Shelf,
    /// <summary>Put away; it can be brought back at any time.</summary>
    Archive,
    /// <summary>Deleted; it can be brought back until the next clearing.</summary>
    Bin,
}

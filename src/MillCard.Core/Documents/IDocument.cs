namespace MillCard.Core.Documents;

/// <summary>A whole document: what is stored, exchanged and versioned as one.</summary>
public interface IDocument
{
    /// <summary>The kind's name in addresses and in the database, such as "card".</summary>
    static abstract string Kind { get; }

    /// <summary>What its owner calls it; a draft may lack it.</summary>
    string? Name { get; }
}

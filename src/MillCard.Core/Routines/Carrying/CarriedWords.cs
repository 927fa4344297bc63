namespace MillCard.Core.Routines.Carrying;

/// <summary>The words behind a command, by letter or name.</summary>
internal sealed class CarriedWords(IReadOnlyDictionary<string, string> words)
{
    /// <summary>What stands behind a word; null where it is missing or stands alone.</summary>
    public string? this[string name] => words.TryGetValue(name, out var value) && value.Length > 0 ? value : null;

    /// <summary>The words as they stand, with what stands behind each: nothing behind one that stands alone.</summary>
    public IReadOnlyDictionary<string, string> All => words;

    /// <summary>Whether a word stands there, alone or not.</summary>
    public bool Has(string name) => words.ContainsKey(name);
}

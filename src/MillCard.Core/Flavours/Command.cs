namespace MillCard.Core.Flavours;

/// <summary>One parameter of a command.</summary>
/// <param name="Name">Its letter; a name in an extended command.</param>
/// <param name="About">What it is, in words.</param>
/// <param name="Unit">Its unit as that firmware takes it; empty for a plain number.</param>
/// <param name="Min">Least value that makes sense; null where there is none.</param>
/// <param name="Max">Greatest value that makes sense; null where there is none.</param>
public sealed record CommandParameter(string Name, string About, string Unit = "", double? Min = null, double? Max = null);

/// <summary>Another meaning that a command has with certain words.</summary>
/// <param name="Meaning">What it means then.</param>
/// <param name="Word">The letter that decides it; null where others must be missing.</param>
/// <param name="Value">The number behind it.</param>
/// <param name="Without">Letters of which none may stand there.</param>
public sealed record CommandVariant(Meaning Meaning, char? Word = null, double? Value = null, string? Without = null)
{
    /// <summary>Whether these words make it this variant.</summary>
    public bool Fits(Func<char, double?> words) => Word is { } letter ? words(letter) == Value : Without is not null
        && Without.All(l => words(l) is null);
}

/// <summary>One command of a dialect.</summary>
/// <param name="Word">Its spelling: letter and number, or the name of an extended command.</param>
/// <param name="Meaning">What it does to the simulated machine.</param>
/// <param name="About">What it does, in words.</param>
public sealed record Command(string Word, Meaning Meaning, string About)
{
    /// <summary>What it takes.</summary>
    public IReadOnlyList<CommandParameter> Parameters { get; init; } = [];

    /// <summary>What it means with some of its words instead; the first that fits counts.</summary>
    public IReadOnlyList<CommandVariant> Variants { get; init; } = [];

    /// <summary>What it means with the words that stand behind it.</summary>
    /// <param name="words">A word by its letter: its number, NaN for a letter alone, null where it is missing.</param>
    public Meaning MeaningWith(Func<char, double?> words) => Variants.FirstOrDefault(v => v.Fits(words))?.Meaning ?? Meaning;

    /// <summary>What must be so for it to be there, where it is not always; null where it is.</summary>
    public string? Needs { get; init; }

    /// <summary>Sections of a configuration of which each proves that it is there: whole names, or their first words.</summary>
    public IReadOnlyList<string> Sections { get; init; } = [];

    /// <summary>Whether it takes a parameter.</summary>
    public bool Takes(string name)
    {
        foreach (var parameter in Parameters) if (parameter.Name == name) return true;
        return false;
    }
}

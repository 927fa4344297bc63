namespace MillCard.Core.Flavours;

/// <summary>One parameter of a command.</summary>
/// <param name="Name">Its letter; a name in an extended command.</param>
/// <param name="About">What it is, in words.</param>
/// <param name="Unit">Its unit as that firmware takes it; empty for a plain number.</param>
/// <param name="Min">Least value that makes sense; null where there is none.</param>
/// <param name="Max">Greatest value that makes sense; null where there is none.</param>
public sealed record CommandParameter(string Name, string About, string Unit = "", double? Min = null, double? Max = null);

/// <summary>One command of a dialect.</summary>
/// <param name="Word">Its spelling: letter and number, or the name of an extended command.</param>
/// <param name="Meaning">What it does to the simulated machine.</param>
/// <param name="About">What it does, in words.</param>
public sealed record Command(string Word, Meaning Meaning, string About)
{
    /// <summary>What it takes.</summary>
    public IReadOnlyList<CommandParameter> Parameters { get; init; } = [];

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

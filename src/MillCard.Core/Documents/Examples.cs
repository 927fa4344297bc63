using System.Reflection;

namespace MillCard.Core.Documents;

/// <summary>The kinds of document, and one valid example of each, shipped as JSON with the core.</summary>
public static class Examples
{
    /// <summary>Document types by the name used in addresses.</summary>
    public static IReadOnlyDictionary<string, Type> Kinds { get; } = new Dictionary<string, Type>
    {
        ["card"] = typeof(Card),
        ["filament"] = typeof(Filament),
        ["recipe"] = typeof(Recipe),
        ["trial"] = typeof(Trial),
    };

    /// <summary>The example of a kind as JSON text.</summary>
    /// <param name="kind">A key of <see cref="Kinds"/>.</param>
    /// <exception cref="KeyNotFoundException">There is no such kind.</exception>
    public static byte[] Of(string kind)
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream($"examples/{kind}.json")
            ?? throw new KeyNotFoundException($"There is no kind of document called {kind}.");
        var bytes = new byte[stream.Length];
        stream.ReadExactly(bytes);
        return bytes;
    }
}

namespace MillCard.Core.Macros;

/// <summary>Files of commands as a card holds them in one text: a line with a name in square brackets begins each.</summary>
public sealed class CommandFiles
{
    private readonly Dictionary<string, string[]> _files = new(StringComparer.OrdinalIgnoreCase);

    private CommandFiles() { }

    /// <summary>No file at all.</summary>
    public static CommandFiles Empty { get; } = new();

    /// <summary>Reads them.</summary>
    public static CommandFiles Of(string? text)
    {
        if (string.IsNullOrWhiteSpace(text)) return Empty;
        var files = new CommandFiles();
        string? name = null;
        var lines = new List<string>();
        foreach (var line in text.ReplaceLineEndings("\n").Split('\n'))
        {
            var bare = line.Trim();
            if (bare.StartsWith('[') && bare.EndsWith(']'))
            {
                files.Take(name, lines);
                (name, lines) = (NameOf(bare[1..^1]), []);
            }
            else lines.Add(line);
        }
        files.Take(name, lines);
        return files;
    }

    /// <summary>The lines of a file, by its name or its path; null where the card does not hold it.</summary>
    public IReadOnlyList<string>? Find(string path) => _files.GetValueOrDefault(NameOf(path));

    /// <summary>Names of the files.</summary>
    public IReadOnlyCollection<string> Names => _files.Keys;

    private void Take(string? name, List<string> lines)
    {
        if (name is { Length: > 0 }) _files[name] = [.. lines];
    }

    private static string NameOf(string path) => path.Trim().Split('/', ':')[^1].Trim();
}

using System.Text;
using MillCard.Core.Wording;

namespace MillCard.Core.Macros;

/// <summary>The macros of a configuration file: INI-like sections, of which those of macros hold a name and G-code.</summary>
public sealed class MacroFile
{
    /// <summary>Longest file that is read, characters.</summary>
    public const int Longest = 400_000;
    private const int Most = 2000;
    private readonly Dictionary<string, Macro> _macros = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string> _renamed = new(StringComparer.OrdinalIgnoreCase);

    private readonly HashSet<string> _sections = new(StringComparer.OrdinalIgnoreCase);

    private MacroFile() { }

    /// <summary>No macro at all.</summary>
    public static MacroFile Empty { get; } = new();

    /// <summary>All macros, as they stand in the file.</summary>
    public IReadOnlyCollection<Macro> Macros => _macros.Values;

    /// <summary>The names of all sections, such as <c>bed_mesh</c> or <c>gcode_macro PARK</c>: what has a section is there.</summary>
    public IReadOnlySet<string> Sections => _sections;

    /// <summary>Whether the file has a section of a kind: of this name, or with it as its first word; <c>tmc</c> stands for every kind of
    /// driver.</summary>
    public bool HasSection(string kind) =>
        _sections.Any(s => s.Split(' ')[0] is var first
            && (first.Equals(kind, StringComparison.OrdinalIgnoreCase) || kind == Drivers
            && first.StartsWith(Drivers, StringComparison.OrdinalIgnoreCase)));

    private const string Drivers = "tmc";

    /// <summary>The macro that a name calls; null where there is none.</summary>
    public Macro? Find(string name) => _macros.GetValueOrDefault(name);

    /// <summary>The command that a macro has renamed; null where the name is no such one.</summary>
    public string? Original(string renamed) => _renamed.GetValueOrDefault(renamed);

    /// <summary>The name that a wrong one may have meant, among macros and other commands; null where none is near.</summary>
    public string? Nearest(string wrong, IEnumerable<string> others) =>
        NearName.Of(wrong.ToUpperInvariant(), '_', _macros.Keys.Concat(others));

    /// <summary>Reads a file; sections of other kinds are passed over.</summary>
    public static MacroFile Of(string? text)
    {
        if (string.IsNullOrWhiteSpace(text)) return Empty;
        var file = new MacroFile();
        string? name = null;
        var keys = new Dictionary<string, StringBuilder>(StringComparer.OrdinalIgnoreCase);
        StringBuilder? open = null;
        foreach (var line in text.Length > Longest ? text[..Longest].Split('\n') : text.Split('\n'))
        {
            var bare = line.TrimEnd();
            if (bare.StartsWith('[') && bare.IndexOf(']') is var close and > 0)
            {
                file.Take(name, keys);
                file._sections.Add(bare[1..close].Trim());
                var words = bare[1..close].Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
                name = words.Length == 2 && words[0].EndsWith("macro", StringComparison.OrdinalIgnoreCase) ? words[1].ToUpperInvariant()
                    : null;
                (keys, open) = (new(StringComparer.OrdinalIgnoreCase), null);
            }
            else if (bare.Length > 0 && !char.IsWhiteSpace(bare[0]) && bare[0] is not ('#' or ';')
                && bare.IndexOfAny([':', '=']) is var at and > 0)
                open = keys[bare[..at].Trim()] = new StringBuilder(bare[(at + 1)..].Trim());
            else if ((bare.Length == 0 || char.IsWhiteSpace(bare[0])) && !bare.TrimStart().StartsWith('#'))
                open?.Append('\n').Append(bare.Trim());
        }
        file.Take(name, keys);
        return file;
    }

    private const string Variable = "variable_";

    /// <summary>A macro's own variables: numbers, texts in quotes, True and False; anything else is not known.</summary>
    private static Dictionary<string, object?> VariablesOf(Dictionary<string, StringBuilder> keys)
    {
        var variables = new Dictionary<string, object?>();
        foreach (var (key, text) in keys.Where(k => k.Key.StartsWith(Variable, StringComparison.OrdinalIgnoreCase)))
            try { variables[key[Variable.Length..].ToLowerInvariant()] = MacroExpression.Of(text.ToString(), variables); }
            catch (UnknowableException) { }
        return variables;
    }

    private void Take(string? name, Dictionary<string, StringBuilder> keys)
    {
        if (name is null || _macros.Count >= Most || !keys.TryGetValue("gcode", out var gcode)) return;
        var renamed = keys.TryGetValue("rename_existing", out var other) ? other.ToString().Trim().ToUpperInvariant() : null;
        _macros[name] = new Macro(name, gcode.ToString().Trim('\n'), keys.TryGetValue("description", out var about) ? about.ToString()
            .Trim() : null, renamed)
        { Variables = VariablesOf(keys) };
        if (renamed is not null) _renamed[renamed] = name;
    }
}

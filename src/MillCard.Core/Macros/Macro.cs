using System.Text.RegularExpressions;

namespace MillCard.Core.Macros;

/// <summary>A command that the owner of a firmware has written.</summary>
/// <param name="Name">What calls it, in capitals.</param>
/// <param name="Text">Its G-code, a template.</param>
/// <param name="About">What its writer says of it; null where nothing.</param>
/// <param name="Renamed">The name under which the command it replaces goes on; null where it replaces none.</param>
public sealed partial record Macro(string Name, string Text, string? About = null, string? Renamed = null)
{
    /// <summary>Its own variables as its section sets them.</summary>
    public IReadOnlyDictionary<string, object?> Variables { get; init; } = new Dictionary<string, object?>();

    /// <summary>Names of the parameters it reads, in capitals.</summary>
    public IReadOnlyList<string> Parameters { get; } =
        [.. Reads().Matches(Text).Select(m => (m.Groups["dot"].Success ? m.Groups["dot"] : m.Groups["key"]).Value.ToUpperInvariant())
            .Distinct()];

    /// <summary>Whether it takes any parameter, because it reads all of them at once.</summary>
    public bool TakesAny { get; } = Text.Contains("rawparams", StringComparison.Ordinal) || AllParameters().IsMatch(Text);

    // what is called with brackets is a method of all parameters, and no parameter
    [GeneratedRegex(@"\bparams\s*(?:\.\s*(?<dot>\w+)\b(?!\s*\()|\.\s*get\s*\(\s*['""](?<key>\w+)['""]|\[\s*['""](?<key>\w+)['""]\s*\])")]
    private static partial Regex Reads();

    [GeneratedRegex(@"\bparams\b(?!\s*[.\[])|\bparams\s*\.\s*(?!get\b)\w+\s*\(")]
    private static partial Regex AllParameters();
}

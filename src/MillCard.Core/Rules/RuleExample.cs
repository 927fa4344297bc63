using System.Reflection;
using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules;

/// <summary>A rule as the handbook tells of it: what it looks for, and a place where it fires. A test holds all of it to what the rules
/// say.</summary>
/// <param name="Rule">Its name.</param>
/// <param name="Severity">How bad its findings are.</param>
/// <param name="About">What it looks for.</param>
/// <param name="Why">Why that matters.</param>
/// <param name="Example">The facts or the lines in which it fires.</param>
/// <param name="Line">The line, counted from 1; null where it is about facts.</param>
/// <param name="Says">What it says there.</param>
/// <param name="Cure">What it proposes there; null where nothing can be computed.</param>
public sealed record RuleExample(string Rule, Severity Severity, string About, string Why, string Example, int? Line, string Says,
    string? Cure)
{
    /// <summary>One for every rule, rules about cards first.</summary>
    public static IReadOnlyList<RuleExample> All => Read.Value;

    private static readonly Lazy<IReadOnlyList<RuleExample>> Read = new(() =>
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream("rule-examples.json")!;
        return JsonSerializer.Deserialize<RuleExample[]>(stream, DocumentJson.Options)!;
    });
}

using System.Text.RegularExpressions;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What holds of the code as a whole.</summary>
public partial class HouseTests
{
    private const int Widest = 140;
    private static readonly string[] Written = ["src", "tests", "bench", "web/src", "scripts", "docs", "demo"];
    private static readonly string[] Endings = [".cs", ".ts", ".tsx", ".mjs", ".css", ".sh", ".md"];
    private static readonly string[] Made = ["bin", "obj", "Migrations", "node_modules", "dist", "api/schema.ts"];

    [Fact]
    public void No_line_of_code_is_longer_than_a_page_is_wide()
    {
        var files = Files(Written).Concat(Directory.EnumerateFiles(DemoParts.Root, "*.sh").Concat(
            Directory.EnumerateFiles(DemoParts.Root, "*.md")).Select(Path.GetFileName)).OfType<string>().ToArray();
        Assert.True(files.Length > 600);
        Assert.Empty(files.Where(file => file != "THIRD-PARTY-NOTICES.md").SelectMany(file => Where(file, line => line.Length > Widest)));
    }

    [Fact]
    public void No_branch_looks_at_the_text_of_a_message()
    {
        string[] code = [.. Files("src", "web/src").Where(file => !file.Contains(".test.", StringComparison.Ordinal))];
        Assert.True(code.Length > 500);
        Assert.Empty(code.SelectMany(file => Where(file, line => LooksAtMessage().IsMatch(line))));
    }

    [Fact]
    public void What_is_thrown_says_whose_failure_it_is() =>
        Assert.Empty(Files("src").SelectMany(file => Where(file, line => ThrowsAnything().IsMatch(line))));

    [Fact]
    public void True_and_false_are_passed_by_name() =>
        Assert.Empty(Files("src").SelectMany(file => Where(file, line => BareTruth().IsMatch(line))));

    [Fact]
    public void No_pointer_is_glued_together() =>
        Assert.Empty(Files("src/MillCard.Core").SelectMany(file => Where(file, line => line.Contains("$\"/", StringComparison.Ordinal))));

    [Fact]
    public void No_choice_is_nested_in_a_choice()
    {
        string[] code = [.. Files("src").Where(file => file.EndsWith(".cs", StringComparison.Ordinal))];
        Assert.True(code.Length > 400);
        var nested = code.AsParallel().AsOrdered().SelectMany(Nested).ToArray();
        Assert.True(nested.Length == 0, string.Join('\n', nested));
    }

    /// <summary>Conditional expressions that are an arm or the condition of another.</summary>
    private static IEnumerable<string> Nested(string file) =>
        from choice in CSharpSyntaxTree.ParseText(File.ReadAllText(Path.Combine(DemoParts.Root, file))).GetRoot().DescendantNodes()
            .OfType<ConditionalExpressionSyntax>()
        let around = choice.Ancestors().SkipWhile(node => node is ParenthesizedExpressionSyntax).First()
        where around is ConditionalExpressionSyntax
        select $"{file}:{choice.GetLocation().GetLineSpan().StartLinePosition.Line + 1}";

    [GeneratedRegex(@"\b([Mm]essage|[Dd]etail|[Tt]itle)\??\.(Contains|StartsWith|EndsWith|IndexOf|includes|startsWith|endsWith|match)\(")]
    private static partial Regex LooksAtMessage();

    [GeneratedRegex(@"\bnew (InvalidDataException|ApplicationException|SystemException|Exception)\(")]
    private static partial Regex ThrowsAnything();

    // what the frameworks take without a name is let pass, and pairs
    [GeneratedRegex(@"^(?!.*\b(GetValue|GetCustomAttributes|Enum\.Parse<\w+>|UTF8Encoding|Contains|Fill|Exchange|Edit\.Fact|while)\()"
        + @".*\w\((|[^()]*, )(true|false)[,)]")]
    private static partial Regex BareTruth();

    private static IEnumerable<string> Files(params string[] folders) =>
        folders.SelectMany(folder => Directory.EnumerateFiles(Path.Combine(DemoParts.Root, folder), "*", SearchOption.AllDirectories))
            .Select(file => Path.GetRelativePath(DemoParts.Root, file).Replace('\\', '/'))
            .Where(file => Endings.Contains(Path.GetExtension(file)) && !Made.Any(made => $"/{file}/".Contains($"/{made}/")));

    private static IEnumerable<string> Where(string file, Func<string, bool> wrong) =>
        File.ReadLines(Path.Combine(DemoParts.Root, file)).Select((line, i) => (line, At: $"{file}:{i + 1}")).Where(l => wrong(l.line))
            .Select(l => l.At);
}

using System.Globalization;
using System.Text.RegularExpressions;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace MillCard.Mutation;

/// <summary>Which test classes pass through which bodies of the core: a change elsewhere cannot be noticed by them.</summary>
internal sealed class Touches
{
    /// <summary>Where a run with marks writes down what it passed through.</summary>
    public const string Variable = "TOUCHED";

    private readonly Dictionary<(string File, int Start), int> _bodies = [];
    private readonly Dictionary<string, HashSet<int>> _by = [];

    /// <summary>How long each class takes by itself.</summary>
    public Dictionary<string, TimeSpan> Takes { get; } = [];

    /// <summary>A file with a mark at the begin of each of its bodies.</summary>
    public SyntaxTree Marked(SyntaxTree file)
    {
        var root = file.GetRoot();
        var bodies = root.DescendantNodes().OfType<BlockSyntax>().Where(IsBody).ToArray();
        foreach (var body in bodies) _bodies[(file.FilePath, body.SpanStart)] = _bodies.Count;
        var marked = root.ReplaceNodes(bodies, (original, now) => now.WithStatements(now.Statements.Insert(0, SyntaxFactory.ParseStatement(
            $"global::MillCard.Core.Touched.At[{_bodies[(file.FilePath, original.SpanStart)]}] = true;"))));
        return file.WithRootAndOptions(marked, file.Options);
    }

    /// <summary>The source that the marks need; after all files were marked.</summary>
    public string Keeper => $$"""
        namespace MillCard.Core;
        internal static class Touched
        {
            public static readonly bool[] At = new bool[{{_bodies.Count}}];
            static Touched() => System.AppDomain.CurrentDomain.ProcessExit += (_, _) => System.IO.File.WriteAllText(
                System.Environment.GetEnvironmentVariable("{{Variable}}")!,
                string.Join(' ', System.Linq.Enumerable.Where(System.Linq.Enumerable.Range(0, At.Length), i => At[i])));
        }
        """;

    /// <summary>Takes in what a class passed through.</summary>
    public void Add(string testClass, string written, TimeSpan took)
    {
        lock (_by)
        {
            _by[testClass] = [.. Regex.Matches(written, @"\d+").Select(m => int.Parse(m.ValueSpan, CultureInfo.InvariantCulture))];
            Takes[testClass] = took;
        }
    }

    /// <summary>The classes that could notice a change, the quickest first; all of them where its place has no body of its own.</summary>
    public IReadOnlyList<string> Of(Mutation change)
    {
        var body = change.Node.AncestorsAndSelf().OfType<BlockSyntax>().FirstOrDefault(IsBody);
        var number = body is null ? (int?)null : _bodies[(change.File.FilePath, body.SpanStart)];
        return [.. _by.Where(c => number is null || c.Value.Contains(number.Value)).Select(c => c.Key).OrderBy(name => Takes[name])];
    }

    private static bool IsBody(BlockSyntax block) =>
        block.Parent is BaseMethodDeclarationSyntax or AccessorDeclarationSyntax or LocalFunctionStatementSyntax;
}

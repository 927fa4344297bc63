using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What holds of the code as a whole.</summary>
public class HouseTests
{
    private const int Widest = 140;
    private static readonly string[] Written = ["src", "tests", "bench", "web/src", "scripts", "docs", "demo"];
    private static readonly string[] Endings = [".cs", ".ts", ".tsx", ".mjs", ".css", ".sh", ".md"];
    private static readonly string[] Made = ["bin", "obj", "Migrations", "node_modules", "dist", "api/schema.ts"];

    [Fact]
    public void No_line_of_code_is_longer_than_a_page_is_wide()
    {
        var files = Written.SelectMany(folder =>
            Directory.EnumerateFiles(Path.Combine(DemoParts.Root, folder), "*", SearchOption.AllDirectories))
            .Concat(Directory.EnumerateFiles(DemoParts.Root, "*.sh")).Concat(Directory.EnumerateFiles(DemoParts.Root, "*.md"))
            .Select(file => Path.GetRelativePath(DemoParts.Root, file).Replace('\\', '/'))
            .Where(file => Endings.Contains(Path.GetExtension(file)) && !Made.Any(made => $"/{file}/".Contains($"/{made}/"))).ToArray();
        Assert.True(files.Length > 600);
        Assert.Empty(files.Where(file => file != "THIRD-PARTY-NOTICES.md")
            .SelectMany(file => File.ReadLines(Path.Combine(DemoParts.Root, file)).Select((line, i) => (line, At: $"{file}:{i + 1}"))
            .Where(l => l.line.Length > Widest).Select(l => l.At)));
    }
}

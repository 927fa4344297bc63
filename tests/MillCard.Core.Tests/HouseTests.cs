using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What holds of the code as a whole.</summary>
public class HouseTests
{
    private const int Widest = 140;
    private static readonly string[] Written = ["src", "tests", "bench"];
    private static readonly string[] Made = ["bin", "obj", "Migrations", "node_modules"];

    [Fact]
    public void No_line_of_code_is_longer_than_a_page_is_wide()
    {
        var files = Written.SelectMany(folder =>
            Directory.EnumerateFiles(Path.Combine(DemoParts.Root, folder), "*.cs", SearchOption.AllDirectories))
            .Where(file => !file.Split(Path.DirectorySeparatorChar).Any(Made.Contains)).ToArray();
        Assert.True(files.Length > 300);
        Assert.Empty(files.SelectMany(file => File.ReadLines(file).Select((line, i) => (line, At: $"{Path.GetFileName(file)}:{i + 1}"))
            .Where(l => l.line.Length > Widest).Select(l => l.At)));
    }
}

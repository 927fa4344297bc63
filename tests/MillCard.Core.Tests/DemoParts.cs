using MillCard.Core.Meshes;

namespace MillCard.Core.Tests;

/// <summary>The project's own files.</summary>
internal static class DemoParts
{
    public static string Root { get; } = FindRoot();

    public static IEnumerable<string> Files => Directory.EnumerateFiles(Path.Combine(Root, "demo", "parts"), "*.stl").Order();

    public static Mesh Read(string name) => Stl.Read(File.ReadAllBytes(Path.Combine(Root, "demo", "parts", $"{name}.stl")));

    private static string FindRoot()
    {
        var at = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(at, "MillCard.slnx"))) at = Path.GetDirectoryName(at) ?? throw new InvalidOperationException("not in a checkout");
        return at;
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Core.Tests;

/// <summary>The project's own files.</summary>
internal static class DemoParts
{
    public static string Root { get; } = FindRoot();

    public static IEnumerable<string> Files => Directory.EnumerateFiles(Path.Combine(Root, "demo", "parts"), "*.stl").Order();

    public static Mesh Read(string name) => Stl.Read(File.ReadAllBytes(Path.Combine(Root, "demo", "parts", $"{name}.stl")));

    /// <summary>A card of the demo.</summary>
    public static Card Card(string name) =>
        DocumentReader.Read<Card>(File.ReadAllBytes(Path.Combine(Root, "demo", "cards", $"{name}.json"))).Document!;

    /// <summary>Every document of a kind of the demo, drafts too.</summary>
    public static IEnumerable<T> All<T>(string folder) where T : class =>
        Directory.EnumerateFiles(Path.Combine(Root, "demo", folder), "*.json").Order()
            .Select(file => DocumentReader.Read<T>(File.ReadAllBytes(file), draft: true).Document!);

    /// <summary>A part of the demo in the middle of a card's bed.</summary>
    public static SliceJob Job(Card card, string part)
    {
        var (mesh, middle) = (Read(part), card.Machine().Bed.Centroid);
        return new SliceJob(part, card.Machine(), Cards.Petg, Cards.Standard,
            [new PartToSlice(new TrialPart { Name = part, File = part, X = middle.X, Y = middle.Y }, mesh, new Footprints(mesh))]);
    }

    private static string FindRoot()
    {
        var at = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(at, "MillCard.slnx")))
            at = Path.GetDirectoryName(at) ?? throw new InvalidOperationException("not in a checkout");
        return at;
    }
}

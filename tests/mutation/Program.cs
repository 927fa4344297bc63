using System.Globalization;
using MillCard.Mutation;

// dotnet run --project tests/mutation -c Release -- 20 Reach Clearance …
// Tries so many changes a room of the core, drawn evenly and the same ones every time, and tells how many of them tests notice: the quick
// ones that know the room, the other quick ones, the slow ones that know it. The tests are to be built before (dotnet build -c Release).
string[] slow = ["Preview", "Engine", "Slicer", "Infill", "MeshFile", "HostileMacro", "Trying"];
var slowest = slow.Select(name => $"MillCard.Core.Tests.{name}Tests").ToArray();
var root = Path.GetFullPath(Path.Combine(AppContext.BaseDirectory, "..", "..", "..", "..", ".."));
var (many, rooms) = (int.Parse(args[0], CultureInfo.InvariantCulture), args[1..]);
var (source, project) = (Path.Combine(root, "src", "MillCard.Core"), Path.Combine(root, "tests", "MillCard.Core.Tests"));
var built = Path.Combine(project, "bin", "Release", "net10.0");
// beside the built tests: they look for demo and reference files from where they stand
var work = Path.Combine(project, "bin", "Release", "mutated");
if (Directory.Exists(work)) Directory.Delete(work, recursive: true);
foreach (var file in Directory.EnumerateFiles(built, "*", SearchOption.AllDirectories))
{
    var copy = Path.Combine(work, Path.GetRelativePath(built, file));
    Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
    File.Copy(file, copy);
}

var assembler = new Assembler(source, built);
var trial = new Trial(work);
assembler.Write(null, trial.Core);
if (trial.Run([]) != Outcome.Survived) throw new InvalidOperationException("The tests fail without any change.");
var testFiles = Directory.GetFiles(project, "*Tests.cs")
    .ToDictionary(file => "MillCard.Core.Tests." + Path.GetFileNameWithoutExtension(file), File.ReadAllText);
Console.WriteLine("room\tplace\toutcome\tchange");
foreach (var room in rooms)
{
    var classes = testFiles.Where(t => t.Value.Contains($"using MillCard.Core.{room}", StringComparison.Ordinal)).Select(t => t.Key)
        .Order(StringComparer.Ordinal).ToArray();
    var stages = new[] { classes.Except(slowest), testFiles.Keys.Except(classes).Except(slowest), classes.Intersect(slowest) }
        .Select(stage => stage.ToArray()).Where(stage => stage.Length > 0).ToArray();
    var all = assembler.Sources.Where(s => s.FilePath.StartsWith(Path.Combine(source, room) + "/", StringComparison.Ordinal))
        .OrderBy(s => s.FilePath, StringComparer.Ordinal).SelectMany(Mutation.Of).ToArray();
    var (noticed, tried) = (0, 0);
    // evenly over the room; what does not compile is passed over for the next
    foreach (var change in Enumerable.Range(0, all.Length).OrderBy(i => (i * 7919L + 13) % all.Length).Select(i => all[i]))
    {
        if (tried == many) break;
        if (!assembler.Write(change, trial.Core)) continue;
        var outcome = stages.Select(trial.Run).FirstOrDefault(o => o != Outcome.Survived, Outcome.Survived);
        (tried, noticed) = (tried + 1, noticed + (outcome == Outcome.Survived ? 0 : 1));
        var place = $"{Path.GetRelativePath(root, change.File.FilePath)}:{change.Place.StartLinePosition.Line + 1}";
        Console.WriteLine($"{room}\t{place}\t{outcome}\t{OneLine(change.Node.ToString())} → {OneLine(change.By?.ToString() ?? "")}");
    }
    Console.WriteLine($"{room}\t\t{noticed} of {tried}\t{all.Length} changes in the room, {classes.Length} test classes");
}

static string OneLine(string text)
{
    var line = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
    return line.Length > 90 ? line[..90] + "…" : line;
}

using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using MillCard.Mutation;

// dotnet run --project tests/mutation -c Release -- 20 Reach Clearance …
// Tries so many changes a room of the core, drawn evenly and the same ones every time (20..40: those after the first twenty), and tells how
// many of them tests notice. Which classes could notice one is seen beforehand, by marks in the core; those are run, the quick ones first.
// With names of test classes (Rules RuleTests CardRuleTests) those alone are asked, to find what they miss in a short time.
// The tests are to be built before (dotnet build -c Release).
var root = Path.GetFullPath(Path.Combine(AppContext.BaseDirectory, "..", "..", "..", "..", ".."));
var (asked, rooms) = (args[1..].Where(IsTestClass).ToHashSet(), args[1..].Where(word => !IsTestClass(word)).ToArray());
int[] bounds = [.. args[0].Split("..").Select(bound => int.Parse(bound, CultureInfo.InvariantCulture))];
var (passed, end) = (bounds.Length > 1 ? bounds[0] : 0, bounds[^1]);
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
var testClasses = Directory.GetFiles(project, "*Tests.cs").Select(file => Path.GetFileNameWithoutExtension(file))
    .Where(name => asked.Count == 0 || asked.Contains(name)).Select(name => "MillCard.Core.Tests." + name)
    .Order(StringComparer.Ordinal).ToArray();
var touches = new Touches();
assembler.Write(touches, trial.Core);
var failing = new ConcurrentBag<string>();
Parallel.ForEach(testClasses, new ParallelOptions { MaxDegreeOfParallelism = Environment.ProcessorCount }, testClass =>
{
    var (touched, began) = (Path.GetTempFileName(), Stopwatch.StartNew());
    if (trial.Run([testClass], touched: touched) != Outcome.Survived) failing.Add(testClass);
    touches.Add(testClass, File.ReadAllText(touched), began.Elapsed);
    File.Delete(touched);
});
if (!failing.IsEmpty) throw new InvalidOperationException($"Without any change these fail: {string.Join(", ", failing)}.");

Console.WriteLine("room\tplace\toutcome\tchange");
foreach (var room in rooms)
{
    var all = assembler.Sources.Where(s => s.FilePath.StartsWith(Path.Combine(source, room) + "/", StringComparison.Ordinal))
        .OrderBy(s => s.FilePath, StringComparer.Ordinal).SelectMany(Mutation.Of).ToArray();
    var (noticed, tried) = (0, 0);
    // evenly over the room; what does not compile is passed over for the next
    foreach (var change in Enumerable.Range(0, all.Length).OrderBy(i => (i * 7919L + 13) % all.Length).Skip(passed).Select(i => all[i]))
    {
        if (tried == end - passed) break;
        if (!assembler.Write(change, trial.Core)) continue;
        var outcome = Stages(touches.Of(change)).Select(stage => trial.Run(stage, Sum(stage)))
            .FirstOrDefault(o => o != Outcome.Survived, Outcome.Survived);
        (tried, noticed) = (tried + 1, noticed + (outcome == Outcome.Survived ? 0 : 1));
        var place = $"{Path.GetRelativePath(root, change.File.FilePath)}:{change.Place.StartLinePosition.Line + 1}";
        Console.WriteLine($"{room}\t{place}\t{outcome}\t{OneLine(change.Node.ToString())} → {OneLine(change.By?.ToString() ?? "")}");
    }
    Console.WriteLine($"{room}\t\t{noticed} of {tried}\t{all.Length} changes in the room");
}

static bool IsTestClass(string word) => word.EndsWith("Tests", StringComparison.Ordinal);

TimeSpan Sum(IEnumerable<string> classes) => classes.Aggregate(TimeSpan.Zero, (sum, name) => sum + touches.Takes[name]);

// what is quick together, then the rest one by one: most changes are noticed by the first
IEnumerable<string[]> Stages(IReadOnlyList<string> classes)
{
    var quick = classes.TakeWhile(name => touches.Takes[name] < TimeSpan.FromSeconds(6)).ToArray();
    if (quick.Length > 0) yield return quick;
    foreach (var name in classes.Skip(quick.Length)) yield return [name];
}

static string OneLine(string text)
{
    var line = string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
    return line.Length > 90 ? line[..90] + "…" : line;
}

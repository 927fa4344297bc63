using System.Diagnostics;

namespace MillCard.Mutation;

/// <summary>How a change came out.</summary>
internal enum Outcome
{
    /// <summary>A test failed.</summary>
    Noticed,
    /// <summary>The tests did not come to an end.</summary>
    Hung,
    /// <summary>All tests passed.</summary>
    Survived,
}

/// <summary>Runs the core's tests against a changed core.</summary>
/// <param name="tests">A folder of the built tests of its own.</param>
internal sealed class Trial(string tests)
{
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(5);

    /// <summary>Where the core stands that is tried.</summary>
    public string Core { get; } = Path.Combine(tests, "MillCard.Core.dll");

    /// <summary>Runs test classes until the first failure.</summary>
    /// <param name="classes">Their full names.</param>
    /// <param name="takes">How long they take without a change; null where that is not known.</param>
    /// <param name="touched">Where a core with marks writes; null for one without.</param>
    public Outcome Run(IEnumerable<string> classes, TimeSpan? takes = null, string? touched = null)
    {
        var start = new ProcessStartInfo("dotnet") { RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (var word in new[] { Path.Combine(tests, "MillCard.Core.Tests.dll"), "-noColor", "-stopOnFail" }
            .Concat(classes.SelectMany(name => new[] { "-class", name }))) start.ArgumentList.Add(word);
        if (touched is not null) start.Environment[Touches.Variable] = touched;
        using var process = Process.Start(start)!;
        process.OutputDataReceived += (_, _) => { };
        process.ErrorDataReceived += (_, _) => { };
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        if (process.WaitForExit(takes * 5 + TimeSpan.FromSeconds(20) ?? Longest))
            return process.ExitCode == 0 ? Outcome.Survived : Outcome.Noticed;
        process.Kill(entireProcessTree: true);
        return Outcome.Hung;
    }
}

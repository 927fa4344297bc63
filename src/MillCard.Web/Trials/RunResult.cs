using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flow;

namespace MillCard.Web.Trials;

/// <summary>Where a program came from.</summary>
public enum ProgramOrigin
{
    /// <summary>Sliced from the trial's parts.</summary>
    Sliced,
    /// <summary>Brought as a file.</summary>
    File,
}

/// <summary>What came of a trial's program.</summary>
/// <param name="Name">Name of the job or of the file.</param>
/// <param name="Origin">Where the program came from.</param>
/// <param name="Seconds">Time on the machine; waits that never end count nothing.</param>
/// <param name="Filament">mm.</param>
/// <param name="Grams">Mass; null where the density is not known.</param>
/// <param name="Cost">In the owner's money: filament by weight, machine by the hour; null where neither has a price.</param>
/// <param name="Extents">Where printing moves have been, machine frame.</param>
/// <param name="Lines">Lines of the program.</param>
/// <param name="Bytes">Size of the program.</param>
/// <param name="Layers">Layers; 0 for a program brought as a file.</param>
/// <param name="Took">Seconds the computation took.</param>
/// <param name="Findings">Worst first.</param>
public sealed record RunResult(
    string Name, ProgramOrigin Origin, double Seconds, double Filament, double? Grams, double? Cost, Extents? Extents, int Lines,
        int Bytes, int Layers, double Took,
    IReadOnlyList<Finding> Findings)
{
    /// <summary>Name under which the program is saved; null for one that was brought, or sliced long ago.</summary>
    public string? FileName { get; init; }

    /// <summary>Filament fed by each nozzle, mm; empty for a program that ran long ago.</summary>
    public IReadOnlyList<double> ByNozzle { get; init; } = [];

    internal static RunResult Of(
        string name, ProgramOrigin origin, DryRunReport run, IReadOnlyList<Finding> findings, int layers, double took, Card card,
        IReadOnlyList<Filament?> filaments, int copies = 1)
    {
        var byHour = card.CostPerHour * run.TotalSeconds / 3600;
        // a mode that the program itself does not name prints the copies all the same
        var share = run.FilamentOf.Sum() is var all and > 0 ? Math.Max(1, copies * run.Filament / all) : 1;
        double[] fed = [.. run.FilamentOf.Select(mm => mm * share)];
        var grams = fed.Select((mm, i) => MassOf(mm, FilamentOf(filaments, i))).Aggregate((double?)0, (a, b) => a + b);
        var byWeight = fed.Select((mm, i) => MassOf(mm, FilamentOf(filaments, i)) * FilamentOf(filaments, i)?.PricePerKg / 1000
            ?? (mm == 0 ? 0 : null)).Aggregate((double?)0, (a, b) => a + b);
        return new RunResult(name, origin, run.TotalSeconds, fed.Sum(), grams, byWeight is null ? byHour
            : byWeight + (byHour ?? 0), run.Extents,
            run.Text.Count, run.Text.Bytes.Length, layers, took, findings)
        { ByNozzle = fed };
    }

    private static Filament? FilamentOf(IReadOnlyList<Filament?> filaments, int nozzle) => filaments[Math.Min(nozzle, filaments.Count - 1)];

    /// <summary>Mass of a length of filament, g; null where diameter or density are not known.</summary>
    private static double? MassOf(double length, Filament? filament) =>
        length == 0 ? 0 : filament is { Density: { } density, Diameter: { } diameter }
            ? length * ExtrudedLine.FilamentArea(diameter) * density / 1000 : null;
}

/// <summary>The last program of a trial, as stored.</summary>
/// <param name="At">When.</param>
/// <param name="Result">What came of it.</param>
public sealed record StoredRun(DateTimeOffset At, RunResult Result);

using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Slicing;

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

    /// <summary>Time, filament, mass and cost of each nozzle; empty for a program that ran long ago.</summary>
    public IReadOnlyList<NozzleSpent> Spent { get; init; } = [];

    /// <summary>What changing nozzles costs; null where one prints it all.</summary>
    public ChangeCost? Changes { get; init; }

    /// <summary>Moves in the busiest second; null for a program that ran long ago.</summary>
    public int? BusiestSecond { get; init; }

    /// <summary>The move that wants most plastic melted; null where nothing is laid, a filament's diameter is not known, or the program ran
    /// long ago.</summary>
    public PeakFlow? PeakFlow { get; init; }

    /// <summary>When its layers are laid; null for a program that was brought, or sliced long ago.</summary>
    public LayerTimes? Times { get; init; }

    /// <summary>What the plastic is used for; empty for a program that was brought, or sliced long ago.</summary>
    public IReadOnlyList<PlasticUsed> Uses { get; init; } = [];

    internal static RunResult Of(
        string name, ProgramOrigin origin, DryRunReport run, IReadOnlyList<Finding> findings, int layers, double took,
        Machine machine, IReadOnlyList<Filament?> filaments, int copies = 1)
    {
        var spent = Core.DryRun.Spent.Of(run, machine.Card, filaments, copies);
        return new RunResult(name, origin, run.TotalSeconds, spent.Filament, spent.Grams, spent.Cost, run.Extents, run.Text.Count,
            run.Text.Bytes.Length, layers, took, findings)
        {
            BusiestSecond = Core.DryRun.BusiestSecond.Of(run).Moves,
            PeakFlow = PeakFlow.Of(run, machine, filaments),
            ByNozzle = [.. spent.ByNozzle.Select(n => n.Filament)],
            Spent = spent.ByNozzle,
        };
    }
}

/// <summary>The last program of a trial, as stored.</summary>
/// <param name="At">When.</param>
/// <param name="Result">What came of it.</param>
public sealed record StoredRun(DateTimeOffset At, RunResult Result);

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Writing;

namespace MillCard.Core.Slicing;

/// <summary>What slicing gave.</summary>
/// <param name="Gcode">The program; empty where findings forbid it.</param>
/// <param name="Layers">The layers with their lines, for the screen.</param>
/// <param name="Run">The dry run of the program; null where there is none.</param>
/// <param name="Findings">Worst first.</param>
public sealed record SliceResult(ReadOnlyMemory<byte> Gcode, IReadOnlyList<LayerPlan> Layers, DryRunReport? Run,
    IReadOnlyList<Finding> Findings)
{
    /// <summary>Name of the G-code file.</summary>
    public string FileName { get; init; } = "print.gcode";
    /// <summary>What changing nozzles costs; null where one prints it all.</summary>
    public ChangeCost? Changes { get; init; }
    /// <summary>What the plastic is used for.</summary>
    public IReadOnlyList<PlasticUsed> Uses { get; init; } = [];
    /// <summary>What the dry run says of every line, in the order in which they are laid.</summary>
    public IReadOnlyList<LaidLine> Lines { get; init; } = [];
    /// <summary>When its layers are laid; null where there is no program.</summary>
    public LayerTimes? Times { get; init; }
    /// <summary>Whether there is a program.</summary>
    public bool Sliced => Gcode.Length > 0;
}

/// <summary>When the layers of a program are laid.</summary>
/// <param name="Begin">End of all that comes before the first, s.</param>
/// <param name="End">Beginning of all that comes after the last, s.</param>
/// <param name="Starts">Beginning of every layer, s.</param>
public sealed record LayerTimes(double Begin, double End, IReadOnlyList<double> Starts)
{
    /// <summary>How long each layer takes, s.</summary>
    public IReadOnlyList<double> EachTakes() => [.. Starts.Select((start, i) => (i + 1 < Starts.Count ? Starts[i + 1] : End) - start)];

    /// <summary>Of a run that was sliced.</summary>
    /// <param name="run">The run.</param>
    /// <param name="lines">Lines at which the layers begin, counted from 0.</param>
    internal static LayerTimes Of(DryRunReport run, IReadOnlyList<int> lines) => new(TimeAt(run, run.LayersBegin, 0),
        TimeAt(run, run.LayersEnd, run.TotalSeconds), [.. lines.Select(line => Math.Round(run.Starts[line], 2))]);

    private static double TimeAt(DryRunReport run, int line, double otherwise) => Math.Round(line < 0 ? otherwise : run.Starts[line], 2);
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Slicing.Paths;

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
    /// <summary>Whether there is a program.</summary>
    public bool Sliced => Gcode.Length > 0;
}

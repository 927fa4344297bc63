using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;

namespace MillCard.Core.Slicing;

/// <summary>A part to be sliced: a mesh and its place.</summary>
public sealed record PartToSlice(TrialPart Part, Mesh Mesh, Footprints Footprints);

/// <summary>What is to be sliced. All documents complete.</summary>
public sealed record SliceJob(string Name, Machine Machine, Filament Filament, Recipe Recipe, IReadOnlyList<PartToSlice> Parts, string? Revision = null);

/// <summary>What slicing gave.</summary>
/// <param name="Gcode">The program; empty where findings forbid it.</param>
/// <param name="Layers">The layers with their lines, for the screen.</param>
/// <param name="Run">The dry run of the program; null where there is none.</param>
/// <param name="Findings">Worst first.</param>
public sealed record SliceResult(ReadOnlyMemory<byte> Gcode, IReadOnlyList<LayerPlan> Layers, DryRunReport? Run, IReadOnlyList<Finding> Findings)
{
    /// <summary>Whether there is a program.</summary>
    public bool Sliced => Gcode.Length > 0;
}

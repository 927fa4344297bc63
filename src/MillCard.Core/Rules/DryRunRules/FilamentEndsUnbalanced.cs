using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A routine pulls filament back and nothing pushes it in again before printing.</summary>
public sealed class FilamentEndsUnbalanced : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("filament-ends-unbalanced", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.LayersBegin < 0) yield break;
        var (pulled, line) = (0.0, -1);
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line >= run.LayersBegin && move.Extrudes)
            {
                if (pulled > Little)
                    yield return Id.OnLine(line, $"The start routine pulls {pulled:0.##} mm of filament back, and printing "
                        + $"begins without pushing it in again.", "The first line comes out thin or not at all.")
                        .Cure("Push it in again",
                            Edit.Before(run.LayersBegin,
                            Invariant($"M83\nG1 E{pulled:0.###} F2400")));
                yield break;
            }
            if (move.Filament == 0) continue;
            if (move.Filament < 0 && move.Line < run.LayersBegin) line = move.Line;
            pulled = Math.Max(0, pulled - move.Filament);
        }
    }

    private const double Little = 0.05;
}

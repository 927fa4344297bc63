using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>After the last layer the nozzle goes sideways at the part's height.</summary>
public sealed class EndDragsOverPart : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("end-drags-over-part", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.LayersEnd < 0 || run.Extents is not { } extents) yield break;
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line <= run.LayersEnd) continue;
            if (move.To.Z > extents.MaxZ + Clear) yield break;
            var way = Math.Abs(move.To.X - move.From.X) + Math.Abs(move.To.Y - move.From.Y);
            // a wipe back along the last line while filament is pulled back is part of the layer
            if (!move.Known || way < 1 || move.Filament < 0 && way < LongestWipe) continue;
            yield return Id.OnLine(move.Line, $"The nozzle goes sideways at Z {move.From.Z:0.##}, the height of the part, "
                + $"before it goes up.", "It drags over the top of the finished part and marks it or knocks it off.")
                .Cure("Go up first", Edit.Before(move.Line, "G1 Z{{ clear.z | mm }} F600"));
            yield break;
        }
    }

    private const float Clear = 0.15f;
    private const float LongestWipe = 12;
}

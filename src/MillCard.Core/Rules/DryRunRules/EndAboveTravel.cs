using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The end lifts past the top of Z: harmless under a low part, not under a tall one.</summary>
public sealed class EndAboveTravel : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("end-above-travel", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.LayersEnd < 0) yield break;
        var top = machine.Card.Motion.Axes.Z?.Max ?? machine.Card.Envelope.Height!.Value;
        foreach (ref readonly var move in run.Moves)
        {
            if (move.Line <= run.LayersEnd || !move.Known || move.To.Z <= top + Tolerance) continue;
            yield return Id.OnLine(move.Line, $"The end lifts to Z {move.To.Z:0.##}; the machine reaches {top:0.##}.",
                "Z runs into its end on a tall part: motors lose steps, the head or the bed jams.")
                .Cure("Lift to a height within reach", Edit.Replace(move.Line, "G1 Z{{ clear.z | mm }} F600"));
            yield break;
        }
    }

    private const double Tolerance = 0.01;
}

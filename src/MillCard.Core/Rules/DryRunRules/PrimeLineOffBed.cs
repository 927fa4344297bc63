using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Plastic laid beside the bed, low down.</summary>
public sealed class PrimeLineOffBed : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("prime-line-off-bed", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var (first, count) = (-1, 0);
        foreach (ref readonly var move in run.Moves)
        {
            if (run.LayersBegin >= 0 && move.Line >= run.LayersBegin) break;
            if (!move.Known || !move.Extrudes || move.To.Z > Low || BelowBed.Over(machine, move.From) && BelowBed.Over(machine, move.To))
                continue;
            if (first < 0) first = move.Line;
            count++;
        }
        if (first >= 0)
            yield return Id.OnLine(first, $"Plastic is laid beside the bed{Sentence.When(count > 1, $"; {count} moves do")}.",
                "It hangs from the nozzle, is dragged along, and ends in the first layer.");
    }

    private const float Low = 2;
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Moves follow each other more quickly than the board takes them.</summary>
public sealed class MovesTooQuick : IDryRunRule
{
    /// <summary>Moves that a board has read ahead and can make up for a while with. Common practice, no source.</summary>
    private const int ReadAhead = 16;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("moves-too-quick", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (machine.Card.Firmware.MovesPerSecond is not { } most) yield break;
        var busiest = BusiestSecond.Of(run);
        if (busiest.Moves > most + ReadAhead)
            yield return Id.OnLine(busiest.Line,
                $"From here on {busiest.Moves} moves follow within a second; the board takes {most} (and has {ReadAhead} in stock).",
                "The nozzle stops and starts on its way and leaves blobs. A greater deviation of paths, arcs, or less speed need fewer.");
    }
}

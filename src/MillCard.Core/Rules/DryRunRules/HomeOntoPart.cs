using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Z homes downwards over or beside a finished part.</summary>
public sealed class HomeOntoPart : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("home-onto-part", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (machine.Card.Motion.Layout == MotionLayout.Delta || machine.Card.Motion.Axes.Z?.HomesUp == true
            || run.Extents is not { } extents) yield break;
        var last = LastExtrusion(run);
        var home = run.Events.FirstOrDefault(e => e.Meaning == Meaning.Home && e.MovesBefore > last
            && (e.Has('Z') || !e.Has('X') && !e.Has('Y')));
        if (home is not null)
            yield return Id.OnLine(home.Line, $"Z homes downwards while a part {extents.MaxZ:0.##} mm high stands on the bed.",
                "The nozzle or a beam of the head is driven into the part.")
                .Cure("Home X and Y only", Edit.Replace(home.Line, "G28 X Y"));
    }

    private static int LastExtrusion(DryRunReport run)
    {
        var moves = run.Moves;
        for (var i = moves.Length - 1; i >= 0; i--) if (moves[i].Extrudes) return i;
        return int.MaxValue;
    }
}

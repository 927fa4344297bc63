using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The bed is probed before the machine knows where it is.</summary>
public sealed class LevelBeforeHome : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("level-before-home", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.Events.FirstOrDefault(e => e.Meaning == Meaning.Level && !e.Homed) is { } level)
            yield return Id.OnLine(level.Line, $"{level.Command.Word} probes the bed before the machine is homed.",
                "It does not know where the head is: it probes beside the bed or drives into it.")
                .Cure("Home first", Edit.Before(level.Line, run.Flavour.Spell("home") ?? "G28"));
    }
}

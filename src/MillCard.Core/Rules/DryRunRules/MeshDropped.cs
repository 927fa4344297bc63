using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The bed is probed, then homing forgets what was probed.</summary>
public sealed class MeshDropped : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("mesh-dropped", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (!run.Flavour.HomeDropsMesh) yield break;
        var level = run.Events.FindIndex(e => e.Meaning == Meaning.Level && e.Command.Word == "G29" || SwitchesOn(e));
        if (level < 0) yield break;
        var home = run.Events.FindIndex(level, e => e.Meaning == Meaning.Home);
        if (home < 0 || run.FirstExtrusion.Comes && run.Events[home].Line > run.LayersBegin && run.LayersBegin >= 0) yield break;
        var before = run.Events[level];
        if (!run.Events.Skip(home).Any(e => SwitchesOn(e) || e.Meaning is Meaning.Level))
            yield return Id.OnLine(run.Events[home].Line, before.Meaning == Meaning.Level
                    ? Sentence.Of($"Homing after the bed was probed (line {before.Line + 1}) forgets the mesh on {run.Flavour.Name}.")
                    : Sentence.Of($"Homing switches off the mesh on {run.Flavour.Name}, which line {before.Line + 1} switched on."),
                "The bed is printed on as if it were even.")
                .Cure("Switch the mesh on again", Edit.After(run.Events[home].Line, run.Flavour.Spell("mesh-restore") ?? "M420 S1"));
    }

    private static bool SwitchesOn(MachineEvent e) => e.Meaning is Meaning.Mesh && e.Has('S') && e.Word('S') != 0;
}

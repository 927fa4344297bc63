using MillCard.Core.DryRun;
using MillCard.Core.Flavours;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>The bed is probed, then homing forgets what was probed.</summary>
public sealed class MeshDropped : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("mesh-dropped", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (!run.Flavour.HomeDropsMesh) yield break;
        var level = run.Events.FindIndex(e => e.Meaning == Meaning.Level && e.Command.Word == "G29");
        if (level < 0) yield break;
        var home = run.Events.FindIndex(level, e => e.Meaning == Meaning.Home);
        if (home < 0 || run.FirstExtrusion >= 0 && run.Events[home].Line > run.LayersBegin && run.LayersBegin >= 0) yield break;
        var restored = run.Events.Skip(home).Any(e => e.Meaning is Meaning.Mesh && e.Word('S') != 0 || e.Meaning is Meaning.Level);
        if (!restored)
            yield return Id.OnLine(run.Events[home].Line, $"Homing after the bed was probed (line {run.Events[level].Line + 1}) forgets the mesh on {run.Flavour.Name}.", "The bed is printed on as if it were even.")
                .Cure("Switch the mesh on again", Edit.After(run.Events[home].Line, run.Flavour.Spell("mesh-restore") ?? "M420 S1"));
    }
}

using MillCard.Core.DryRun;
using MillCard.Core.Flavours;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>A tool that this machine does not have.</summary>
public sealed class ToolNotThere : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("tool-not-there", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var tool in run.Events.Where(e => e.Meaning is Meaning.Tool or Meaning.ToolByName && (e.Value >= run.Nozzles.Count || e.Value < 0)).DistinctBy(e => e.Value))
            yield return Id.OnLine(tool.Line, $"There is no tool {tool.Value:0}; this machine has {(run.Nozzles.Count == 1 ? "one, T0" : $"{run.Nozzles.Count}, T0 to T{run.Nozzles.Count - 1}")}.", "The firmware stops, or goes on with the tool in use.").Cure("Remove the line", Edit.Remove(tool.Line));
        foreach (var heat in run.Events.Where(e => e.Meaning is Meaning.SetNozzle or Meaning.WaitNozzle && e.Word('T') >= run.Nozzles.Count).Take(1))
            yield return Id.OnLine(heat.Line, $"{heat.Command.Word} heats tool {heat.Word('T'):0}, which is not there.", "The wrong nozzle is heated, or none.");
    }
}

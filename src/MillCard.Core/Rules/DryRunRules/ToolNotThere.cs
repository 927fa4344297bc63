using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A tool that this machine does not have.</summary>
public sealed class ToolNotThere : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("tool-not-there", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var tool in run.Events.Where(e => e.Meaning is Meaning.Tool or Meaning.ToolByName
            && (e.Value >= run.Nozzles.Count || e.Value < (run.Flavour.CanDropTool ? -1 : 0))).DistinctBy(e => e.Value))
            yield return Id.OnLine(tool.Line, $"There is no tool {tool.Value:0}; {There(run)}.",
                "The firmware stops, or goes on with the tool in use.").Cure("Remove the line", Edit.Remove(tool.Line));
        var heats = from e in run.Events let tool = ToolOf(e) where tool >= run.Nozzles.Count select (e.Line, e.Command.Word, Tool: tool);
        foreach (var (line, word, tool) in heats.DistinctBy(h => h.Tool))
            yield return Id.OnLine(line, $"{word} speaks of tool {tool:0}, which is not there; {There(run)}.",
                "The wrong nozzle is heated, or none.");
        if (run.FedWithoutTool.Comes)
            yield return Id.OnLine(run.FedWithoutTool.Line, "Filament is fed while no tool is chosen (T-1).",
                "The firmware refuses, and nothing comes out.")
                .Cure("Choose tool 0", Edit.Before(run.FedWithoutTool.Line, "T0"));
    }

    private static string There(DryRunReport run) => run.Nozzles.Count == 1 ? "this machine has one, T0"
        : $"this machine has {run.Nozzles.Count}, T0 to T{run.Nozzles.Count - 1}";

    /// <summary>The tool that a line about temperatures names; NaN where it names none.</summary>
    private static double ToolOf(MachineEvent e) => e.Meaning switch
    {
        Meaning.SetNozzle or Meaning.WaitNozzle => e.Word('T'),
        Meaning.ToolSettings when e.Word('L') is not (2 or 20) => e.Word('P'),
        _ => double.NaN,
    };
}

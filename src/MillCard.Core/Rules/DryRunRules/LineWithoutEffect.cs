using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A line that does nothing on this machine.</summary>
public sealed class LineWithoutEffect : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("line-without-effect", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var line in run.Events.Where(e => e.Macro is null))
        {
            var why = line.Meaning switch
            {
                Meaning.SetChamber or Meaning.WaitChamber when run.Chamber is null => "this machine's housing has no heater",
                Meaning.SetBed or Meaning.WaitBed when run.Bed is null && !(line.Value > 0) => "this bed has no heater",
                Meaning.CarriageMode when !machine.HasTwoCarriages => "this machine has one carriage",
                _ => null,
            };
            if (why is null) continue;
            yield return Id.OnLine(line.Line, $"{line.Command.Word} does nothing: {why}.", "It can go, or the card lacks a fact.")
                .Cure("Remove the line", Edit.Remove(line.Line));
        }
    }
}

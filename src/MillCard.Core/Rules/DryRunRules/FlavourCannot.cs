using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A command that this firmware has only where it was switched on.</summary>
public sealed class FlavourCannot : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("flavour-cannot", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var doubtful = run.Events.Where(e => e.Command.Needs is not null && !machine.Card.Firmware.Present.Contains(e.Command.Word)
            && !e.Command.Sections.Any(run.Macros.HasSection));
        foreach (var use in doubtful.DistinctBy(e => e.Command.Word))
            yield return (Id.OnLine(use.Line, $"{use.Command.Word} is not always there on {run.Flavour.Name}: {use.Command.Needs}.",
                "Without it the line is skipped, or the print stops there.") with
            { Pointer = "/firmware/present" })
                .Cure("It is there", Edit.Fact("/firmware/present/-", use.Command.Word));
    }
}

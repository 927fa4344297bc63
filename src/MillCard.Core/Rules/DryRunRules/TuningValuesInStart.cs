using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A program sets values that are found once and then kept.</summary>
public sealed class TuningValuesInStart : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("tuning-values-in-start", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var set in run.Events.Where(e => e.Meaning == Meaning.Tuning).DistinctBy(e => e.Command.Word))
            yield return Id.OnLine(set.Line, $"{set.Command.Word} "
                + $"({char.ToLowerInvariant(set.Command.About[0])}{set.Command.About[1..]}) runs with every print.",
                "Such values are found once and stored; here they hide what is stored, or wear it out.")
                .Cure("Remove the line", Edit.Remove(set.Line));
    }
}

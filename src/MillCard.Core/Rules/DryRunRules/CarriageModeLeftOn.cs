using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The carriages are still in copy or mirror mode when the program ends.</summary>
public sealed class CarriageModeLeftOn : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("carriage-mode-left-on", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.End.CarriageMode != 0 && run.Events.LastOrDefault(e => e.Meaning == Meaning.CarriageMode) is { } set)
            yield return Id.OnLine(set.Line, $"The carriages are left in "
                + $"{(run.End.CarriageMode == 2 ? "copy" : "mirror")} mode at the end.",
                "The next print moves both carriages, and one of them into what lies there.")
                .Cure("One at a time at the end", Edit.After(run.LastLine, run.Flavour.Spell("carriage-single") ?? "M605 S1"));
    }
}

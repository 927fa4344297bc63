using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A fan still runs when the program ends.</summary>
public sealed class FanLeftOn : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("fan-left-on", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var fan in run.FanSteps.GroupBy(s => s.Fan))
        {
            var last = fan.Last();
            // what the firmware switches by itself is neither left on nor needlessly switched
            if (last.Share <= 0 || machine.FanOf(fan.Key)?.OffBelow is not null) continue;
            var (name, percent) = (FanWords.NameOf(machine, fan.Key), 100 * last.Share);
            yield return Id.OnLine(last.Line, $"{name} still runs at {percent:0} % at the end.",
                "It runs until somebody switches it off.")
                .Cure("Switch it off at the end",
                    Edit.After(run.LastLine, fan.Key == 0 ? run.Flavour.Spell("fan-off") ?? "M107"
                        : run.Flavour.Spell("fan-of", ("fan", fan.Key), ("name", machine.FanOf(fan.Key)?.Id), ("fan255", 0), ("fan1", 0))
                            ?? $"M106 P{fan.Key} S0"));
        }
    }
}

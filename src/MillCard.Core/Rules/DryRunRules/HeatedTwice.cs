using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A heater is sent to the same temperature, or waited for, by the routine and by a macro too.</summary>
public sealed class HeatedTwice : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("heated-twice", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var heater in Enum.GetValues<Heater>())
        {
            var until = run.FirstExtrusion.Comes ? run.FirstExtrusion : new Moment(int.MaxValue);
            var waits = run.Waits.Where(w => w.Heater == heater && w.Target > 0 && w.Begin <= until).ToArray();
            var (own, macro) = (waits.FirstOrDefault(w => !w.InMacro), waits.FirstOrDefault(w => w.InMacro));
            if (own is null || macro is null) continue;
            var (here, there) = (own.Target, macro.Target);
            var call = run.MacroCalls.FirstOrDefault(c => c.Line == macro.Line);
            yield return Id.OnLine(own.Line, $"The {HeaterWords.NameOf(heater)} is waited for here ({here:0} °C) and in "
                + $"{call?.Macro.Name ?? "a macro"} on line {macro.Line + 1} too ({there:0} °C).",
                "Two places heat: minutes are lost, and a change in one is undone by the other.")
                .Cure("Leave it to the macro", Edit.Remove(own.Line));
        }
    }
}

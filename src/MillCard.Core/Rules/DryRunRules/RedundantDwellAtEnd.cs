using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A pause at the end for which nothing waits.</summary>
public sealed class RedundantDwellAtEnd : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("redundant-dwell-at-end", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.LayersEnd < 0) yield break;
        foreach (var dwell in run.Events.Where(e => e.Meaning == Meaning.Dwell && e.Line > run.LayersEnd && e.Value >= Long))
        {
            // a fan that only commands switch may want the time to cool the hot end
            if (machine.Card.Head.Fans.Any(f => f.Kind == FanKind.HotEnd && f.OffBelow is null && f.Number is not null)) yield break;
            var why = machine.Card.Head.Fans.Any(f => f.Kind == FanKind.HotEnd && f.OffBelow is not null)
                ? "Nothing waits for it: the fan of the hot end is switched by the firmware, heaters cool by themselves."
                : "Nothing waits for it: heaters cool by themselves.";
            yield return Id.OnLine(dwell.Line, $"The program pauses for {dwell.Value:0} s at the end.", why)
                .Cure(dwell.Macro is null ? "Remove the pause" : null, Edit.Remove(dwell.Line));
        }
    }

    private const float Long = 5;
}

using MillCard.Core.DryRun;
using MillCard.Core.Flavours;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>A speed limit that makes sense only in the other dialects' unit.</summary>
public sealed class WrongUnit : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("wrong-unit", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var set in run.Events.Where(e => e.Meaning is Meaning.LimitSpeed or Meaning.SetCorner))
        {
            var speed = set.Meaning == Meaning.LimitSpeed;
            var unit = speed ? run.Flavour.SpeedLimitUnit : run.Flavour.CornerUnit;
            var value = set.Word('X') is var x && x > 0 ? x : set.Word('Y');
            if (!(value > 0)) continue;
            var perSecond = unit == "mm/min" ? value / 60 : value;
            var (low, high) = speed ? (10.0, 2000.0) : (0.2, 100.0);
            if (perSecond >= low && perSecond <= high) continue;
            var other = unit == "mm/min" ? value : value / 60;
            if (other < low || other > high) continue;
            yield return Id.OnLine(set.Line, $"{set.Command.Word} takes {unit} on {run.Flavour.Name}: X {value:0.##} is {perSecond:0.##} mm/s. In the other unit it would be {other:0.##} mm/s.", "The machine would crawl, or lose steps.");
        }
    }
}

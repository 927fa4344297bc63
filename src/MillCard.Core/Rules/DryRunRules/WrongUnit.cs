using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A speed limit that makes sense only in the other dialects' unit.</summary>
public sealed class WrongUnit : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("wrong-unit", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        var delta = machine.Card.Motion.Layout == MotionLayout.Delta;
        foreach (var set in run.Events.Where(e => e.Meaning is Meaning.LimitSpeed or Meaning.SetCorner))
        {
            var speed = set.Meaning == Meaning.LimitSpeed;
            var unit = speed ? run.Flavour.SpeedLimitUnit : run.Flavour.CornerUnit;
            var wrong = "XYZE".Where(axis => IsOther(set.Word(axis), unit, Sensible(speed, delta && axis == 'Z' ? 'X' : axis))).ToArray();
            if (wrong.Length == 0) continue;
            var value = set.Word(wrong[0]);
            var (here, there) = unit == "mm/min" ? (value / 60, value) : (value, value / 60);
            var also = wrong.Length > 1 ? $" {string.Join(", ", wrong[1..])} likewise." : "";
            Sentence taken = $"{set.Command.Word} takes {unit} on {run.Flavour.Name}: {wrong[0]} {value:0.##} is {here:0.##} mm/s.";
            yield return Id.OnLine(set.Line, $"{taken} In the other unit it would be {there:0.##} mm/s.{also}",
                "The machine would crawl, or lose steps.");
        }
    }

    /// <summary>Whether a value makes sense only in the other unit.</summary>
    private static bool IsOther(double value, string unit, (double Low, double High) sensible)
    {
        if (!(value > 0)) return false;
        var (here, there) = unit == "mm/min" ? (value / 60, value) : (value, value / 60);
        return (here < sensible.Low || here > sensible.High) && there >= sensible.Low && there <= sensible.High;
    }

    /// <summary>Between what a speed or a corner speed of an axis lies on any machine, mm/s. Common practice, no source.</summary>
    private static (double Low, double High) Sensible(bool speed, char axis) => (speed, axis) switch
    {
        (true, 'X' or 'Y') => (10, 2000),
        (true, 'Z') => (0.5, 100),
        (true, _) => (2, 300),
        (false, 'X' or 'Y') => (0.2, 100),
        (false, 'Z') => (0.02, 20),
        _ => (0.2, 100),
    };
}

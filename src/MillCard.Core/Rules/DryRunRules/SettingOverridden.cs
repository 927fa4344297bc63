using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A routine sets something that the card has as a fact, to another value.</summary>
public sealed class SettingOverridden : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("setting-overridden", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var set in run.Events.Where(e => run.LayersBegin < 0 || e.Line < run.LayersBegin))
            foreach (var (letter, pointer, name, fact, factor) in Facts(set, machine.Card, run.Flavour))
            {
                var value = set.Word(letter) * factor;
                if (!(value > 0) || fact is not { } known || Math.Abs(known - value) <= known * 0.001) continue;
                yield return (Id.OnLine(set.Line, $"{set.Command.Word} sets {name} to {value:0.##}; the card says {known:0.##}.",
                    "The print follows the routine, what the card computes follows the card.") with
                { Pointer = pointer })
                    .Cure("Take it as the fact", Edit.Fact(pointer, Math.Round(value, 4)));
            }
    }

    private static IEnumerable<(char Letter, string Pointer, string Name, double? Fact, double Factor)> Facts(MachineEvent set, Card card,
        Flavour flavour)
    {
        var axes = new[] { ('X', "x", card.Motion.Axes.X), ('Y', "y", card.Motion.Axes.Y), ('Z', "z", card.Motion.Axes.Z),
            ('E', "e", card.Motion.Axes.E) };
        foreach (var (letter, axis, facts) in axes)
            switch (set.Meaning)
            {
                case Meaning.LimitSpeed:
                    yield return (letter, JsonPointer.Axis(axis) / "maxSpeed", $"the highest speed of {letter}",
                    facts?.MaxSpeed, flavour.SpeedLimitUnit == "mm/min" ? 1 / 60.0 : 1); break;
                case Meaning.LimitAcceleration:
                    yield return (letter, JsonPointer.Axis(axis) / "maxAcceleration",
                    $"the highest acceleration of {letter}", facts?.MaxAcceleration, 1); break;
                case Meaning.StepsPerMm:
                    yield return (letter, JsonPointer.Axis(axis) / "stepsPerMm", $"the steps per mm of {letter}",
                    facts?.StepsPerMm, 1); break;
            }
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A speed of the card's own that is beyond the card's own limits: homing, or a mode.</summary>
public sealed class FasterThanAxis : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("faster-than-axis", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        var axes = card.Motion.Axes;
        foreach (var (name, axis) in new[] { ("x", axes.X), ("y", axes.Y), ("z", axes.Z) })
            if (axis is { HomingSpeed: { } homing, MaxSpeed: { } most } && homing > most)
                yield return Of(JsonPointer.Axis(name) / "homingSpeed", $"{name.ToUpperInvariant()} homes at", homing, most);
        if (new[] { axes.X?.MaxSpeed, axes.Y?.MaxSpeed }.Max() is not { } fastest) yield break;
        for (var i = 0; i < card.Modes.Count; i++)
            if (card.Modes[i].MaxSpeed is { } speed && speed > fastest)
                yield return Of(JsonPointer.Mode(i) / "maxSpeed", $"The mode {ModeNames.Of(card.Modes[i].Kind)} prints at up to", speed,
                    fastest);
    }

    private Finding Of(string pointer, string what, double speed, double most) => Id.At(pointer,
        $"{what} {speed:0.##} mm/s; the axis makes {most:0.##}.", "One of both figures is wrong.")
        .Cure(Invariant($"{most:0.##} mm/s"), Edit.Fact(pointer, most));
}

using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A home position that the axes do not reach.</summary>
public sealed class HomeOffTravel : ICardRule
{
    private const double Little = 0.5;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("home-off-travel", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Envelope.Home is not { } home || card.Envelope.Origin is not { } origin || card.Motion.Layout == MotionLayout.Delta)
            yield break;
        foreach (var (name, member, axis, at, zero) in new[] { ("X", "x", card.Motion.Axes.X, home.X, origin.X),
            ("Y", "y", card.Motion.Axes.Y, home.Y, origin.Y) })
        {
            if (axis is not { Min: { } min, Max: { } max } || min > max) continue;
            var homes = at - zero;
            if (homes >= min - Little && homes <= max + Little) continue;
            var nearest = Math.Clamp(homes, min, max) + zero;
            yield return Id.At(JsonPointer.Root / "envelope" / "home" / member,
                $"{name} is at {homes:0.##} mm after homing; it goes from {min:0.##} to {max:0.##}.",
                "The end-stop would lie beyond the end of the axis: one of both figures is wrong.")
                .Cure(Invariant($"{name} homes to {nearest - zero:0.##}"),
                    Edit.Fact(JsonPointer.Root / "envelope" / "home" / member, Math.Round(nearest, 3)));
        }
    }
}

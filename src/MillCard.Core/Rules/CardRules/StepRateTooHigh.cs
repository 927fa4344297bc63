using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Motion;

namespace MillCard.Core.Rules.CardRules;

/// <summary>An axis whose highest speed asks for more steps a second than the board sends.</summary>
public sealed class StepRateTooHigh : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("step-rate-too-high", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        if (card.Motion.StepRate is not { } board) yield break;
        foreach (var (name, axis) in StepsDiffer.Named(card.Motion.Axes))
        {
            if (axis is not { StepsPerMm: { } steps, MaxSpeed: { } speed }) continue;
            var rate = steps * speed * (name is "x" or "y" ? Drives.WorstMotor(card) : 1);
            if (rate > board)
                yield return Id.At(JsonPointer.Axis(name) / "maxSpeed",
                    $"{name.ToUpperInvariant()} at {speed:0.#} mm/s needs {rate:0} steps a second; the board sends {board:0}.",
                    $"The board loses steps or stutters above {board / rate * speed:0} mm/s.");
        }
    }
}

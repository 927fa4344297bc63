using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Core.Rules.CardRules;

/// <summary>The travel of an axis that does not cover the bed, or does not reach the height that the card states.</summary>
public sealed class AxisShortOfBed : ICardRule
{
    private const double Little = 0.5;

    /// <inheritdoc/>
    public RuleId Id { get; } = new("axis-short-of-bed", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card)
    {
        // a delta reaches a disc, two carriages share the beam: rules of their own
        if (card.Motion.Layout == MotionLayout.Delta || card.Head.Carriages.Count > 0) yield break;
        if (Sizes.Of(card.Envelope.Bed) is var (width, depth) && card.Envelope.Origin is { } origin)
        {
            if (Short("X", "x", card.Motion.Axes.X, 0 - origin.X, width - origin.X) is { } alongX) yield return alongX;
            if (Short("Y", "y", card.Motion.Axes.Y, 0 - origin.Y, depth - origin.Y) is { } alongY) yield return alongY;
        }
        if (card.Envelope.Height is { } height && card.Motion.Axes.Z is { Max: { } top } && top < height - Little)
            yield return Id.At("/motion/axes/z/max",
                $"Z goes up to {top:0.##} mm; the card says that parts may be {height:0.##} mm high.",
                    "What is higher than the travel cannot be printed.")
                .Cure(Invariant($"Z goes up to {height:0.##}"), Edit.Fact("/motion/axes/z/max", height));
    }

    /// <summary>What is to be said of one axis; null where its travel covers the bed or is not known.</summary>
    private Finding? Short(string name, string member, Axis? axis, double from, double to)
    {
        if (axis is not { Min: { } min, Max: { } max } || min <= from + Little && max >= to - Little) return null;
        var edits = new List<Edit>();
        if (min > from + Little) edits.Add(Edit.Fact(JsonPointer.Axis(member) / "min", Math.Round(from, 3)));
        if (max < to - Little) edits.Add(Edit.Fact(JsonPointer.Axis(member) / "max", Math.Round(to, 3)));
        var pointer = max < to - Little ? "max" : "min";
        return Id.At(JsonPointer.Axis(member) / pointer,
            $"{name} goes from {min:0.##} to {max:0.##} mm; the bed lies from {from:0.##} to {to:0.##}.",
                "A part of the bed is out of reach, or the origin does not stand where the card says.")
            .Cure(Invariant($"{name} goes from {Math.Min(min, from):0.##} to {Math.Max(max, to):0.##}"), [.. edits]);
    }
}

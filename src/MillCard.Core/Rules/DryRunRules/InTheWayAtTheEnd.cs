using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>The head ends above the part, close enough to be in the way.</summary>
public sealed class InTheWayAtTheEnd : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("in-the-way-at-the-end", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.LayersEnd < 0 || run.Extents is not { } extents) yield break;
        var end = run.End.Position;
        if (end.X < extents.MinX || end.X > extents.MaxX || end.Y < extents.MinY || end.Y > extents.MaxY
            || end.Z - extents.MaxZ is var above && above is not (> 1 and < Hand)) yield break;
        yield return Id.OnLine(run.LastLine, $"The head ends {above:0.#} mm above the part.",
            "It is in the way when the part is taken off.");
    }

    private const float Hand = 40;
}

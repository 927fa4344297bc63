using MillCard.Core.DryRun;
using MillCard.Core.Flavours;
using MillCard.Core.Reach;

namespace MillCard.Core.Findings.DryRunRules;

/// <summary>Geometry or offsets change after homing, and nothing homes again.</summary>
public sealed class GeometryChangedAfterHome : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("geometry-changed-after-home", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        foreach (var change in run.Events.Where(e => e.Meaning is Meaning.Geometry && e.Homed))
        {
            if (run.Events.Any(e => e.Meaning == Meaning.Home && e.Line > change.Line && (run.FirstExtrusion < 0 || e.Line < run.FirstExtrusion))) continue;
            yield return Id.OnLine(change.Line, $"{change.Command.Word} changes the geometry after the machine was homed.", "The position was found with the old geometry; everything after lies wrong until it homes again.")
                .Cure("Home after it", Edit.After(change.Line, run.Flavour.Spell("home") ?? "G28"));
            yield break;
        }
    }
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Geometry or offsets change after homing, and nothing homes again.</summary>
public sealed class GeometryChangedAfterHome : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("geometry-changed-after-home", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        for (var i = 0; i < run.Events.Count; i++)
        {
            var change = run.Events[i];
            if (change.Meaning is not (Meaning.Geometry or Meaning.HomeOffset or Meaning.HomeOffsetLater) || !change.Homed) continue;
            if (run.Events.Skip(i + 1).Any(e => e.Meaning == Meaning.Home && (!run.FirstExtrusion.Comes || e.When <= run.FirstExtrusion)))
                continue;
            yield return Id.OnLine(change.Line, $"{change.Command.Word} changes the geometry after the machine was homed.",
                "The position was found with the old geometry; everything after lies wrong until it homes again.")
                .Cure("Home after it", Edit.After(change.Line, run.Flavour.Spell("home") ?? "G28"));
            yield break;
        }
    }
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Words are still distances when a routine is over.</summary>
public sealed class RelativeLeftOn : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("relative-left-on", Severity.Caution);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine)
    {
        if (run.LayersBegin >= 0 && run.RelativeAtLayers
            && run.Events.LastOrDefault(e => e.Meaning == Meaning.Relative && e.Line < run.LayersBegin) is { } start)
            yield return Id.OnLine(start.Line, "The start routine leaves words counting as distances (G91).", Why)
                .Cure("Count positions again at its end", Edit.Before(run.LayersBegin, "G90"));
        if (run.End.Relative && run.Events.LastOrDefault(e => e.Meaning == Meaning.Relative) is { } end)
            yield return Id.OnLine(end.Line, "The program leaves words counting as distances (G91).", Why)
                .Cure("Count positions again at the end", Edit.After(run.LastLine, "G90"));
    }

    private const string Why = "What comes next on this machine takes positions for distances, unless it says G90 itself.";
}

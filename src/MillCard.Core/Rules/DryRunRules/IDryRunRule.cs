using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>A rule that looks at a dry run.</summary>
public interface IDryRunRule
{
    /// <summary>Its name and severity.</summary>
    RuleId Id { get; }

    /// <summary>What it finds.</summary>
    IEnumerable<Finding> Look(DryRunReport run, Machine machine);
}

using MillCard.Core.DryRun;
using MillCard.Core.Findings;
using MillCard.Core.Machines;

namespace MillCard.Core.Rules.DryRunRules;

/// <summary>Something that could not be looked at: only the running printer knows it.</summary>
public sealed class NotFollowed : IDryRunRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("not-followed", Severity.Note);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(DryRunReport run, Machine machine) =>
        from asked in run.Unfollowed.GroupBy(u => u.Line)
        let what = string.Join(", ", asked.Select(a => a.What).Distinct().Take(3))
        select Id.OnLine(asked.Key, $"What this comes to was not looked at: {what}.",
            "Only the running printer knows it; what hangs on it is not part of what is said here.");
}

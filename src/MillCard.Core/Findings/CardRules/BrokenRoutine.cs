using MillCard.Core.Documents;
using MillCard.Core.Routines;

namespace MillCard.Core.Findings.CardRules;

/// <summary>A routine that cannot be rendered: a name that does not exist, broken Liquid, a runaway.</summary>
public sealed class BrokenRoutine : ICardRule
{
    /// <inheritdoc/>
    public RuleId Id { get; } = new("broken-routine", Severity.Stop);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card) =>
        from moment in RoutineMoment.All
        let text = moment.Of(card.Routines)
        where !string.IsNullOrWhiteSpace(text)
        from problem in RoutineTemplate.Problems(text)
        select Id.At($"/routines/{moment.Name}", $"{moment.Title} routine, line {problem.Line}, column {problem.Column}: {problem.Message}", "A routine that cannot be written out would leave a hole in the print's code.") with { Line = problem.Line };
}

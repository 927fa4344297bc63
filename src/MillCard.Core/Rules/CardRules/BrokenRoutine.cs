using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Routines;

namespace MillCard.Core.Rules.CardRules;

/// <summary>A routine that cannot be rendered: a name that does not exist, broken Liquid, a runaway.</summary>
public sealed class BrokenRoutine : ICardRule
{
    private static readonly RuleId Rule = new("broken-routine", Severity.Stop);
    private const string Why = "A routine that cannot be written out would leave a hole in the print's code.";

    /// <inheritdoc/>
    public RuleId Id => Rule;

    /// <summary>The stop that a routine is which fails while it is written out, at its line.</summary>
    internal static Finding Of(RoutineException broken) =>
        broken.Problems is [var first, ..]
            ? Said($"{broken.Moment} routine", first) with { Pointer = broken.Pointer }
            : new(Rule.Name, Rule.Severity, broken.Message, Why, broken.Pointer);

    private static Finding Said(string title, RoutineProblem problem) => new(Rule.Name, Rule.Severity,
        problem.In(title), Why, Line: problem.Line);

    /// <inheritdoc/>
    public IEnumerable<Finding> Look(Card card) =>
        from routine in OwnRoutine.Of(card)
        from problem in RoutineTemplate.Problems(routine.Text)
        let finding = Said(routine.Title, problem) with { Pointer = routine.Pointer }
        select problem.Mended(routine.Text) is { } mended
            ? finding.Cure($"Write {problem.Instead!.Value.Meant}",
                Edit.Replace(problem.Line - 1, mended) with { Pointer = routine.Pointer })
            : finding;
}

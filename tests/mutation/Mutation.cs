using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;
using static Microsoft.CodeAnalysis.CSharp.SyntaxKind;

namespace MillCard.Mutation;

/// <summary>One small change of the source that its tests should notice.</summary>
/// <param name="File">The source file.</param>
/// <param name="Node">What is changed.</param>
/// <param name="By">What takes its place; null where a statement goes.</param>
internal sealed record Mutation(SyntaxTree File, SyntaxNode Node, SyntaxNode? By)
{
    private static readonly Dictionary<SyntaxKind, SyntaxKind> Operators = new()
    {
        [AddExpression] = SubtractExpression,
        [SubtractExpression] = AddExpression,
        [MultiplyExpression] = DivideExpression,
        [DivideExpression] = MultiplyExpression,
        [LessThanExpression] = LessThanOrEqualExpression,
        [LessThanOrEqualExpression] = LessThanExpression,
        [GreaterThanExpression] = GreaterThanOrEqualExpression,
        [GreaterThanOrEqualExpression] = GreaterThanExpression,
        [EqualsExpression] = NotEqualsExpression,
        [NotEqualsExpression] = EqualsExpression,
        [LogicalAndExpression] = LogicalOrExpression,
        [LogicalOrExpression] = LogicalAndExpression,
    };

    private static readonly Dictionary<string, string> Calls = new()
    {
        ["Min"] = "Max",
        ["Max"] = "Min",
        ["Floor"] = "Ceiling",
        ["Ceiling"] = "Floor",
        ["Any"] = "All",
        ["All"] = "Any",
        ["First"] = "Last",
        ["Last"] = "First",
        ["MinBy"] = "MaxBy",
        ["MaxBy"] = "MinBy",
        ["OrderBy"] = "OrderByDescending",
        ["Skip"] = "Take",
        ["Take"] = "Skip",
    };

    /// <summary>The place, as an editor counts.</summary>
    public FileLinePositionSpan Place => File.GetLineSpan(Node.Span);

    /// <summary>The source with the change made.</summary>
    public SyntaxTree Made()
    {
        var root = File.GetRoot();
        var changed = By is null ? root.ReplaceNode(Node, SyntaxFactory.EmptyStatement()) : root.ReplaceNode(Node, By.WithTriviaFrom(Node));
        return File.WithRootAndOptions(changed, File.Options);
    }

    /// <summary>Every change of a file: a turned sign, another bound, a figure off by one, a condition denied, a step left out.</summary>
    public static IEnumerable<Mutation> Of(SyntaxTree file) =>
        file.GetRoot().DescendantNodes(inner => inner is not AttributeListSyntax)
            .SelectMany(node => Instead(node).Select(other => new Mutation(file, node, other)));

    /// <summary>What may stand in the place of a node; null for nothing at all.</summary>
    private static IEnumerable<SyntaxNode?> Instead(SyntaxNode node)
    {
        switch (node)
        {
            case BinaryExpressionSyntax both when Operators.TryGetValue(both.Kind(), out var other) && !IsText(both):
                yield return SyntaxFactory.BinaryExpression(other, both.Left, both.Right.WithLeadingTrivia(SyntaxFactory.Space));
                break;
            case PrefixUnaryExpressionSyntax { RawKind: (int)UnaryMinusExpression or (int)LogicalNotExpression } prefix:
                yield return prefix.Operand;
                break;
            case LiteralExpressionSyntax { RawKind: (int)NumericLiteralExpression } figure when Figure(figure) is { } next:
                yield return next;
                break;
            case LiteralExpressionSyntax { RawKind: (int)TrueLiteralExpression }:
                yield return SyntaxFactory.LiteralExpression(FalseLiteralExpression);
                break;
            case LiteralExpressionSyntax { RawKind: (int)FalseLiteralExpression }:
                yield return SyntaxFactory.LiteralExpression(TrueLiteralExpression);
                break;
            case ConditionalExpressionSyntax choice:
                yield return choice.WithWhenTrue(choice.WhenFalse).WithWhenFalse(choice.WhenTrue);
                break;
            case IdentifierNameSyntax name when name.Parent is MemberAccessExpressionSyntax { Parent: InvocationExpressionSyntax } access
                && access.Name == name && Calls.TryGetValue(name.Identifier.Text, out var call):
                yield return SyntaxFactory.IdentifierName(call);
                break;
            case IfStatementSyntax condition when condition.Condition is not IsPatternExpressionSyntax:
                yield return condition.WithCondition(SyntaxFactory.PrefixUnaryExpression(LogicalNotExpression,
                    SyntaxFactory.ParenthesizedExpression(condition.Condition)));
                break;
            case ExpressionStatementSyntax { Expression: InvocationExpressionSyntax } step when step.Parent is BlockSyntax:
                yield return null;
                break;
        }
    }

    private static ExpressionSyntax? Figure(LiteralExpressionSyntax literal) => literal.Token.Value switch
    {
        int i => SyntaxFactory.ParseExpression($"{i + 1}"),
        double d => SyntaxFactory.ParseExpression(d == 0 ? "1.0" : FormattableString.Invariant($"{d * 2:R}") + "d"),
        _ => null,
    };

    private static bool IsText(BinaryExpressionSyntax both) =>
        both.DescendantNodesAndSelf().Any(n => n is InterpolatedStringExpressionSyntax
            or LiteralExpressionSyntax { RawKind: (int)StringLiteralExpression });
}

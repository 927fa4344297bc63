using System.Collections.Concurrent;
using System.Globalization;
using System.Text.RegularExpressions;
using Fluid;
using Fluid.Ast;
using Fluid.Values;

namespace MillCard.Core.Routines;

/// <summary>Routines as Liquid templates: sandboxed, bounded, and strict about names.</summary>
public static partial class RoutineTemplate
{
    /// <summary>Longest result, characters.</summary>
    public const int LongestOutput = 2_000_000;

    private const int LongestText = 400_000;
    private const int MostSteps = 200_000;
    private const int MostParsed = 64;
    private static readonly ConcurrentDictionary<string, (IReadOnlyList<RoutineProblem> Problems, IFluidTemplate? Template)> Parsed = new();
    private static readonly FluidParser Parser = new();
    private static readonly TemplateOptions Options = CreateOptions();

    private static readonly HashSet<string> Filters =
    [
        "plus", "minus", "times", "divided_by", "modulo", "round", "floor", "ceil", "abs", "at_least", "at_most", "default", "upcase",
            "downcase", "strip", "append", "prepend", "mm", "feed", "plain",
    ];

    /// <summary>What is wrong with a routine, found without running it: broken tags, unknown names and filters.</summary>
    public static IReadOnlyList<RoutineProblem> Problems(string text) => Parse(text, out _);

    /// <summary>Writes a routine out.</summary>
    /// <param name="moment">Whose text it is, for the message.</param>
    /// <param name="text">The template.</param>
    /// <param name="values">Numbers (as decimal or double or int) and texts by name, as in <see cref="RoutineNames.All"/>.</param>
    /// <exception cref="RoutineException">It is broken, uses an unknown name, or runs away.</exception>
    public static string Render(RoutineMoment moment, string text, IReadOnlyDictionary<string, object> values)
    {
        var problems = Parse(text, out var template);
        if (problems.Count > 0) throw new RoutineException(moment.Title, problems);
        using var output = new BoundedWriter(LongestOutput);
        try
        {
            Write(template!, values, output);
            return output.ToString();
        }
        catch (Exception broken) when (broken is not OperationCanceledException)
        {
            throw new RoutineException(moment.Title, [TagScan.At(text, PlaceOfFailure(text, values), Sentence(broken))]);
        }
    }

    private static void Write(IFluidTemplate template, IReadOnlyDictionary<string, object> values, TextWriter output)
    {
        var context = new TemplateContext(Options);
        foreach (var group in values.GroupBy(v => v.Key.Split('.')[0]))
            context.SetValue(group.Key, new DictionaryValue(
                new FluidValueDictionaryFluidIndexable(group.ToDictionary(v => v.Key.Split('.')[1], v => Value(v.Value)))));
        template.RenderAsync(output, NullEncoder.Default, context).AsTask().GetAwaiter().GetResult();
    }

    /// <summary>Position of the tag that fails: it is written out once more with marks, and the first tag behind the last mark that came
    /// out is the one.</summary>
    private static int PlaceOfFailure(string text, IReadOnlyDictionary<string, object> values)
    {
        using var output = new BoundedWriter(2 * LongestOutput);
        try
        {
            if (Parse(LineMap.MarkedByPlace(text), out var marked).Count == 0) Write(marked!, values, output);
        }
        catch (Exception broken) when (broken is not OperationCanceledException)
        {
            var reached = LineMap.LastMark(output.ToString());
            return TagScan.Tags(text).Where(tag => tag.Start >= reached).Select(tag => (int?)tag.Start).FirstOrDefault() ?? 0;
        }
        return 0;
    }

    private static string Sentence(Exception broken) => broken switch
    {
        DivideByZeroException => "This divides by zero.",
        OverflowException => "A number grows too large here.",
        RunawayException own => own.Message,
        // what may stand in a routine can break in this way by its steps alone: the tags that call other texts are refused before
        InvalidOperationException => $"It takes more than {MostSteps} steps: it runs away here.",
        _ => "This cannot be computed.",
    };

    /// <summary>Parses a text; what was parsed lately is at hand, since one routine is written out for every layer.</summary>
    private static IReadOnlyList<RoutineProblem> Parse(string text, out IFluidTemplate? template)
    {
        if (!Parsed.TryGetValue(text, out var known))
        {
            known = (ParseAnew(text, out var parsed), parsed);
            if (Parsed.Count >= MostParsed) Parsed.Clear();
            Parsed[text] = known;
        }
        template = known.Template;
        return known.Problems;
    }

    private static IReadOnlyList<RoutineProblem> ParseAnew(string text, out IFluidTemplate? template)
    {
        template = null;
        if (text.Length > LongestText)
            return [new RoutineProblem(1, 1, $"A routine may have {LongestText} characters; this one has {text.Length}.")];
        if (TagScan.TooMuch(text) is { } tooMuch) return [tooMuch];
        if (!Parser.TryParse(text, out var parsed, out var error)) return [Broken(error)];
        var look = new Look(text);
        look.VisitTemplate(parsed);
        if (look.Problems().ToArray() is { Length: > 0 } problems) return problems;
        template = new PlainNumbers().VisitTemplate(parsed);
        return [];
    }

    private static RoutineProblem Broken(string error)
    {
        var place = Place().Match(error);
        var message = place.Success ? error[..place.Index].Trim() : error.Trim();
        return place.Success
            ? new RoutineProblem(int.Parse(place.Groups[1].ValueSpan, CultureInfo.InvariantCulture),
                int.Parse(place.Groups[2].ValueSpan, CultureInfo.InvariantCulture), message)
            : new RoutineProblem(1, 1, message);
    }

    [GeneratedRegex(@"\s*at \((\d+):(\d+)\)")]
    private static partial Regex Place();

    private static FluidValue Value(object value) => value switch
    {
        decimal d => NumberValue.Create(d),
        int i => NumberValue.Create(i),
        double d => NumberValue.Create((decimal)d),
        _ => new StringValue(Convert.ToString(value, CultureInfo.InvariantCulture) ?? ""),
    };

    private static TemplateOptions CreateOptions()
    {
        var options = new TemplateOptions { MaxSteps = MostSteps, MaxRecursion = 100, CultureInfo = CultureInfo.InvariantCulture };
        options.Filters.AddFilter("divided_by", (input, arguments, _) => Divide(input, arguments.At(0)));
        options.Filters.AddFilter("round", (input, arguments, _) =>
            NumberValue.Create(Math.Round(input.ToNumberValue(), Math.Clamp((int)arguments.At(0).ToNumberValue(), 0, 10),
            MidpointRounding.AwayFromZero)));
        options.Filters.AddFilter("mm",
            (input, _, _) => NumberValue.Create(Math.Round(input.ToNumberValue(), 3, MidpointRounding.AwayFromZero)));
        options.Filters.AddFilter("feed",
            (input, _, _) => NumberValue.Create(Math.Round(input.ToNumberValue() * 60, MidpointRounding.AwayFromZero)));
        options.Filters.AddFilter("plain", (input, _, _) => input is NumberValue
            ? new StringValue(Invariant($"{input.ToNumberValue():0.######}")) : input);
        options.Filters.AddFilter("append", (input, arguments, _) => Joined(input.ToStringValue(), arguments.At(0).ToStringValue()));
        options.Filters.AddFilter("prepend", (input, arguments, _) => Joined(arguments.At(0).ToStringValue(), input.ToStringValue()));
        return options;
    }

    private static NumberValue Divide(FluidValue input, FluidValue by) =>
        by.ToNumberValue() is var divisor and not 0 ? NumberValue.Create(input.ToNumberValue() / divisor)
            : throw new DivideByZeroException();

    private static StringValue Joined(string a, string b) =>
        a.Length + b.Length <= LongestText ? new StringValue(a + b)
            : throw new RunawayException($"A text grows longer than {LongestText} characters here.");

    /// <summary>Collects names, filters and tags that a routine may not use.</summary>
    private sealed class Look(string text) : AstVisitor
    {
        private readonly List<RoutineProblem> _problems = [];
        private readonly HashSet<string> _own = ["forloop", "empty", "blank", "nil", "true", "false"];
        private readonly HashSet<string> _used = [];

        public IEnumerable<RoutineProblem> Problems() =>
            _used.Where(name => !_own.Contains(name.Split('.')[0]) && !RoutineNames.All.ContainsKey(name)).Select(Unknown).Concat(_problems)
                .OrderBy(p => p.Line).ThenBy(p => p.Column);

        protected override Expression VisitMemberExpression(MemberExpression expression)
        {
            if (expression.Segments.All(s => s is IdentifierSegment))
                _used.Add(string.Join('.', expression.Segments.Cast<IdentifierSegment>().Select(s => s.Identifier)));
            else _problems.Add(new RoutineProblem(1, 1, "Names are written with points only, such as bed.min_x."));
            return expression;
        }

        protected override Statement VisitAssignStatement(AssignStatement statement)
        {
            _own.Add(statement.Identifier);
            return base.VisitAssignStatement(statement);
        }

        protected override Statement VisitForStatement(ForStatement statement)
        {
            _own.Add(statement.Identifier);
            return base.VisitForStatement(statement);
        }

        protected override Expression VisitFilterExpression(FilterExpression expression)
        {
            if (!Filters.Contains(expression.Name))
                _problems.Add(TagScan.Find(text, expression.Name, $"There is no filter called {expression.Name}."));
            return base.VisitFilterExpression(expression);
        }

        protected override Expression VisitRangeExpression(RangeExpression expression)
        {
            if (expression.From is not LiteralExpression { Value: NumberValue from }
                || expression.To is not LiteralExpression { Value: NumberValue to } || to.ToNumberValue() - from.ToNumberValue() > 10_000)
                _problems.Add(TagScan.Find(text, "for", "A range needs two plain numbers, at most 10000 apart."));
            return base.VisitRangeExpression(expression);
        }

        protected override Statement VisitCaptureStatement(CaptureStatement statement) => Refuse(statement, "capture");
        protected override Statement VisitIncludeStatement(IncludeStatement statement) => Refuse(statement, "include");
        protected override Statement VisitRenderStatement(RenderStatement statement) => Refuse(statement, "render");
        protected override Statement VisitMacroStatement(MacroStatement statement) => Refuse(statement, "macro");

        private Statement Refuse(Statement statement, string tag)
        {
            _problems.Add(TagScan.Find(text, tag, $"The tag {tag} is not taken in routines."));
            return statement;
        }

        private RoutineProblem Unknown(string name) =>
            RoutineNames.Nearest(name) is { } near
                ? TagScan.Find(text, name, $"There is no {name}. Did you mean {near}?") with { Instead = (name, near) }
                : TagScan.Find(text, name, $"There is no {name}.");
    }

    /// <summary>Sends every output through the plain number format.</summary>
    private sealed class PlainNumbers : AstRewriter
    {
        protected override Statement VisitOutputStatement(OutputStatement statement) =>
            new OutputStatement(new FilterExpression(statement.Expression, "plain", []));
    }

    private sealed class RunawayException(string message) : Exception(message);

    private sealed class BoundedWriter(int longest) : StringWriter(CultureInfo.InvariantCulture)
    {
        public override void Write(char value) { base.Write(value); Check(); }
        public override void Write(string? value) { base.Write(value); Check(); }
        public override void Write(char[] buffer, int index, int count) { base.Write(buffer, index, count); Check(); }
        public override void Write(ReadOnlySpan<char> buffer) { base.Write(buffer); Check(); }

        private void Check()
        {
            if (GetStringBuilder().Length > longest) throw new RunawayException($"It writes more than {longest} characters.");
        }
    }
}

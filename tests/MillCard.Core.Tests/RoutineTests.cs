using CsCheck;
using MillCard.Core.Routines;
using Xunit;

namespace MillCard.Core.Tests;

public class RoutineTests
{
    private static readonly Dictionary<string, object> Values = RoutineNames.All.Keys.ToDictionary(n => n,
        n => n.EndsWith("name", StringComparison.Ordinal) ? (object)"float clamp" : 12.5);

    private static string Render(string text) => RoutineTemplate.Render(RoutineMoment.Start, text, Values);

    [Theory]
    [InlineData("M140 S{{ heat.bed }}", "M140 S12.5")]
    [InlineData("G1 X{{ bed.max_x | minus: 20 }}", "G1 X-7.5")]
    [InlineData("{{ 1.0 | divided_by: 3 | mm }}", "0.333")]
    [InlineData("F{{ 20 | feed }}", "F1200")]
    [InlineData("{{ 0.00001 }}", "0.00001")]
    [InlineData("{{ 0.5 | round }}", "1")]
    [InlineData("{% if bed.width > 10 %}wide{% else %}narrow{% endif %}", "wide")]
    [InlineData("{% assign x = heat.bed | times: 2 %}{{ x }}", "25")]
    public void Names_and_arithmetic_are_written_out(string text, string expected) => Assert.Equal(expected, Render(text));

    [Theory]
    [InlineData("G28\nM140 S{{ heat.bedd }}", 2, 10, "Did you mean heat.bed?")]
    [InlineData("{{ width.bed }}", 1, 4, "Did you mean bed.width?")]
    [InlineData("G28\n\n  {{ nonsense }}", 3, 6, "There is no nonsense.")]
    [InlineData("{% if false %}{{ bed.mid }}{% endif %}", 1, 18, "There is no bed.mid.")]
    [InlineData("{{ heat.bed | shout }}", 1, 15, "no filter called shout")]
    [InlineData("G1\n{% nope %}", 2, 8, "nope")]
    public void What_is_wrong_has_a_line_and_a_column(string text, int line, int column, string says)
    {
        var problem = Assert.Single(RoutineTemplate.Problems(text));
        Assert.Equal((line, column), (problem.Line, problem.Column));
        Assert.Contains(says, problem.Message, StringComparison.Ordinal);
        Assert.Throws<RoutineException>(() => Render(text));
    }

    public static TheoryData<string> Runaways =>
    [
        "{% for i in (1..100000000) %}x{% endfor %}",
        "{% for i in (1..9000) %}{% for j in (1..9000) %}x{% endfor %}{% endfor %}",
        "{% assign a = 'xxxxxxxxxx' %}" + string.Concat(Enumerable.Repeat("{% assign a = a | append: a %}", 40)) + "{{ a }}",
        "{% capture a %}x{% endcapture %}",
        string.Concat(Enumerable.Repeat("{% if true %}", 700)),
        "{{ 1" + string.Concat(Enumerable.Repeat("| plus: 1 ", 5000)) + "}}",
        "{{ 1 | divided_by: 0 }}",
        "{% include 'x' %}",
    ];

    [Theory, MemberData(nameof(Runaways))]
    public void A_runaway_stops_with_a_message(string text) =>
        Assert.NotEmpty(Assert.Throws<RoutineException>(() => Render(text)).Problems);

    [Fact]
    public void Any_text_is_rendered_or_refused()
    {
        var pieces = new[] { "{{", "}}", "{%", "%}", " if ", " endif ", "for i in (1..3)", " endfor ", "bed.width", "|", "plus: 1", "'",
            "\"", "\n", "G1 X", "assign a = ", "1", ".", "else", "case", "raw", "endraw", "{", "comment" };
        Gen.Int[0, pieces.Length - 1].Array[0, 30].Sample(choice =>
        {
            try { Render(string.Concat(choice.Select(i => pieces[i]))); } catch (RoutineException) { }
        }, iter: 20_000);
    }
}

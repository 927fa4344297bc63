using System.Text;
using CsCheck;
using MillCard.Core.Gcode;
using Xunit;

namespace MillCard.Core.Tests;

public class GcodeTests
{
    private static (char, double)[] Read(string line)
    {
        var words = new Words();
        words.Read(Encoding.UTF8.GetBytes(line));
        return [.. Enumerable.Range(0, words.Count).Select(i => (words.Letter(i), words.Value(i)))];
    }

    // NIST RS274/NGC Interpreter, version 3 (NISTIR 6556), section 3.3.1: "g0x +0. 12 34y 7" is "g0 x+0.1234 y7".
    [Fact]
    public void Blanks_mean_nothing_and_letters_have_no_case() =>
        Assert.Equal([('G', 0), ('X', 0.1234), ('Y', 7)], Read("g0x +0. 12 34y 7"));

    // The same, 3.3.2: numbers may have a sign, leading or trailing points; 3.3.4: comments in parentheses.
    [Theory]
    [InlineData("G1 X-.5 Y+3. Z00.250", new[] { 1, -0.5, 3, 0.25 })]
    [InlineData("N12 G1 X5 (left (edge) Y6", new[] { 1, 5.0, 6 })]
    [InlineData("G1 X5 ; Y6", new[] { 1, 5.0 })]
    [InlineData("G1 X1.23456789012345678", new[] { 1, 1.2345678901234568 })]
    [InlineData("G1 X123456789012345678901", new[] { 1, Words.Largest })]
    public void Numbers_and_comments_are_read(string line, double[] values) => Assert.Equal(values, Read(line).Select(w => w.Item2));

    [Fact]
    public void Line_number_and_checksum_are_left_out() => Assert.Equal([('G', 28.0)], Read("N5 G28*22"));

    [Fact]
    public void Parameters_of_an_extended_command_may_be_single_letters_or_quoted()
    {
        var command = ExtendedCommand.OfText("SET_PART Q=5 NAME=\"left one\" Z='a b' SPEED=1.5")!;
        Assert.Equal((5, 1.5), (command.Number("Q"), command.Number("SPEED")));
        Assert.Equal(("left one", "a b"), (command.Text("NAME"), command.Text("Z")));
        Assert.Null(command.Text("X"));
    }

    [Fact]
    public void A_letter_may_stand_alone() => Assert.Equal(['G', 'X', 'Y'], Read("G28 X Y").Select(w => w.Item1));

    [Fact]
    public void What_is_no_word_is_told()
    {
        var words = new Words();
        words.Read("M117 hello"u8);
        Assert.Equal((1, true), (words.Count, words.HasRest));
    }

    [Fact]
    public void Written_numbers_read_back_to_their_decimals() => Gen.Double[-100_000, 100_000].Sample(value =>
    {
        var writer = new GcodeWriter();
        writer.Command("G1").Word('X', value).Fine('E', value).End();
        var text = Encoding.ASCII.GetString(writer.Written.Span).TrimEnd();
        var words = Read(text);
        Assert.Equal(Math.Round(value, 3, MidpointRounding.AwayFromZero), words[1].Item2, 1.1e-3);
        Assert.Equal(value, words[2].Item2, 1e-5);
        Assert.DoesNotContain('E', text[(text.IndexOf('E') + 1)..]);
        Assert.False(text.EndsWith('.') || text.EndsWith("-0", StringComparison.Ordinal)
            || text.Contains("-0 ", StringComparison.Ordinal), text);
    });

    [Fact]
    public void Any_line_is_read_without_a_crash() => Gen.Byte.Array[0, 60].Sample(line => new Words().Read(line), iter: 100_000);

    [Theory]
    [InlineData(0, "G1 X0")]
    [InlineData(1.5, "G1 X1.5")]
    [InlineData(-0.0004, "G1 X0")]
    [InlineData(-0.0005, "G1 X-0.001")]
    [InlineData(12.03, "G1 X12.03")]
    [InlineData(100, "G1 X100")]
    [InlineData(99.9996, "G1 X100")]
    [InlineData(-7.125, "G1 X-7.125")]
    public void Numbers_are_written_short(double value, string line)
    {
        var writer = new GcodeWriter();
        writer.Command("G1").Word('X', value).End();
        Assert.Equal(line + "\n", Encoding.ASCII.GetString(writer.Written.Span));
    }

    [Fact]
    public void Lines_are_counted_however_they_are_written()
    {
        var writer = new GcodeWriter();
        writer.Line("G21").Line("G90\nM82\nG92 E0").Command("M104").Whole('S', 209.6).End();
        Assert.Equal(5, writer.Lines);
        Assert.EndsWith("G92 E0\nM104 S210\n", Encoding.ASCII.GetString(writer.Written.Span), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("G1 X5 Y6", 1, 3)]
    [InlineData("N10 G1 X5", 0, 4)]
    [InlineData("N10 G1 (far) X5", 1, 13)]
    [InlineData("G 1  X-5Y3", 2, 8)]
    [InlineData("G1 X5", 7, 0)]
    public void A_word_is_found_in_its_line(string line, int index, int at) =>
        Assert.Equal(at, Words.At(Encoding.UTF8.GetBytes(line), index));

    [Fact]
    public void Every_word_that_was_read_is_found_where_its_letter_stands() =>
        Gen.Select(Gen.Char["GMXYZEF"], Gen.Int[-999, 999], Gen.Int[0, 2]).Array[1, 8].Sample(parts =>
    {
        var line = Encoding.ASCII.GetBytes(string.Concat(parts.Select(p => $"{p.Item1}{p.Item2}{new string(' ', 1 + p.Item3)}")));
        var words = new Words();
        words.Read(line);
        Assert.Equal(parts.Length, words.Count);
        for (var i = 0; i < words.Count; i++)
        {
            Assert.Equal((parts[i].Item1, (double)parts[i].Item2), (words.Letter(i), words.Value(i)));
            Assert.Equal(words.Letter(i), (char)line[Words.At(line, i)]);
        }
    }, iter: 300);

    [Fact]
    public void The_first_word_of_a_letter_counts_and_the_command_itself_is_none()
    {
        var words = new Words();
        words.Read("G1 X1 X2 G5 Y"u8);
        Assert.Equal((1, 5), (words['X'], words['G']));
        Assert.Equal((true, true, false), (words.Has('X'), words.Has('Y'), words.Has('Z')));
        Assert.True(double.IsNaN(words['Y']) && double.IsNaN(words['Z']));
    }

    [Theory]
    [InlineData("G1 X5 what", 6)]
    [InlineData("M117 hello", 5)]
    [InlineData("G1 X5 ; what", 12)]
    public void Where_the_rest_begins_is_told(string line, int at)
    {
        var words = new Words();
        words.Read(Encoding.UTF8.GetBytes(line));
        Assert.Equal((at, at < line.Length), (words.RestAt, words.HasRest));
    }

    [Theory]
    [InlineData("SET_PIN PIN=a VALUE=1", true)]
    [InlineData("  probe", true)]
    [InlineData("_PRIME", true)]
    [InlineData("G28_HOME X=1", true)]
    [InlineData("T0_ON;x", true)]
    [InlineData("G1 X_5", false)]
    [InlineData("G28;_x", false)]
    [InlineData("G28", false)]
    [InlineData("M", false)]
    [InlineData("", false)]
    [InlineData("; SET_PIN", false)]
    public void A_name_is_told_from_a_letter_and_a_number(string line, bool begins) =>
        Assert.Equal(begins, ExtendedCommand.Begins(Encoding.UTF8.GetBytes(line)));

    [Fact]
    public void A_named_command_has_its_values_by_name()
    {
        var command = ExtendedCommand.OfText("  SET_IT speed=0.5 NAME=\"two words\" M='a b' EMPTY= LAST=7 ; a remark")!;
        Assert.Equal("SET_IT", command.Name);
        Assert.Equal((0.5, 7), (command.Number("SPEED"), command.Number("LAST")));
        Assert.Equal(("two words", "a b", ""), (command.Text("NAME"), command.Text("M"), command.Text("EMPTY")));
        Assert.True(double.IsNaN(command.Number("NAME")) && double.IsNaN(command.Number("NONE")));
        Assert.Null(command.Text("NONE"));
        Assert.Null(ExtendedCommand.OfText("G1 X5"));
        Assert.Equal(Words.Largest, ExtendedCommand.OfText("SET A=1e30")!.Number("A"));
        Assert.True(double.IsNaN(ExtendedCommand.OfText("SET A=inf")!.Number("A")));
    }

    [Theory]
    [InlineData("", new[] { "" })]
    [InlineData("G1", new[] { "G1" })]
    [InlineData("G1\n", new[] { "G1" })]
    [InlineData("G1\r\nG2", new[] { "G1", "G2" })]
    [InlineData("G1\n\nG2\r\n", new[] { "G1", "", "G2" })]
    [InlineData("\n", new[] { "" })]
    public void A_file_has_its_lines_without_their_ends(string file, string[] lines)
    {
        var text = new GcodeText(Encoding.UTF8.GetBytes(file));
        Assert.Equal(lines, Enumerable.Range(0, text.Count).Select(text.Text));
    }
}

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
}

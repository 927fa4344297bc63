using System.Buffers;
using System.Buffers.Text;
using System.Text;

namespace MillCard.Core.Gcode;

/// <summary>Writes G-code as bytes: numbers invariant, three or five decimals, no exponent, no trailing zeros.</summary>
public sealed class GcodeWriter
{
    private readonly ArrayBufferWriter<byte> _out = new(1 << 20);

    /// <summary>What was written.</summary>
    public ReadOnlyMemory<byte> Written => _out.WrittenMemory;

    /// <summary>Number of lines written.</summary>
    public int Lines { get; private set; }

    /// <summary>A whole line of text, or several.</summary>
    public GcodeWriter Line(string text)
    {
        Lines += text.AsSpan().Count('\n');
        Encoding.UTF8.GetBytes(text, _out);
        return End();
    }

    /// <summary>Whole lines, as they are.</summary>
    public GcodeWriter WholeLines(ReadOnlySpan<byte> lines)
    {
        Lines += lines.Count((byte)'\n');
        _out.Write(lines);
        return this;
    }

    /// <summary>The command that begins a line, such as G1.</summary>
    public GcodeWriter Command(string command)
    {
        Encoding.UTF8.GetBytes(command, _out);
        return this;
    }

    /// <summary>A word with three decimals.</summary>
    public GcodeWriter Word(char letter, double value) => Number(letter, value, 1000, 3);

    /// <summary>A word with five decimals, for filament.</summary>
    public GcodeWriter Fine(char letter, double value) => Number(letter, value, 100_000, 5);

    /// <summary>A word with a whole number.</summary>
    public GcodeWriter Whole(char letter, double value) => Number(letter, value, 1, 0);

    /// <summary>Ends the line.</summary>
    public GcodeWriter End()
    {
        _out.GetSpan(1)[0] = (byte)'\n';
        _out.Advance(1);
        Lines++;
        return this;
    }

    private GcodeWriter Number(char letter, double value, long scale, int decimals)
    {
        var fixedPoint = (long)Math.Round(value * scale, MidpointRounding.AwayFromZero);
        var span = _out.GetSpan(32);
        var at = 0;
        span[at++] = (byte)' ';
        span[at++] = (byte)letter;
        if (fixedPoint < 0) { span[at++] = (byte)'-'; fixedPoint = -fixedPoint; }
        var (whole, rest) = Math.DivRem(fixedPoint, scale);
        Utf8Formatter.TryFormat(whole, span[at..], out var used);
        at += used;
        if (rest > 0)
        {
            span[at] = (byte)'.';
            for (var i = decimals; i > 0; i--) { span[at + i] = (byte)('0' + rest % 10); rest /= 10; }
            var last = decimals;
            while (span[at + last] == '0') last--;
            at += last + 1;
        }
        _out.Advance(at);
        return this;
    }
}

using System.Text;

namespace MillCard.Core.Gcode;

/// <summary>A G-code file by lines, kept as the bytes that came.</summary>
public sealed class GcodeText
{
    private readonly ReadOnlyMemory<byte> _bytes;
    private readonly int[] _starts;

    /// <summary>Finds the lines.</summary>
    public GcodeText(ReadOnlyMemory<byte> bytes)
    {
        _bytes = bytes;
        var span = bytes.Span;
        var count = span.Count((byte)'\n') + 1;
        _starts = new int[count + 1];
        var at = 0;
        for (var line = 1; line < count; line++)
        {
            at += span[at..].IndexOf((byte)'\n') + 1;
            _starts[line] = at;
        }
        _starts[count] = span.Length + 1;
        Count = count > 1 && _starts[count - 1] == span.Length ? count - 1 : count;
    }

    private GcodeText(ReadOnlyMemory<byte> bytes, int[] starts, int count) => (_bytes, _starts, Count) = (bytes, starts, count);

    /// <summary>The same text with other first lines.</summary>
    /// <param name="length">Of the first lines, with their line ends.</param>
    /// <param name="lines">As many whole lines.</param>
    public GcodeText BegunBy(int length, ReadOnlyMemory<byte> lines)
    {
        var after = Array.BinarySearch(_starts, length);
        if (after != lines.Span.Count((byte)'\n')) throw new ArgumentException("They are not as many lines.", nameof(lines));
        int[] starts = [.. new GcodeText(lines)._starts[..after], .. _starts[after..]];
        for (var line = after; line < starts.Length; line++) starts[line] += lines.Length - length;
        return new((byte[])[.. lines.Span, .. _bytes.Span[length..]], starts, Count);
    }

    /// <summary>Number of lines; a line end at the end of the file begins no further line.</summary>
    public int Count { get; }

    /// <summary>All bytes.</summary>
    public ReadOnlyMemory<byte> Bytes => _bytes;

    /// <summary>A line without its line end.</summary>
    /// <param name="line">Counted from 0.</param>
    public ReadOnlySpan<byte> Line(int line) => WithoutReturn(_bytes.Span[_starts[line]..(_starts[line + 1] - 1)]);

    /// <summary>A line without the carriage return before its line feed.</summary>
    internal static ReadOnlySpan<byte> WithoutReturn(ReadOnlySpan<byte> line) =>
        line.Length > 0 && line[^1] == '\r' ? line[..^1] : line;

    /// <summary>A line as text.</summary>
    /// <param name="line">Counted from 0.</param>
    public string Text(int line) => Encoding.UTF8.GetString(Line(line));
}

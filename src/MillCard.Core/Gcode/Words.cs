using System.Globalization;

namespace MillCard.Core.Gcode;

/// <summary>The words of one block (line) of G-code, after RS-274 (NISTIR 6556): letters with numbers, blanks ignored, any case.</summary>
/// <remarks>One instance is used over and over; reading a block allocates nothing.</remarks>
public sealed class Words
{
    /// <summary>No machine counts further: a larger number is read as this one, so that nothing computed from it is beyond
    /// numbers.</summary>
    public const double Largest = 1e9;

    private const int Most = 32;
    private readonly byte[] _letters = new byte[Most];
    private readonly double[] _values = new double[Most];

    /// <summary>Number of words.</summary>
    public int Count { get; private set; }

    /// <summary>What could not be read as a word: text after a message command, an extended command.</summary>
    public bool HasRest { get; private set; }

    /// <summary>Where the first thing that is no word begins in the line; its length where there is none.</summary>
    public int RestAt { get; private set; }

    /// <summary>Letter of a word, upper case.</summary>
    public char Letter(int i) => (char)_letters[i];

    /// <summary>Number of a word.</summary>
    public double Value(int i) => _values[i];

    /// <summary>The first word with a letter, from the second word on; NaN where there is none.</summary>
    public double this[char letter]
    {
        get
        {
            for (var i = 1; i < Count; i++) if (_letters[i] == letter) return _values[i];
            return double.NaN;
        }
    }

    /// <summary>Whether a letter stands in the block, with a number or without.</summary>
    public bool Has(char letter)
    {
        for (var i = 1; i < Count; i++) if (_letters[i] == letter) return true;
        return false;
    }

    /// <summary>Reads one line without its line end. A leading line number and a checksum are left out.</summary>
    public void Read(ReadOnlySpan<byte> line)
    {
        (Count, HasRest, RestAt) = (0, false, line.Length);
        var at = 0;
        while (at < line.Length)
        {
            var c = line[at];
            if (c is (byte)' ' or (byte)'\t' or (byte)'\r') { at++; continue; }
            if (c is (byte)';' or (byte)'*') return;
            if (c == '(') { at = AfterComment(line, at); continue; }
            var letter = (byte)(c & 0xDF);
            if (letter is < (byte)'A' or > (byte)'Z' || Count == Most) { Stop(at); return; }
            var after = at + 1;
            var read = Number(line, ref after, out var value, whole: Count == 0 && letter != 'N');
            if (!read && !StandsAlone(line, after)) { Stop(at); return; }
            if (!(Count == 0 && letter == 'N' && read)) { _letters[Count] = letter; _values[Count++] = read ? value : double.NaN; }
            at = after;
        }
    }

    /// <summary>Where the word of an index begins in its line.</summary>
    /// <param name="line">The line that was read.</param>
    /// <param name="index">Counted from 0, without a line number.</param>
    public static int At(ReadOnlySpan<byte> line, int index)
    {
        var (at, count) = (0, 0);
        while (at < line.Length)
        {
            var c = line[at];
            if (c == '(') { at = AfterComment(line, at); continue; }
            if (c is (byte)' ' or (byte)'\t' or (byte)'\r') { at++; continue; }
            var (begin, letter) = (at, c & 0xDF);
            at++;
            var read = Number(line, ref at, out _, whole: count == 0 && letter != 'N');
            if (count == 0 && letter == 'N' && read) continue;
            if (count++ == index) return begin;
        }
        return 0;
    }

    private void Stop(int at) => (HasRest, RestAt) = (true, at);

    private static int AfterComment(ReadOnlySpan<byte> line, int at)
    {
        var end = line[at..].IndexOf((byte)')');
        return end < 0 ? line.Length : at + end + 1;
    }

    /// <summary>A letter without a number (X in G28 X) is followed by a blank or the end.</summary>
    private static bool StandsAlone(ReadOnlySpan<byte> line, int at) => at >= line.Length
        || line[at] is (byte)' ' or (byte)'\t' or (byte)'\r' or (byte)';' or (byte)'*' or (byte)'(';

    /// <summary>A number by hand: mantissa ÷ 10ⁿ up to 15 digits, else the library. Blanks may stand anywhere in it.</summary>
    /// <remarks>A blank ends the number of a command: <c>M117 1/149</c> is M117.</remarks>
    internal static bool Number(ReadOnlySpan<byte> line, ref int at, out double value, bool whole = false)
    {
        var i = at;
        long mantissa = 0;
        int digits = 0, decimals = 0;
        bool negative = false, signed = false, point = false, any = false;
        var end = at;
        for (; i < line.Length; i++)
        {
            var c = line[i];
            if (c is >= (byte)'0' and <= (byte)'9')
            {
                any = true;
                if (digits < 18) { mantissa = mantissa * 10 + (c - '0'); if (mantissa > 0) digits++; if (point) decimals++; }
                else if (!point) { value = 0; return Long(line, ref at, out value); }
                end = i + 1;
            }
            else if (c == '.' && !point) { point = true; end = i + 1; }
            else if (c is (byte)'-' or (byte)'+' && !signed && !any && !point) { signed = true; negative = c == '-'; }
            else if (c is not ((byte)' ' or (byte)'\t') || whole && any) break;
        }
        if (!any) { value = 0; return false; }
        if (digits > 15) return Long(line, ref at, out value);
        at = end;
        value = decimals == 0 ? mantissa : mantissa / Powers[decimals];
        if (value > Largest) value = Largest;
        if (negative) value = -value;
        return true;
    }

    private static bool Long(ReadOnlySpan<byte> line, ref int at, out double value)
    {
        Span<char> text = stackalloc char[64];
        var (n, i) = (0, at);
        for (; i < line.Length && n < text.Length; i++)
        {
            var c = line[i];
            if (c is (byte)' ' or (byte)'\t') continue;
            if (c is not ((>= (byte)'0' and <= (byte)'9') or (byte)'.' or (byte)'-' or (byte)'+')) break;
            text[n++] = (char)c;
        }
        at = i;
        var read = double.TryParse(text[..n], NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture,
            out value);
        value = Math.Clamp(value, -Largest, Largest);
        return read;
    }

    private static readonly double[] Powers = [1, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16,
        1e17, 1e18];
}

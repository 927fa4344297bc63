using System.Text;
using System.Text.RegularExpressions;

namespace MillCard.Core.Macros;

/// <summary>A line of a command file with the lines that are indented below it.</summary>
/// <param name="At">Its place in the file, counted from 0.</param>
/// <param name="Word">Its keyword; empty for a command, a comment or a blank line.</param>
/// <param name="Text">What stands behind the keyword, without a comment; the whole line where there is none.</param>
/// <param name="Body">The lines that hang on it.</param>
internal sealed partial record CommandBlock(int At, string Word, string Text, IReadOnlyList<CommandBlock> Body)
{
    private const int Deepest = 60;

    /// <summary>Whether a line has anything but a plain command; braces in a comment say nothing.</summary>
    public static bool Speaks(ReadOnlySpan<byte> line)
    {
        var code = line.IndexOf((byte)';') is var comment and >= 0 ? line[..comment] : line;
        if (code.Contains((byte)'{')) return true;
        // keywords are written in small letters, which hardly a command is
        code = code.TrimStart(" \t"u8);
        return code.Length > 0 && code[0] is >= (byte)'a' and <= (byte)'z' && Keyword().IsMatch(Encoding.UTF8.GetString(code));
    }

    /// <summary>Takes lines apart by their indentation.</summary>
    public static IReadOnlyList<CommandBlock> Of(IReadOnlyList<string> lines)
    {
        var at = 0;
        return Read(lines, ref at, -1, 0);
    }

    private static List<CommandBlock> Read(IReadOnlyList<string> lines, ref int at, int within, int depth)
    {
        var blocks = new List<CommandBlock>();
        while (at < lines.Count)
        {
            var line = lines[at];
            var bare = line.Trim();
            var indent = line.Length - line.TrimStart().Length;
            var speaks = bare.Length > 0 && bare[0] != ';';
            if (speaks && indent <= within) break;
            var (place, word) = (at++, speaks ? Keyword().Match(bare).Value : "");
            // what is nested without end stands beside, not within
            var body = depth < Deepest && word is ("if" or "elif" or "else" or "while") ? Read(lines, ref at, indent, depth + 1) : [];
            blocks.Add(new CommandBlock(place, word, word.Length > 0 ? WithoutComment(bare[word.Length..]) : line, body));
        }
        return blocks;
    }

    internal static string WithoutComment(string text) => text.IndexOf(';', StringComparison.Ordinal) is var at and >= 0 ? text[..at]
        .Trim() : text.Trim();

    [GeneratedRegex(@"^(?:if|elif|else|while|break|continue|var|global|set|echo|abort)\b")]
    private static partial Regex Keyword();
}

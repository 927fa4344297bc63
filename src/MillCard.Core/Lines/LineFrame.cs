using System.Globalization;
using System.Text;

namespace MillCard.Core.Lines;

/// <summary>A numbered line with its checksum, as hosts and firmwares exchange them: the XOR of all bytes before the star.</summary>
public static class LineFrame
{
    /// <summary>The checksum of a text: the XOR of its bytes.</summary>
    public static int Checksum(ReadOnlySpan<byte> text)
    {
        byte sum = 0;
        foreach (var c in text) sum ^= c;
        return sum;
    }

    /// <summary>A command with number and checksum.</summary>
    /// <param name="number">Its number, counted from 1 behind a reset.</param>
    /// <param name="command">The command without comment or line end.</param>
    public static string Of(long number, string command)
    {
        var text = Invariant($"N{number} {command}");
        return Invariant($"{text}*{Checksum(Encoding.UTF8.GetBytes(text))}");
    }

    /// <summary>Takes a line apart.</summary>
    /// <param name="line">Without its line end.</param>
    /// <returns>Number −1 where it has none; Intact false where its checksum is wrong or missing behind a number.</returns>
    public static (long Number, string Command, bool Intact) Read(string line)
    {
        var text = line.Trim();
        var star = text.LastIndexOf('*');
        var intact = true;
        if (star >= 0)
        {
            intact = int.TryParse(text.AsSpan(star + 1), NumberStyles.None, CultureInfo.InvariantCulture, out var sum)
                && sum == Checksum(Encoding.UTF8.GetBytes(text[..star]));
            text = text[..star];
        }
        if (text.Length < 2 || text[0] is not ('N' or 'n') || !char.IsAsciiDigit(text[1])) return (-1, text.Trim(), intact);
        var end = 1;
        while (end < text.Length && char.IsAsciiDigit(text[end])) end++;
        var read = long.TryParse(text.AsSpan(1, end - 1), NumberStyles.None, CultureInfo.InvariantCulture, out var number);
        return (read ? number : -1, text[end..].Trim(), intact && star >= 0 && read);
    }

    /// <summary>The commands of a program, in order, each with its line counted from 1: comments and blank lines are not sent.</summary>
    public static IReadOnlyList<(int Line, string Command)> CommandsOf(Gcode.GcodeText program)
    {
        var commands = new List<(int, string)>(program.Count);
        for (var i = 0; i < program.Count; i++)
        {
            var text = program.Text(i);
            var comment = text.IndexOf(';');
            var command = (comment < 0 ? text : text[..comment]).Trim();
            // a star begins the checksum, so that none may stand in the command itself
            if (command.Length > 0) commands.Add((i + 1, command.Replace('*', '+')));
        }
        return commands;
    }
}

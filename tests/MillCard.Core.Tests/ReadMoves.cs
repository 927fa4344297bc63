using System.Globalization;
using System.Text;
using MillCard.Core.Geometry;

namespace MillCard.Core.Tests;

/// <summary>A move of a program, as its text alone says.</summary>
/// <param name="Layer">From 1; 0 before the first.</param>
/// <param name="Fed">mm of filament.</param>
/// <param name="Speed">mm/s.</param>
/// <param name="Fan">0 to 255.</param>
/// <param name="Tool">Number of the nozzle, from 0.</param>
internal readonly record struct ReadMove(int Layer, Point From, Point To, double Z, double Fed, double Speed, double Fan, int Tool)
{
    public double Length => From.To(To);
    public double Turned => (Math.Atan2(To.Y - From.Y, To.X - From.X) * 180 / Math.PI + 360) % 180;
    public Point Middle => new((From.X + To.X) / 2, (From.Y + To.Y) / 2);
}

/// <summary>Reads plain moves with relative feed, and what G-code says beside them; it knows nothing of how programs are made.</summary>
internal static class ReadMoves
{
    public static ReadMove[] Of(ReadOnlyMemory<byte> program)
    {
        var moves = new List<ReadMove>();
        var (layer, at, z, speed, fan, tool) = (0, new Point(0, 0), 0.0, 0.0, 0.0, 0);
        foreach (var line in Encoding.ASCII.GetString(program.Span).Split('\n'))
        {
            if (line.StartsWith("; layer ", StringComparison.Ordinal)) layer++;
            var words = line.Split(';')[0].Split(' ', StringSplitOptions.RemoveEmptyEntries);
            if (words.Length == 0) continue;
            double? Word(char letter) => words.Skip(1).FirstOrDefault(w => w[0] == letter) is { } word
                ? double.Parse(word.AsSpan(1), CultureInfo.InvariantCulture) : null;
            if (words[0][0] == 'T' && int.TryParse(words[0].AsSpan(1), CultureInfo.InvariantCulture, out var number)) tool = number;
            if (words[0] == "M106") fan = Word('S') ?? 255;
            if (words[0] == "M107") fan = 0;
            if (words[0] is not ("G0" or "G1")) continue;
            (z, speed) = (Word('Z') ?? z, Word('F') / 60 ?? speed);
            var to = new Point(Word('X') ?? at.X, Word('Y') ?? at.Y);
            moves.Add(new(layer, at, to, z, Word('E') ?? 0, speed, fan, tool));
            at = to;
        }
        return [.. moves];
    }

    /// <summary>Moves that lay plastic on a layer, counted from 1.</summary>
    public static ReadMove[] Laying(this IEnumerable<ReadMove> moves, int layer) =>
        [.. moves.Where(m => m.Layer == layer && m.Fed > 0 && m.Length > 0)];

    /// <summary>Runs of laying moves, each beginning where the one before ended.</summary>
    public static List<List<ReadMove>> Runs(this IEnumerable<ReadMove> laying)
    {
        var runs = new List<List<ReadMove>>();
        foreach (var move in laying)
            if (runs.Count > 0 && runs[^1][^1].To.To(move.From) < 1e-6) runs[^1].Add(move);
            else runs.Add([move]);
        return runs;
    }
}

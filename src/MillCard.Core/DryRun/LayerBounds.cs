using MillCard.Core.Flavours;

namespace MillCard.Core.DryRun;

/// <summary>Where the layers of a program begin and end that does not mark them itself.</summary>
/// <remarks>
/// Lines that are laid fall into stretches: a lift, a way of some length without plastic, or a command that is no move ends one.
/// A line that primes the nozzle is a stretch of few straight moves; the first one that goes round something is the first layer.
/// </remarks>
internal static class LayerBounds
{
    private const double Lift = 1;
    private const double LongTravel = 5;
    private const int Round = 4;
    private const double Wide = 3;
    private const int Many = 20;

    /// <summary>Lines, counted from 0; null where nothing is found that could be layers.</summary>
    public static (int Begin, int End)? Of(DryRunReport run)
    {
        var moves = run.Moves;
        var (first, count, highest) = (-1, 0, 0f);
        Box box = default;
        var breaks = BreakLines(run);
        var nextBreak = 0;
        for (var i = 0; i < moves.Length; i++)
        {
            ref readonly var move = ref moves[i];
            var broken = false;
            while (nextBreak < breaks.Count && breaks[nextBreak] < move.Line) { nextBreak++; broken = true; }
            if (!move.Extrudes) broken |= move.Way > LongTravel || move.To.Z - highest > Lift;
            if (broken) (first, count, box) = (-1, 0, default);
            if (!move.Extrudes) continue;
            if (first < 0) (first, box) = (i, Box.At(move.From));
            box = box.With(move.To);
            highest = move.To.Z;
            count++;
            if (count >= Many || count >= Round && box.Narrow >= Wide) return (Begin(moves, first), LastLaid(moves));
        }
        return null;
    }

    /// <summary>Lines whose commands no layer holds: homing, probing, waits, targets, positions named anew.</summary>
    private static List<int> BreakLines(DryRunReport run) =>
        [.. run.Events.Where(e => Breaking.Contains(e.Meaning)).Select(e => e.Line)];

    private static readonly Meaning[] Breaking =
        [Meaning.Home, Meaning.Level, Meaning.WaitNozzle, Meaning.WaitBed, Meaning.SetPosition, Meaning.MacroCall];

    /// <summary>The way that leads to the first line of the first layer belongs to it, and the way down to its height.</summary>
    private static int Begin(ReadOnlySpan<SimulatedMove> moves, int first)
    {
        var begin = first;
        for (var i = first - 1; i >= 0 && !moves[i].Extrudes; i--)
        {
            if (moves[i].Way == 0) continue;
            begin = i;
            break;
        }
        if (begin > 0 && moves[begin - 1].Way == 0 && moves[begin - 1].Filament == 0 && moves[begin - 1].To.Z == moves[first].To.Z)
            begin--;
        return moves[begin].Line;
    }

    private static int LastLaid(ReadOnlySpan<SimulatedMove> moves)
    {
        var last = moves.Length - 1;
        while (!moves[last].Extrudes) last--;
        return moves[last].Line;
    }

    private readonly record struct Box(float MinX, float MinY, float MaxX, float MaxY)
    {
        public static Box At(Spot p) => new(p.X, p.Y, p.X, p.Y);

        public Box With(Spot p) => new(Math.Min(MinX, p.X), Math.Min(MinY, p.Y), Math.Max(MaxX, p.X), Math.Max(MaxY, p.Y));

        public float Narrow => Math.Min(MaxX - MinX, MaxY - MinY);
    }
}

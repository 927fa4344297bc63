namespace MillCard.Core.DryRun;

/// <summary>The second of a run in which the board has to take most moves.</summary>
/// <param name="Moves">How many lines with a move begin in it.</param>
/// <param name="Line">The first of them, counted from 0.</param>
public readonly record struct BusiestSecond(int Moves, int Line)
{
    /// <summary>Of a run; none in one that does not move.</summary>
    public static BusiestSecond Of(DryRunReport run)
    {
        var (best, lines, first, before) = (default(BusiestSecond), new Queue<int>(), 0, -1);
        foreach (ref readonly var move in run.Moves)
        {
            // an arc is many moves of the machine, and one that the board takes
            if (move.Line == before) continue;
            lines.Enqueue(before = move.Line);
            while (run.Starts[first = lines.Peek()] <= run.Starts[before] - 1) lines.Dequeue();
            if (lines.Count > best.Moves) best = new(lines.Count, first);
        }
        return best;
    }
}

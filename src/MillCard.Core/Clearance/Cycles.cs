namespace MillCard.Core.Clearance;

/// <summary>Parts that wait for each other: strongly connected components of more than one part (Tarjan).</summary>
internal static class Cycles
{
    /// <summary>The cycles, each with its parts in ascending order.</summary>
    /// <param name="count">Number of parts.</param>
    /// <param name="conflicts">Each says that its second part must come before its first.</param>
    public static IReadOnlyList<IReadOnlyList<int>> Of(int count, IReadOnlyList<Conflict> conflicts)
    {
        var next = conflicts.ToLookup(c => c.First, c => c.Then);
        var (index, low, open) = (new int[count], new int[count], new bool[count]);
        var (stack, found, clock) = (new Stack<int>(), new List<IReadOnlyList<int>>(), 0);
        for (var i = 0; i < count; i++) if (index[i] == 0) Visit(i);
        return found;

        void Visit(int part)
        {
            (index[part], low[part], open[part]) = (++clock, clock, true);
            stack.Push(part);
            foreach (var other in next[part])
            {
                if (index[other] == 0) { Visit(other); low[part] = Math.Min(low[part], low[other]); }
                else if (open[other]) low[part] = Math.Min(low[part], index[other]);
            }
            if (low[part] != index[part]) return;
            var cycle = new List<int>();
            int last;
            do { last = stack.Pop(); open[last] = false; cycle.Add(last); } while (last != part);
            if (cycle.Count > 1) found.Add([.. cycle.Order()]);
        }
    }
}

using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Finds the stretches of walls that nothing carries.</summary>
/// <param name="carried">What lies below: the part's own layer, and its supports.</param>
/// <param name="width">Usual width of a wall, mm.</param>
internal sealed class OverAir(Shape carried, double width) : IDisposable
{
    /// <summary>Shares of the width over air from which on another speed holds.</summary>
    private static readonly double[] Steps = [0.25, 0.5, 0.75, 1];

    /// <summary>A quarter turn.</summary>
    private const int Chords = 8;

    private readonly Edges?[] _edges = new Edges?[Steps.Length];

    /// <summary>Gives the memory back.</summary>
    public void Dispose()
    {
        foreach (var edges in _edges) edges?.Dispose();
    }

    /// <summary>A wall that knows where it hangs; itself where all of it is carried.</summary>
    public ToolPath Marked(ToolPath wall)
    {
        var stretches = Stretches(wall);
        if (stretches.TrueForAll(s => s.Step == 0)) return wall;
        Smooth(stretches, wall.Closed);
        if (stretches.TrueForAll(s => s.Step == 0)) return wall;
        stretches = Joined(stretches);
        var points = stretches.ConvertAll(s => wall.At(s.From));
        if (!wall.Closed) points.Add((wall.Points[^1], wall.Widths?[^1] ?? 0));
        return wall with
        {
            Points = [.. points.Select(p => p.Point)],
            Widths = wall.Widths is null ? null : [.. points.Select(p => p.Width)],
            Hanging = [.. stretches.Select(s => (byte)s.Step)],
        };
    }

    /// <summary>Stretches that part no corner and no pace made one: points between them would say nothing.</summary>
    private static List<Stretch> Joined(List<Stretch> stretches)
    {
        var joined = new List<Stretch>(stretches.Count);
        foreach (var stretch in stretches)
            if (joined.Count > 0 && joined[^1].Step == stretch.Step && stretch.From % 1 != 0)
                joined[^1] = joined[^1] with { To = stretch.To, Length = joined[^1].Length + stretch.Length };
            else joined.Add(stretch);
        return joined;
    }

    /// <summary>A stretch between two places on a line, given as the index of a point and the share of the way to the next.</summary>
    private record struct Stretch(double From, double To, double Length, int Step);

    private List<Stretch> Stretches(ToolPath wall)
    {
        var n = wall.Points.Length;
        var stretches = new List<Stretch>(n);
        for (var i = 0; i < (wall.Closed ? n : n - 1); i++)
            stretches.Add(new(i, i + 1, wall.Points[i].To(wall.Points[(i + 1) % n]), 0));
        var shares = new List<double>();
        for (var step = 0; step < Steps.Length && stretches.Exists(s => s.Step == step); step++)
        {
            var edges = _edges[step] ??= new Edges(Carried(Steps[step] - 0.5));
            var parted = new List<Stretch>(stretches.Count);
            foreach (var stretch in stretches)
                if (stretch.Step < step) parted.Add(stretch);
                else Part(stretch, edges, wall, shares, parted);
            stretches = parted;
        }
        return stretches;
    }

    /// <summary>What is carried, wider or narrower by a share of the line's width.</summary>
    private Shape Carried(double share) =>
        share < 0 ? Inset.Of(carried, -share * width, Chords) : Plane.Offset(carried, share * width, Chords);

    /// <summary>Parts a stretch where it crosses edges; the pieces outside them come a step higher.</summary>
    private static void Part(Stretch stretch, Edges edges, ToolPath wall, List<double> shares, List<Stretch> into)
    {
        var (a, b) = (wall.At(stretch.From).Point, wall.At(stretch.To).Point);
        shares.Clear();
        shares.Add(0);
        shares.Add(1);
        edges.Crossings(a, b, shares);
        shares.Sort();
        for (var k = 0; k + 1 < shares.Count; k++)
        {
            var (from, to) = (shares[k], shares[k + 1]);
            if (to <= from) continue;
            var middle = (from + to) / 2;
            var step = edges.Hold(a.Towards(b, middle)) ? stretch.Step : stretch.Step + 1;
            if (into.Count > 0 && into[^1] is var last && last.To > stretch.From && last.Step == step)
                into[^1] = last with { To = Place(to), Length = last.Length + (to - from) * stretch.Length };
            else into.Add(new(Place(from), Place(to), (to - from) * stretch.Length, step));
        }

        double Place(double share) => stretch.From + share * (stretch.To - stretch.From);
    }

    /// <summary>Runs shorter than the line is wide are laid as what carries more of what lies beside them: they would be moves too short to
    /// follow.</summary>
    private void Smooth(List<Stretch> stretches, bool closed)
    {
        var runs = Runs(stretches, closed);
        var first = runs.FindIndex(IsLong);
        if (first < 0) return;
        for (int at = first, next; at < first + runs.Count; at = next)
        {
            next = at + 1;
            while (!IsLong(runs[next % runs.Count])) next++;
            var step = Math.Min(runs[at % runs.Count].Step, runs[next % runs.Count].Step);
            for (var k = at + 1; k < next; k++)
                foreach (var i in runs[k % runs.Count].Members) stretches[i] = stretches[i] with { Step = step };
        }

        bool IsLong(Run run) => run.Length >= width || !closed && (run == runs[0] || run == runs[^1]);
    }

    /// <summary>Neighbouring stretches of one step.</summary>
    private sealed record Run(int Step, double Length, IReadOnlyList<int> Members);

    private static List<Run> Runs(List<Stretch> stretches, bool closed)
    {
        var runs = new List<Run>();
        for (int start = 0, end; start < stretches.Count; start = end)
        {
            for (end = start + 1; end < stretches.Count && stretches[end].Step == stretches[start].Step;) end++;
            runs.Add(new(stretches[start].Step, stretches[start..end].Sum(s => s.Length), [.. Enumerable.Range(start, end - start)]));
        }
        if (closed && runs.Count > 1 && runs[0].Step == runs[^1].Step)
        {
            runs[0] = new(runs[0].Step, runs[0].Length + runs[^1].Length, [.. runs[^1].Members, .. runs[0].Members]);
            runs.RemoveAt(runs.Count - 1);
        }
        return runs;
    }
}

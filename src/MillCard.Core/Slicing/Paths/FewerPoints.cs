using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Paths;

/// <summary>Leaves out the points of a line that change nothing: boards run out of moves long before they run out of time.</summary>
internal static class FewerPoints
{
    /// <summary>A line narrower or wider by so much, as a share of how far its middle may be off, is as bad: half of it shows on either
    /// side.</summary>
    private const double OfWidth = 0.5;

    /// <summary>The same line with as few of its points as keep its middle, and its sides.</summary>
    /// <param name="path">Any.</param>
    /// <param name="error">How far a point that is left out may lie off, mm.</param>
    public static ToolPath Thinned(this ToolPath path, double error)
    {
        var n = path.Points.Length;
        if (n < 3 || error <= 0) return path;
        using var curve = new MeasuredCurve(path.Closed ? n + 1 : n, hasSides: path.Widths is not null);
        for (var i = 0; i < curve.Count; i++)
            curve.Put(i, path.Points[i % n].X, path.Points[i % n].Y, OfWidth * (path.Widths?[i % n] ?? 0));
        var keep = Thinning.Kept(curve, Anyway(path), error);
        var left = keep.AsSpan(0, n).Count(value: true);
        if (left == n || path.Closed && left < 3) return path;
        var kept = new int[left];
        for (int i = 0, next = 0; i < n; i++) if (keep[i]) kept[next++] = i;
        return path with
        {
            Points = At(path.Points),
            Widths = path.Widths is { } widths ? At(widths) : null,
            Paces = path.Paces is { } paces ? Array.ConvertAll(path.Closed ? kept : kept[..^1], i => paces[i]) : null,
        };

        T[] At<T>(T[] all) => Array.ConvertAll(kept, i => all[i]);
    }

    /// <summary>Points that must stay: where the pace changes, and the one of a closed line that is farthest from its first.</summary>
    private static IEnumerable<int> Anyway(ToolPath path)
    {
        var (n, p, paces) = (path.Points.Length, path.Points, path.Paces);
        var farthest = path.Closed ? Thinning.Farthest(n, i => p[i].To(p[0])) : 0;
        for (var i = 1; i < n; i++)
            if (i == farthest || paces is not null && i < paces.Length && paces[i - 1] != paces[i]) yield return i;
    }
}

using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Closing;

/// <summary>Holes that lines leave between each other: a line beside each is led into it, and back.</summary>
internal sealed class Holes : IDisposable
{
    /// <summary>Radius of the holes that may stay, mm: a little less than seen, as lines are thinned out afterwards.</summary>
    private const double Left = 0.045;

    /// <summary>Wider holes are as if they had this radius, mm.</summary>
    public const double Widest = 0.25;

    /// <summary>Radius of what a line that is led into a hole leaves of it, mm: so much less that it is none again.</summary>
    private const double LeftAhead = 0.04;

    /// <summary>Shorter ways into a hole are none, mm.</summary>
    private const double LeastWay = 0.02;

    /// <summary>Steps in which the middle of a hole is looked for, mm.</summary>
    private const double FirstStep = 0.1, LastStep = 0.002;

    /// <summary>Each is so much of the one before.</summary>
    private const double Shorter = 0.82;

    /// <summary>Share of the last step's direction in the next.</summary>
    private const double GoesOn = 0.3;

    /// <summary>How many times lines are led into what is found from one place.</summary>
    private const int MostWays = 6;

    /// <summary>What a way into a hole may be longer so that it goes on from the end of a line, mm, from a corner, or not from an outer
    /// wall, where it is seen.</summary>
    private const double ForEnd = 0.1, ForCorner = 0.03, ForInside = 0.1;

    /// <summary>Cosine between both ways from a corner at which a wall turns by 60°.</summary>
    private const double Corner = -0.5;

    private static readonly (double X, double Y)[] Directions = [.. Enumerable.Range(0, 8)
        .Select(i => (Math.Cos(i * Math.PI / 4), Math.Sin(i * Math.PI / 4)))];

    private readonly IReadOnlyList<ToolPath> _paths;
    private readonly Predicate<ToolPath> _mayLead;
    private readonly Strokes _strokes;
    private readonly Lazy<AreaDepth> _area, _open;
    private readonly List<(int Path, double Place, Point To)> _ways = [];

    private Holes(IReadOnlyList<ToolPath> paths, Shape area, Shape open, double beside, Predicate<ToolPath> mayLead)
    {
        (_paths, _mayLead, _strokes) = (paths, mayLead, new(paths, Widest));
        (_area, _open) = (new(() => new(area, 0)), new(() => new(open, beside)));
    }

    /// <summary>The lines, led into the holes that they leave.</summary>
    /// <param name="paths">All lines that lie there.</param>
    /// <param name="area">What they are to fill.</param>
    /// <param name="open">What of it they need not.</param>
    /// <param name="beside">How far beside that they need not either, mm.</param>
    /// <param name="mayLead">Whether a line may be led elsewhere.</param>
    public static IReadOnlyList<ToolPath> Filled(IReadOnlyList<ToolPath> paths, Shape area, Shape open, double beside,
        Predicate<ToolPath> mayLead)
    {
        if (paths.Count == 0) return paths;
        using var holes = new Holes(paths, area, open, beside, mayLead);
        foreach (var path in paths.Where(path => mayLead(path)))
            foreach (var start in BesideLines.Of(path)) holes.Fill(start);
        // what lies beside the lines that lead aside
        for (var way = 0; way < holes._ways.Count; way++)
            foreach (var start in holes.BesideWay(way)) holes.Fill(start);
        if (holes._ways.Count == 0) return paths;
        var ways = holes._ways.ToLookup(way => way.Path, way => (way.Place, way.To));
        return [.. paths.Select((path, i) => ways.Contains(i) ? path.Aside(ways[i]) : path)];
    }

    /// <summary>Gives the memory back.</summary>
    public void Dispose()
    {
        if (_area.IsValueCreated) _area.Value.Dispose();
        if (_open.IsValueCreated) _open.Value.Dispose();
    }

    private IEnumerable<Point> BesideWay(int way)
    {
        var (path, place, to) = _ways[way];
        var (from, width) = _paths[path].At(place);
        return BesideLines.Of(new ToolPath(PathKind.Thin, [from, to], Closed: false, width));
    }

    /// <summary>Fills the hole at a place, and what is left of it beside that.</summary>
    private void Fill(Point start)
    {
        var starts = new Stack<Point>([start]);
        for (var ways = 0; ways < MostWays && starts.TryPop(out var next);)
        {
            var (middle, radius) = MiddleAt(next);
            if (radius <= Left || !LeadInto(middle, radius)) continue;
            ways++;
            foreach (var (x, y) in Directions) starts.Push(new(middle.X + radius * x, middle.Y + radius * y));
        }
    }

    /// <summary>The middle of the hole at a place, and its radius; no more than what may stay where there is none: away from whatever is
    /// nearest, by ever smaller steps (N. Shor, Minimization methods for non-differentiable functions, 1985).</summary>
    private (Point Middle, double Radius) MiddleAt(Point at)
    {
        var best = (Middle: at, Radius: double.NegativeInfinity);
        var (x, y) = (0.0, 0.0);
        for (var step = FirstStep; step > LastStep; step *= Shorter)
        {
            var (free, from, to) = Free(at);
            if (free > best.Radius) best = (at, free);
            // all steps that are left together
            if (free + step / (1 - Shorter) <= Left) break;
            var way = from.To(to);
            if (way == 0) break;
            // partly on as before: between two sides that open, straight away from either leads only to the other
            (x, y) = ((to.X - from.X) / way + GoesOn * x, (to.Y - from.Y) / way + GoesOn * y);
            var length = Math.Sqrt(x * x + y * y);
            if (length == 0) break;
            (x, y) = (x / length, y / length);
            at = new(at.X + step * x, at.Y + step * y);
        }
        return best;
    }

    /// <summary>How far a place is from all that is filled, mm, or from the lines where no hole is; and the way from what is
    /// nearest.</summary>
    private (double Free, Point From, Point To) Free(Point at)
    {
        var (free, on) = _strokes.Nearest(at);
        var nearest = (Free: free, From: on, To: at);
        if (free <= Left) return nearest;
        if (_area.Value.At(at) is var inside && inside.Depth < nearest.Free) nearest = inside;
        if (_open.Value.At(at) is var open && -open.Depth < nearest.Free) nearest = (-open.Depth, open.To, open.From);
        return nearest;
    }

    /// <summary>Leads a line into a hole; false where none is near.</summary>
    private bool LeadInto(Point middle, double radius)
    {
        var best = (Cost: double.PositiveInfinity, Stroke: default(Stroke), Share: 0.0);
        foreach (var stroke in _strokes.Near(middle))
        {
            var (path, (free, share)) = (_paths[stroke.Path], stroke.Off(middle));
            if (free > 2 * (radius + Left) || !_mayLead(path) || path.Kind == PathKind.OuterWall && !IsHidden(stroke, share)) continue;
            var cost = free + (path.Kind == PathKind.OuterWall ? ForInside : 0);
            if (IsEnd(stroke, share)) cost -= ForEnd;
            else if (share is 0 or 1) cost -= ForCorner;
            if (cost < best.Cost) best = (cost, stroke, share);
        }
        if (double.IsInfinity(best.Cost)) return LeadOn(middle, radius);
        var (from, half) = best.Stroke.At(best.Share);
        if (TipOf(from, half, middle, radius) is not { } tip) return false;
        _strokes.Add(best.Stroke with { From = from, To = tip, HalfFrom = half, HalfTo = half, Point = ~_ways.Count });
        _ways.Add((best.Stroke.Path, best.Stroke.Point + best.Share, tip));
        return true;
    }

    /// <summary>Leads a line that was led aside farther, where what is left lies ahead of it; outer walls stay behind their tips.</summary>
    private bool LeadOn(Point middle, double radius)
    {
        foreach (var stroke in _strokes.AddedNear(middle))
        {
            var (path, place, led) = _ways[~stroke.Point];
            if (stroke.To != led || _paths[path].Kind == PathKind.OuterWall) continue;
            var (free, share) = stroke.Off(middle);
            if (share < 1 || free > 2 * (radius + Left) || TipOf(stroke.From, stroke.HalfFrom, middle, radius) is not { } tip) continue;
            var on = stroke with { To = tip };
            // as good as straight on
            if (on.FromLine(led) > Left || stroke.From.To(tip) < stroke.From.To(led) + LeastWay) continue;
            _ways[~stroke.Point] = (path, place, tip);
            _strokes.Add(on);
            return true;
        }
        return false;
    }

    /// <summary>Where a line of half a width ends that is led into a hole: its round end is near enough to the far side; null where it is
    /// hardly led at all.</summary>
    private static Point? TipOf(Point from, double half, Point middle, double radius)
    {
        var to = from.To(middle);
        var way = to + radius - half - 2 * LeftAhead;
        return way <= LeastWay ? null : from.Towards(middle, way / to);
    }

    private bool IsEnd(in Stroke stroke, double share) => _paths[stroke.Path] is { Closed: false } path
        && (stroke.Point == 0 && share == 0 || stroke.Point == path.Points.Length - 2 && share == 1);

    /// <summary>Whether a wall that is led aside at a place is hardly seen to be: where it ends, or turns a corner.</summary>
    private bool IsHidden(in Stroke stroke, double share)
    {
        if (IsEnd(stroke, share)) return true;
        var (path, place) = (_paths[stroke.Path], stroke.Point + share);
        var at = path.At(place).Point;
        var (before, next) = (Away(path, at, (int)Math.Ceiling(place) - 1, -1), Away(path, at, (int)place + 1, 1));
        var (back, on) = (at.To(before), at.To(next));
        return (before.X - at.X) * (next.X - at.X) + (before.Y - at.Y) * (next.Y - at.Y) > Corner * back * on;
    }

    /// <summary>The first point of a line that is a width away from a place; the line's end where there is none.</summary>
    private static Point Away(ToolPath path, Point from, int first, int step)
    {
        var (p, n) = (path.Points, path.Points.Length);
        for (var i = first; Math.Abs(i - first) < n; i += step)
        {
            if (!path.Closed && (i < 0 || i >= n)) return i < 0 ? p[0] : p[^1];
            if (p[(i + n) % n] is var there && there.To(from) >= path.Widest) return there;
        }
        return from;
    }
}

using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Lines along an outline, the same distance from it wherever it is wide, nearer or further where it is narrow. Where there are
/// too few lines across a place for one to lie on both sides, it turns back.</summary>
internal sealed class RingBeads
{
    private readonly Outline _outline;
    private readonly int _index;
    private readonly List<Run> _runs = [];
    private readonly List<Bead> _beads = [];

    /// <summary>A line between two places at which it turns back, or ends.</summary>
    private sealed class Run(int points = 0)
    {
        public List<BeadPoint> Points { get; } = new(points);
        public Run? Next { get; set; }
        public bool IsFollower { get; set; }
    }

    private RingBeads(Outline outline, int index) => (_outline, _index) = (outline, index);

    /// <summary>The lines that are so many from the outline.</summary>
    /// <param name="outline">The outline.</param>
    /// <param name="index">From 0.</param>
    public static IReadOnlyList<Bead> Of(Outline outline, int index)
    {
        var beads = new RingBeads(outline, index);
        for (var ring = 0; ring < outline.Ribs.Length; ring++) beads.Ring(ring);
        beads.Join();
        return beads._beads;
    }

    private void Ring(int ring)
    {
        var lines = _outline.Lines[ring];
        var n = lines.Length;
        if (n == 0) return;
        var start = Array.FindIndex(lines, l => !Has(l));
        if (start < 0)
        {
            var (whole, here) = (new Run(n), Lie(ring, 0));
            for (var i = 0; i < n; i++)
            {
                var next = Lie(ring, (i + 1) % n);
                Point(whole, ring, i, here);
                Between(whole, ring, i, here, (i + 1) % n, next);
                here = next;
            }
            if (whole.Points.Count > 2) _beads.Add(new Bead(whole.Points, Closed: true));
            return;
        }
        Run? open = null;
        for (var k = start; k < start + n; k++)
        {
            var (i, j) = (k % n, (k + 1) % n);
            if (open is not null) Point(open, ring, i, Lie(ring, i));
            switch (Has(lines[i]), Has(lines[j]))
            {
                case (true, true): Between(open!, ring, i, Lie(ring, i), j, Lie(ring, j)); break;
                case (false, true): Change(open = new Run(), ring, j, i); break;
                case (true, false):
                    Change(open!, ring, i, j);
                    if (open!.Points.Count > 1) _runs.Add(open);
                    open = null;
                    break;
            }
        }
    }

    private bool Has(int lines) => lines / 2 > _index;

    /// <summary>How deep the line lies on a rib and how wide it is there, mm.</summary>
    private (double Depth, double Width) Lie(int ring, int i)
    {
        var (thickness, lines) = (_outline.Thickness[ring][i], _outline.Lines[ring][i]);
        return (_outline.Beading.DepthOf(thickness, lines, _index), _outline.Beading.Width(thickness, lines, _index));
    }

    /// <summary>The line's place on a rib; none where another side is nearer, round a corner.</summary>
    private void Point(Run run, int ring, int i, (double Depth, double Width) lie)
    {
        ref readonly var rib = ref _outline.Ribs[ring][i];
        if (lie.Depth <= rib.Radius) Add(run, rib.At(lie.Depth), lie.Width);
    }

    /// <summary>The corner of a line, where it reaches the middle between two sides.</summary>
    private void Between(Run run, int ring, int i, (double Depth, double Width) here, int j, (double Depth, double Width) next)
    {
        ref readonly var a = ref _outline.Ribs[ring][i];
        ref readonly var b = ref _outline.Ribs[ring][j];
        var (left, right) = (a.Radius - here.Depth, b.Radius - next.Depth);
        if (left >= 0 == right >= 0) return;
        var share = left / (left - right);
        Add(run, a.Towards(b, share).At(here.Depth + share * (next.Depth - here.Depth)), here.Width + share * (next.Width - here.Width));
    }

    /// <summary>Where a line begins or ends between a rib that has it and one that has not.</summary>
    private void Change(Run run, int ring, int has, int hasNot)
    {
        var beading = _outline.Beading;
        var (from, to) = (_outline.Thickness[ring][has], _outline.Thickness[ring][hasNot]);
        var grows = to > from;
        var lines = grows ? beading.Most : 2 * _index + 2;
        var share = Share(from, to, grows ? beading.Wide : beading.Change(2 * _index + 1));
        var rib = _outline.Ribs[ring][has].Towards(_outline.Ribs[ring][hasNot], share);
        var thickness = Math.Min(from + share * (to - from), Math.BitDecrement(beading.Wide));
        var depth = beading.DepthOf(thickness, lines, _index);
        if (depth <= rib.Radius + Plane.Touch) Add(run, rib.At(depth), beading.Width(thickness, lines, _index));
    }

    /// <summary>Where between two thicknesses a third one lies, from 0 to 1.</summary>
    public static double Share(double from, double to, double at) => to == from ? 0 : Math.Clamp((at - from) / (to - from), 0, 1);

    private static void Add(Run run, Point at, double width)
    {
        if (run.Points.Count == 0 || run.Points[^1].At.To(at) > Plane.Touch) run.Points.Add(new BeadPoint(at, width));
    }

    /// <summary>A line that turns back goes on with the one that begins across the middle.</summary>
    private void Join()
    {
        var pairs = from end in _runs
                    from start in _runs
                    let distance = end.Points[^1].At.To(start.Points[0].At)
                    where distance < 2 * end.Points[^1].Width
                    orderby distance
                    select (end, start);
        foreach (var (end, start) in pairs)
        {
            if (end.Next is not null || start.IsFollower) continue;
            (end.Next, start.IsFollower) = (start, true);
        }
        var done = new HashSet<Run>();
        // open chains from their beginnings, then closed ones from anywhere
        foreach (var first in _runs.OrderBy(r => r.IsFollower))
        {
            if (!done.Add(first)) continue;
            var points = new List<BeadPoint>(first.Points);
            var run = first.Next;
            for (; run is not null && done.Add(run); run = run.Next) points.AddRange(run.Points);
            var closed = run == first && points.Count > 2;
            if (Bead.LengthOf(points) > (closed ? 3 : 1) * points[0].Width) _beads.Add(new Bead(points, closed));
        }
    }
}

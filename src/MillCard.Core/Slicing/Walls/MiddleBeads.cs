using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Lines along the middle between two sides, where an odd number of lines lies across.</summary>
internal sealed class MiddleBeads
{
    /// <summary>How far a single line reaches beyond the last place that is as thick, as a share of its width: its round end then holds
    /// about what is missing of the corners.</summary>
    private const double Reach = 0.25;

    /// <summary>Ends of pieces that lie nearer than this share of the width are one place.</summary>
    private const double Touching = 0.7;

    /// <summary>What is shorter than this share of its width is no line: it would hold next to nothing, and a drop may lie there.</summary>
    private const double Shortest = 0.1;

    private readonly Outline _outline;
    private readonly Func<int, bool> _lies;
    private readonly List<Piece> _pieces = [];

    private sealed record Piece(List<BeadPoint> Points)
    {
        /// <summary>By how much it is made longer where it begins and ends, mm; what is negative is taken off.</summary>
        public double AtStart { get; set; }
        public double AtEnd { get; set; }
    }

    private MiddleBeads(Outline outline, Func<int, bool> lies) => (_outline, _lies) = (outline, lies);

    /// <summary>The lines.</summary>
    public static IReadOnlyList<Bead> Of(Outline outline) =>
        [.. Pieces(outline, lines => lines % 2 == 1).Select(Ended).Where(p => p.Count > 1 && Bead.LengthOf(p) > Shortest * p[0].Width)
            .Select(p => new Bead(p, Closed: false))];

    /// <summary>Places that no line fits into.</summary>
    public static IReadOnlyList<TooThin> Missing(Outline outline) => [.. Pieces(outline, lines => lines == 0)
        .Select(p => new TooThin(p.Points[p.Points.Count / 2].At, Bead.LengthOf(p.Points), p.Points[p.Points.Count / 2].Width))];

    private static List<Piece> Pieces(Outline outline, Func<int, bool> lies)
    {
        var beads = new MiddleBeads(outline, lies);
        for (var ring = 0; ring < outline.Ribs.Length; ring++) beads.Ring(ring);
        beads.Join();
        return beads._pieces;
    }

    private void Ring(int ring)
    {
        var (ribs, lines) = (_outline.Ribs[ring], _outline.Lines[ring]);
        var n = ribs.Length;
        Piece? open = null;
        var last = -1;
        for (var i = 0; i < n; i++)
        {
            var rib = ribs[i];
            if (open is not null && !_lies(lines[i]))
            {
                End(open, ring, last, i);
                open = null;
            }
            if (!_lies(lines[i]) || !_outline.HasMiddle(ring, i)) continue;
            if (!LineCounts.IsFirst(ring, rib))
            {
                Close(ring, last);
                continue;
            }
            var point = new BeadPoint(rib.At(rib.Radius), WidthAt(ring, i));
            // corners of the sides are passed over; a middle that goes on elsewhere is another one
            if (last != i - 1 && open is not null && open.Points[^1].At.To(point.At) > Math.Max(point.Width, 0.3)) Close(ring, last);
            if (open is null)
            {
                _pieces.Add(open = new Piece([]));
                if (i > 0 && !_lies(lines[i - 1])) Begin(open, ring, i, i - 1);
                else open.AtStart = Beyond(ring, i, -1);
            }
            open.Points.Add(point);
            last = i;
        }
        Close(ring, last);

        void Close(int at, int end)
        {
            if (open is not null) open.AtEnd = Beyond(at, end, 1);
            open = null;
        }
    }

    private double WidthAt(int ring, int i)
    {
        var (thickness, lines) = (_outline.Thickness[ring][i], _outline.Lines[ring][i]);
        return lines == 0 ? thickness : _outline.Beading.Width(thickness, lines, lines / 2);
    }

    private void Begin(Piece piece, int ring, int has, int hasNot)
    {
        var (point, reach) = Change(ring, has, hasNot);
        piece.Points.Add(point);
        piece.AtStart = reach;
    }

    private void End(Piece piece, int ring, int has, int hasNot)
    {
        // only from one rib to the next is it known where the change lies
        if (hasNot != has + 1)
        {
            piece.AtEnd = Beyond(ring, has, 1);
            return;
        }
        var (point, reach) = Change(ring, has, hasNot);
        piece.Points.Add(point);
        piece.AtEnd = reach;
    }

    /// <summary>Where the number of lines changes, and how far a line in the middle goes beyond: up to the lines on both sides of it where
    /// these turn back there.</summary>
    private (BeadPoint Point, double Reach) Change(int ring, int has, int hasNot)
    {
        var (beading, lines) = (_outline.Beading, _outline.Lines[ring][has]);
        var (from, to) = (_outline.Thickness[ring][has], _outline.Thickness[ring][hasNot]);
        var grows = to > from;
        var share = RingBeads.Share(from, to, beading.Change(grows ? lines : lines - 1));
        var at = Math.Min(from + share * (to - from), Math.BitDecrement(beading.Wide));
        var rib = _outline.Ribs[ring][has].Towards(_outline.Ribs[ring][hasNot], share);
        var width = lines == 0 ? at : beading.Width(at, lines, lines / 2);
        var reach = 0.0;
        if (lines == 1 && !grows) reach = Reach * width;
        else if (grows && lines < beading.Most) reach = -beading.Width(at, lines + 1, lines / 2) / 2;
        return (new BeadPoint(rib.At(rib.Radius), width), reach);
    }

    /// <summary>How far the line goes beyond the last rib that faces another side: where it widens it meets what lies across.</summary>
    private double Beyond(int ring, int last, int direction)
    {
        var (ribs, n) = (_outline.Ribs[ring], _outline.Ribs[ring].Length);
        if (_outline.Lines[ring][last] != 1) return 0;
        var next = ribs[(last + direction + n) % n];
        var width = WidthAt(ring, last);
        return next.Radius > 1.02 * ribs[last].Radius ? -Reach * width : Reach * width;
    }

    /// <summary>Pieces of one middle that were followed from different sides become one, the nearest ends first.</summary>
    private void Join()
    {
        var ends = _pieces.SelectMany(piece => new[] { (Piece: piece, AtEnd: false), (Piece: piece, AtEnd: true) }).ToArray();
        var pairs = from i in Enumerable.Range(0, ends.Length)
                    from k in Enumerable.Range(i + 1, ends.Length - i - 1)
                    where ends[i].Piece != ends[k].Piece
                    let here = EndOf(ends[i].Piece, ends[i].AtEnd)
                    let distance = here.At.To(EndOf(ends[k].Piece, ends[k].AtEnd).At)
                    where distance < Touching * here.Width
                    orderby distance
                    select (One: i, Other: k);
        // by which piece and on which side an end of one of the first pieces can be found now; null where it was joined
        var now = ends.Select(e => ((Piece Piece, bool AtEnd)?)e).ToArray();
        foreach (var (one, other) in pairs.ToArray())
        {
            if (now[one] is not { } a || now[other] is not { } b || a.Piece == b.Piece) continue;
            if (!a.AtEnd) Turn(a.Piece);
            if (b.AtEnd) Turn(b.Piece);
            a.Piece.Points.AddRange(b.Piece.Points);
            a.Piece.AtEnd = b.Piece.AtEnd;
            _pieces.Remove(b.Piece);
            (now[one], now[other]) = (null, null);
            for (var e = 0; e < now.Length; e++)
                if (now[e] is { } left && left.Piece == b.Piece) now[e] = (a.Piece, true);
        }

        void Turn(Piece piece)
        {
            piece.Points.Reverse();
            (piece.AtStart, piece.AtEnd) = (piece.AtEnd, piece.AtStart);
            for (var e = 0; e < now.Length; e++) if (now[e] is { } end && end.Piece == piece) now[e] = (piece, !end.AtEnd);
        }
    }

    private static BeadPoint EndOf(Piece piece, bool end) => end ? piece.Points[^1] : piece.Points[0];

    /// <summary>A piece with its ends moved.</summary>
    private static List<BeadPoint> Ended(Piece piece)
    {
        var points = Moved(piece.Points, piece.AtEnd);
        points.Reverse();
        points = Moved(points, piece.AtStart);
        points.Reverse();
        return points;
    }

    private static List<BeadPoint> Moved(List<BeadPoint> points, double by)
    {
        points = [.. points];
        while (by < 0 && points.Count > 1 && points[^2].At.To(points[^1].At) is var last)
        {
            if (last > -by)
            {
                points[^1] = Between(points[^1], points[^2], -by / last);
                return points;
            }
            by += last;
            points.RemoveAt(points.Count - 1);
        }
        if (by < 0 && points.Count == 1) return [];
        if (by > 0 && points.Count > 1)
        {
            // along the last stretch, not along its last rounding
            var from = points.FindLastIndex(p => p.At.To(points[^1].At) > 0.05);
            if (from >= 0 && points[from].At.To(points[^1].At) is var stretch)
                points.Add(Between(points[^1], points[from], -by / stretch) with { Width = points[^1].Width });
        }
        return points;
    }

    private static BeadPoint Between(BeadPoint a, BeadPoint b, double share) => new(
        a.At.Towards(b.At, share), a.Width + share * (b.Width - a.Width));
}

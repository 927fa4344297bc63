using MillCard.Core.Geometry;
using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Ribs all along an outline, as dense as its thickness changes.</summary>
internal sealed class Ribs
{
    /// <summary>Sides face each other where they make less than this angle, degrees; a wider one is a corner, round which walls
    /// run.</summary>
    private const double Facing = 40;
    private const double Step = 0.5, LeastStep = 0.06, Error = 0.01;
    /// <summary>Between the ribs of a corner that points inwards, radians; less where the radius does not run straight from one to the
    /// next.</summary>
    private const double Turn = Math.PI / 12, LeastTurn = Math.PI / 100, TurnError = 0.05;
    private static readonly double FacingCosine = -Math.Cos(Facing * Math.PI / 180);
    /// <summary>Round a sharper corner than this, degrees, lines leave holes wider than 0.1 mm.</summary>
    private const double Pointed = 80;
    private static readonly double PointedCosine = -Math.Cos(Pointed * Math.PI / 180);

    /// <summary>About as many ribs as there are to a corner, rather more.</summary>
    private const int RibsEach = 4;

    private readonly OutlineEdges _edges;
    private readonly double _most;

    private Ribs(Polygon polygon, double most) => (_edges, _most) = (new OutlineEdges(polygon), most);

    /// <summary>Cosine of the turn at the outline's sharpest corner that points outwards; 1 where it has none.</summary>
    public static double Sharpest(Polygon polygon)
    {
        var least = 1.0;
        foreach (var ring in polygon.InteriorRings.Prepend(polygon.ExteriorRing))
        {
            var c = ring.Coordinates;
            var left = Orientation.IsCCWArea(c) == ReferenceEquals(ring, polygon.ExteriorRing) ? 1 : -1;
            for (var i = 0; i + 1 < c.Length; i++)
            {
                var (a, b, d) = (c[i == 0 ? c.Length - 2 : i - 1], c[i], c[i + 1]);
                var turn = left * Turning(new Point(a.X, a.Y), new Point(b.X, b.Y), new Point(d.X, d.Y));
                if (turn > 0) least = Math.Min(least, Math.Cos(turn));
            }
        }
        return least;
    }

    /// <summary>Whether sides face each other at a corner with a turn of such a cosine.</summary>
    public static bool IsTip(double cosine) => cosine <= FacingCosine;

    /// <summary>Whether lines do not fill such a corner as they turn.</summary>
    public static bool IsPoint(double cosine) => cosine <= PointedCosine;

    /// <summary>The ribs of every ring, in the order of its way, the solid to the left.</summary>
    /// <param name="polygon">Valid.</param>
    /// <param name="most">Radius from which a place is wide, mm.</param>
    public static Rib[][] Of(Polygon polygon, double most)
    {
        var ribs = new Ribs(polygon, most);
        using var into = new RentedList<Rib>(RibsEach * polygon.NumPoints);
        return [.. Enumerable.Range(0, ribs._edges.Rings.Length).Select(ring => ribs.Ring(ring, into))];
    }

    private Rib[] Ring(int ring, RentedList<Rib> into)
    {
        var corners = _edges.Rings[ring];
        var n = corners.Length;
        var along = 0.0;
        into.Clear();
        for (var i = 0; i < n; i++)
        {
            var (before, here, next) = (corners[(i + n - 1) % n], corners[i], corners[(i + 1) % n]);
            var length = here.To(next);
            var (x, y) = ((next.X - here.X) / length, (next.Y - here.Y) / length);
            var edge = new Side(here, x, y, along, _edges.Firsts[ring] + i);
            var first = Corner(into, before, next, edge, _edges.Firsts[ring] + (i + n - 1) % n);
            var turn = Turning(here, next, corners[(i + 2) % n]);
            var last = turn > 0 ? Tip(next, edge, along + length, turn) : At(edge, length, _edges.Firsts[ring] + (i + 1) % n);
            // between two corners that point outwards only what lies between them tells how much room there is
            if (first.Radius == 0 && turn > 0 && length < LeastStep) into.Add(At(edge, length / 2));
            Between(into, edge, first, 0, last, length);
            into.Add(last);
            along += length;
        }
        return into.ToArray();
    }

    private readonly record struct Side(Point Start, double X, double Y, double Along, int Edge);

    /// <summary>By how much the way turns at a corner, radians; more than 0 where the corner points outwards.</summary>
    private static double Turning(Point a, Point b, Point c)
    {
        var (x0, y0, x1, y1) = (b.X - a.X, b.Y - a.Y, c.X - b.X, c.Y - b.Y);
        return Math.Atan2(x0 * y1 - y0 * x1, x0 * x1 + y0 * y1);
    }

    /// <summary>The end of an edge at a corner that points outwards: there is no room for a disc, and the sides of a sharp tip face each
    /// other up to it.</summary>
    private static Rib Tip(Point corner, Side edge, double along, double turn) =>
        new(corner, -edge.Y, edge.X, along, 0, Math.Cos(turn) <= FacingCosine, -1, 0);

    /// <summary>Ribs at the corner where an edge begins, the last of them square to it; at a corner that points inwards they spread like a
    /// fan.</summary>
    private Rib Corner(RentedList<Rib> into, Point before, Point next, Side edge, int edgeBefore)
    {
        var here = edge.Start;
        var turn = Turning(before, here, next);
        if (turn > 0)
        {
            into.Add(Tip(here, edge, edge.Along, turn));
            return into.Last;
        }
        if (turn == 0) return At(edge, 0, edgeBefore);
        var last = Turned(1);
        // the edge before ended with the first
        Spread(into.Count > 0 ? into.Last : Turned(0), 0, last, 1);
        into.Add(last);
        return last;

        // from the direction of the edge that begins here, turned back
        Rib Turned(double share)
        {
            var (sin, cos) = Math.SinCos(turn * (share - 1));
            var (dx, dy) = (cos * edge.X - sin * edge.Y, sin * edge.X + cos * edge.Y);
            return Of(here, -dy, dx, edge.Along, edge.Edge, edgeBefore);
        }

        void Spread(Rib from, double start, Rib to, double end)
        {
            var wide = (end - start) * -turn;
            if (wide <= LeastTurn) return;
            var middle = (start + end) / 2;
            var rib = Turned(middle);
            if (wide <= Turn && Math.Abs(rib.Radius - (from.Radius + to.Radius) / 2) < TurnError && rib.Faces == from.Faces
                && rib.Faces == to.Faces) return;
            Spread(from, start, rib, middle);
            into.Add(rib);
            Spread(rib, middle, to, end);
        }
    }

    private Rib At(Side edge, double along, int beside = -1) => Of(new Point(edge.Start.X + along * edge.X, edge.Start.Y + along * edge.Y),
        -edge.Y, edge.X, edge.Along + along, edge.Edge, beside);

    private Rib Of(Point foot, double normalX, double normalY, double along, int on, int beside)
    {
        var disc = _edges.Disc(foot, normalX, normalY, _most, on, beside);
        return new Rib(foot, normalX, normalY, along, disc.Radius, disc.Cosine <= FacingCosine, disc.Ring, disc.Along);
    }

    /// <summary>Ribs between two of an edge, where the radius does not run straight from the one to the other.</summary>
    private void Between(RentedList<Rib> into, Side edge, Rib from, double start, Rib to, double end)
    {
        // between two that are wide nothing can be near but what would touch one of their discs
        if (end - start < LeastStep || end - start <= Step && from.Radius >= _most && to.Radius >= _most) return;
        var middle = (start + end) / 2;
        var rib = At(edge, middle);
        var straight = Math.Abs(rib.Radius - (from.Radius + to.Radius) / 2) < Error && rib.Faces == from.Faces && rib.Faces == to.Faces;
        if (!straight || end - start > Step)
        {
            Between(into, edge, from, start, rib, middle);
            into.Add(rib);
            Between(into, edge, rib, middle, to, end);
        }
    }
}

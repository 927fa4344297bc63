using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Geometry;

/// <summary>Pieces of an outline linked to rings, and rings to areas with holes.</summary>
internal static class LinkedRings
{
    /// <summary>The areas to the left of the pieces; null where they do not close.</summary>
    /// <param name="pieces">They meet at their ends alone.</param>
    /// <param name="stop">Ends the linking.</param>
    public static Shape? Areas(List<NodedEdge> pieces, CancellationToken stop)
    {
        if (Linked(pieces) is not { } rings) return null;
        stop.ThrowIfCancellationRequested();
        var (shells, holes) = (new List<(LinearRing Ring, List<LinearRing> Holes)>(), new List<LinearRing>());
        foreach (var ring in rings)
            if (Orientation.IsCCWArea(ring.Coordinates)) shells.Add((ring, []));
            else holes.Add(ring);
        if (!Nested(shells, holes, stop)) return null;
        var polygons = shells.Select(s => Plane.Factory.CreatePolygon(s.Ring, [.. s.Holes])).ToArray();
        return polygons.Length == 1 ? polygons[0] : Plane.Factory.CreateMultiPolygon(polygons);
    }

    /// <summary>At a corner where several rings meet, each goes on along its own area: by the sharpest turn to the left. A ring that comes
    /// to a corner again, as where a hole touches its shell, is parted there.</summary>
    private static List<LinearRing>? Linked(List<NodedEdge> pieces)
    {
        var byFrom = pieces.ToLookup(p => p.From);
        var (done, rings) = (new HashSet<NodedEdge>(pieces.Count), new List<LinearRing>());
        var (way, places) = (new List<Node>(), new Dictionary<Node, int>());
        foreach (var first in pieces)
        {
            if (done.Contains(first)) continue;
            for (var piece = first; done.Add(piece);)
            {
                Visit(piece.From);
                NodedEdge? next = null;
                foreach (var other in byFrom[piece.To])
                    if (!done.Contains(other) || other == first)
                        if (next is not { } best || Turn(piece, other) > Turn(piece, best)) next = other;
                if (next is not { } found) return null;
                piece = found;
            }
            Visit(first.From);
            way.Clear();
            places.Clear();
        }
        return rings;

        void Visit(Node node)
        {
            if (places.TryGetValue(node, out var place))
            {
                if (way.Count - place > 2) rings.Add(Ring(way[place..]));
                foreach (var left in way[place..]) places.Remove(left);
                way.RemoveRange(place, way.Count - place);
            }
            places[node] = way.Count;
            way.Add(node);
        }
    }

    private static LinearRing Ring(List<Node> nodes) => Plane.Factory.CreateLinearRing(
        [.. nodes.Append(nodes[0]).Select(node => new Coordinate(node.X * Node.Step, node.Y * Node.Step))]);

    /// <summary>By how much the way turns to the left from one piece into the next, radians.</summary>
    private static double Turn(in NodedEdge a, in NodedEdge b)
    {
        var (ax, ay, bx, by) = ((double)(a.To.X - a.From.X), (double)(a.To.Y - a.From.Y), (double)(b.To.X - b.From.X),
            (double)(b.To.Y - b.From.Y));
        return Math.Atan2(ax * by - ay * bx, ax * bx + ay * by);
    }

    /// <summary>Gives every hole to the shell round it: that of the nearest ring to the left of its leftmost corner, or the one that the
    /// hole there belongs to.</summary>
    private static bool Nested(List<(LinearRing Ring, List<LinearRing> Holes)> shells, List<LinearRing> holes, CancellationToken stop)
    {
        if (holes.Count == 0) return true;
        if (shells.Count == 1)
        {
            shells[0].Holes.AddRange(holes);
            return true;
        }
        LinearRing[] rings = [.. shells.Select(s => s.Ring), .. holes.OrderBy(h => h.EnvelopeInternal.MinX)];
        var edges = new List<DirectedSegment>();
        var ringOf = new List<int>();
        for (var r = 0; r < rings.Length; r++)
            for (var (i, c) = (1, rings[r].Coordinates); i < c.Length; i++)
            {
                edges.Add(new(c[i - 1].X, c[i - 1].Y, c[i].X, c[i].Y));
                ringOf.Add(r);
            }
        var cells = new SegmentCells(edges, stop);
        var owner = new int[rings.Length];
        for (var r = 0; r < rings.Length; r++)
        {
            owner[r] = r;
            if (r < shells.Count) continue;
            // what lies to the left of a hole came before it
            var left = Left(r);
            if (left < 0 || left >= r) return false;
            owner[r] = owner[left];
            shells[owner[r]].Holes.Add(rings[r]);
        }
        return true;

        int Left(int hole)
        {
            var (x, y) = Beside(rings[hole].Coordinates);
            var cell = cells.CellOf(x, y);
            for (var column = cell % cells.Columns; column >= 0; column--, cell--)
            {
                var (nearest, found) = (double.NegativeInfinity, -1);
                foreach (var e in cells.In(cell))
                {
                    var s = edges[e];
                    if (s.Y0 <= y == s.Y1 <= y) continue;
                    var at = s.X0 + (y - s.Y0) / (s.Y1 - s.Y0) * (s.X1 - s.X0);
                    if (at < x && at > nearest) (nearest, found) = (at, ringOf[e]);
                }
                // in a cell further left nothing is nearer
                if (found >= 0 && (column == 0 || nearest >= cells.LeftOf(cell))) return found;
            }
            return -1;
        }
    }

    /// <summary>A point of the area beside a hole, next to the hole's leftmost corner: not the corner itself, where other rings may
    /// touch.</summary>
    private static (double X, double Y) Beside(Coordinate[] hole)
    {
        const double along = 1e-5, away = 1e-8;
        var n = hole.Length - 1;
        var i = Enumerable.Range(0, n).MinBy(k => hole[k].X);
        var (before, corner, next) = (hole[(i + n - 1) % n], hole[i], hole[i + 1]);
        // holes run with the area to their left: on a way up it lies towards smaller X
        var other = next.Y > corner.Y ? next : before;
        var share = Math.Min(0.5, along / corner.Distance(other));
        return (corner.X + share * (other.X - corner.X) - away, corner.Y + share * (other.Y - corner.Y));
    }
}

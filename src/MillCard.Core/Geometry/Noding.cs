using System.Numerics;
using System.Runtime.InteropServices;

namespace MillCard.Core.Geometry;

/// <summary>A corner on a raster of a millionth of a millimetre, in such steps.</summary>
internal readonly record struct Node(long X, long Y) : IComparable<Node>
{
    public const double Step = 1e-6;

    public static Node At(double x, double y) => new((long)Math.Round(x / Step), (long)Math.Round(y / Step));

    public int CompareTo(Node other) => X != other.X ? X.CompareTo(other.X) : Y.CompareTo(other.Y);
}

/// <summary>A straight piece between two nodes, and how many borders run along it, the area of all of them to its left.</summary>
internal readonly record struct NodedEdge(Node From, Node To, int Times)
{
    public DirectedSegment Segment => new(From.X * Node.Step, From.Y * Node.Step, To.X * Node.Step, To.Y * Node.Step);
}

/// <summary>Borders broken up wherever they cross, touch or run along each other.</summary>
internal static class Noding
{
    /// <summary>Beyond, products of coordinates no longer fit: two metres.</summary>
    private const double Farthest = 2000;

    /// <summary>So many pieces, pairs of them and nodes are looked at, which takes about a second; beyond, there are better
    /// ways.</summary>
    private const int MostPieces = 600_000, MostPairs = 20_000_000, MostNodes = 600_000;

    /// <summary>Borders that would cross each other more often than this are not even sorted: it is a guess.</summary>
    private const double MostCrossings = 100.0 * MostNodes;

    private const int Sample = 64;

    /// <summary>The pieces, each once; those that run along each other in opposite ways are left out. Null where pieces lie too close to
    /// look at all pairs, or are too many.</summary>
    /// <param name="border">mm.</param>
    /// <param name="certain">Where it does not matter whether they cross; null for nowhere.</param>
    /// <param name="stop">Ends the computation.</param>
    public static List<NodedEdge>? Of(IReadOnlyList<DirectedSegment> border, CertainCells? certain, CancellationToken stop) =>
        border.Count > MostPieces || certain is null && Crossings(border) > MostCrossings ? null
            : Again(Merged(border.Select(s => (Node.At(s.X0, s.Y0), Node.At(s.X1, s.Y1), 1))), certain, stop);

    /// <summary>About how often pieces would cross each other if they lay anyhow: 1/π of the square of their length to the area round
    /// them, for two of a length l in an area A do with a chance of 2l²/πA (L. A. Santaló, "Integral Geometry and Geometric
    /// Probability", 1976; from memory). Those that run along each other count once; how many do is seen on every sixty-fourth.</summary>
    internal static double Crossings(IReadOnlyList<DirectedSegment> border)
    {
        var (left, bottom, right, top, length) = (double.MaxValue, double.MaxValue, double.MinValue, double.MinValue, 0.0);
        var some = new HashSet<(Node, Node)>();
        for (var i = 0; i < border.Count; i++)
        {
            var s = border[i];
            (left, right) = (Math.Min(left, Math.Min(s.X0, s.X1)), Math.Max(right, Math.Max(s.X0, s.X1)));
            (bottom, top) = (Math.Min(bottom, Math.Min(s.Y0, s.Y1)), Math.Max(top, Math.Max(s.Y0, s.Y1)));
            if (Mixed(s.X0, s.Y0) + Mixed(s.X1, s.Y1) > ulong.MaxValue / Sample) continue;
            var (from, to) = (Node.At(s.X0, s.Y0), Node.At(s.X1, s.Y1));
            if (!some.Add(from.CompareTo(to) < 0 ? (from, to) : (to, from))) continue;
            length += Sample * Math.Sqrt((s.X1 - s.X0) * (s.X1 - s.X0) + (s.Y1 - s.Y0) * (s.Y1 - s.Y0));
        }
        return length * length / (Math.PI * Math.Max((right - left) * (top - bottom), Plane.Touch));

        // the same for a piece and the same run the other way
        static ulong Mixed(double x, double y) =>
            (BitConverter.DoubleToUInt64Bits(x) ^ BitOperations.RotateLeft(BitConverter.DoubleToUInt64Bits(y), 32)) * 0x9E3779B97F4A7C15;
    }

    /// <summary>Pieces broken up once more: nodes are rounded, and where many lie close to each other pieces may cross after it.</summary>
    public static List<NodedEdge>? Again(List<NodedEdge> pieces, CertainCells? certain, CancellationToken stop)
    {
        if (pieces.Count == 0) return [];
        DirectedSegment[] segments = [.. pieces.Select(p => p.Segment)];
        if (Array.Exists(segments, s => Math.Abs(s.X0) > Farthest || Math.Abs(s.Y0) > Farthest)) return null;
        var cells = new SegmentCells(segments, stop);
        var open = cells.Open(certain);
        if (open.Sum(cells.PairsIn) > MostPairs) return null;
        var nodes = new List<(int Piece, double Share, Node At)>();
        foreach (var cell in open)
        {
            if (cell % 1024 == 0) stop.ThrowIfCancellationRequested();
            if (nodes.Count > MostNodes) return null;
            var within = cells.In(cell);
            for (var i = 1; i < within.Length; i++)
                for (var k = 0; k < i; k++) Meet(pieces, within[i], within[k], nodes);
        }
        nodes.Sort((a, b) => a.Piece != b.Piece ? a.Piece.CompareTo(b.Piece) : a.Share.CompareTo(b.Share));
        stop.ThrowIfCancellationRequested();
        return Merged(Broken(pieces, nodes));
    }

    private static IEnumerable<(Node From, Node To, int Times)> Broken(List<NodedEdge> pieces,
        List<(int Piece, double Share, Node At)> nodes)
    {
        var next = 0;
        for (var i = 0; i < pieces.Count; i++)
        {
            var from = pieces[i].From;
            for (; next < nodes.Count && nodes[next].Piece == i; next++)
            {
                if (nodes[next].At == from) continue;
                yield return (from, nodes[next].At, pieces[i].Times);
                from = nodes[next].At;
            }
            yield return (from, pieces[i].To, pieces[i].Times);
        }
    }

    private static List<NodedEdge> Merged(IEnumerable<(Node From, Node To, int Times)> pieces)
    {
        var times = new Dictionary<(Node, Node), int>();
        foreach (var (from, to, count) in pieces)
        {
            if (from == to) continue;
            var forwards = from.CompareTo(to) < 0;
            CollectionsMarshal.GetValueRefOrAddDefault(times, forwards ? (from, to) : (to, from), out _) += forwards ? count : -count;
        }
        var merged = new List<NodedEdge>(times.Count);
        foreach (var ((a, b), count) in times)
            if (count > 0) merged.Add(new(a, b, count));
            else if (count < 0) merged.Add(new(b, a, -count));
        return merged;
    }

    /// <summary>Nodes where two pieces cross or one begins or ends on the other.</summary>
    private static void Meet(List<NodedEdge> pieces, int one, int other, List<(int, double, Node)> nodes)
    {
        var (a, b) = (pieces[one], pieces[other]);
        if (Math.Max(a.From.X, a.To.X) < Math.Min(b.From.X, b.To.X) - 1 || Math.Max(b.From.X, b.To.X) < Math.Min(a.From.X, a.To.X) - 1
            || Math.Max(a.From.Y, a.To.Y) < Math.Min(b.From.Y, b.To.Y) - 1 || Math.Max(b.From.Y, b.To.Y) < Math.Min(a.From.Y, a.To.Y) - 1)
            return;
        var (s0, s1) = (Side(a, b.From), Side(a, b.To));
        var (t0, t1) = (Side(b, a.From), Side(b, a.To));
        var touches = Touch(a, one, b.From, s0, nodes) | Touch(a, one, b.To, s1, nodes)
            | Touch(b, other, a.From, t0, nodes) | Touch(b, other, a.To, t1, nodes);
        if (touches || s0 > 0 == s1 > 0 || t0 > 0 == t1 > 0) return;
        var (onA, onB) = (t0 / ((double)t0 - t1), s0 / ((double)s0 - s1));
        var at = new Node(a.From.X + (long)Math.Round(onA * (a.To.X - a.From.X)), a.From.Y + (long)Math.Round(onA * (a.To.Y - a.From.Y)));
        nodes.Add((one, onA, at));
        nodes.Add((other, onB, at));
    }

    /// <summary>Whether an end lies on a piece, to a step of the raster; it is a node of it then.</summary>
    private static bool Touch(in NodedEdge edge, int piece, Node end, long side, List<(int, double, Node)> nodes)
    {
        var (dx, dy) = (edge.To.X - edge.From.X, edge.To.Y - edge.From.Y);
        var square = (double)dx * dx + (double)dy * dy;
        if ((double)side * side > square) return false;
        var share = ((double)(end.X - edge.From.X) * dx + (double)(end.Y - edge.From.Y) * dy) / square;
        if (share is < 0 or > 1) return false;
        if (end != edge.From && end != edge.To) nodes.Add((piece, share, end));
        return true;
    }

    /// <summary>More than 0 to the left of a piece; twice the area of the triangle.</summary>
    private static long Side(in NodedEdge edge, Node at) =>
        (edge.To.X - edge.From.X) * (at.Y - edge.From.Y) - (edge.To.Y - edge.From.Y) * (at.X - edge.From.X);
}

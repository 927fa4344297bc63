using System.Buffers;
using MillCard.Core.Meshes;

namespace MillCard.Core.Slicing.Sections;

/// <summary>Cuts a mesh by horizontal planes. The cost is linear in faces, crossing segments and layers.</summary>
/// <remarks>
/// A corner on a plane counts as above it, so every crossed face gives exactly one directed segment, which enters by the edge
/// that comes down and leaves by the edge that goes up. Segments are chained through the faces' neighbours, without any search.
/// Faces are copied once in the order of the planes that cross them first: what a plane crosses then lies together in memory.
/// </remarks>
public sealed class CrossSections
{
    /// <summary>Gaps up to this are closed, mm.</summary>
    public const double Gap = 0.05;

    private readonly double[] _heights;
    private readonly Face[] _faces;
    private readonly int[] _starts;
    private readonly int[] _crossed;

    /// <summary>Sorts the faces by the planes that cross them.</summary>
    /// <param name="mesh">The mesh.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="heights">Heights of the planes, mm, ascending.</param>
    public CrossSections(Mesh mesh, Neighbours neighbours, double[] heights)
    {
        _heights = heights;
        var n = mesh.FaceCount;
        var pool = ArrayPool<int>.Shared;
        var (firsts, ends, places) = (pool.Rent(n), pool.Rent(n), pool.Rent(n));
        var (begins, crossings) = (new int[heights.Length + 1], new int[heights.Length + 1]);
        for (var f = 0; f < n; f++)
        {
            (firsts[f], ends[f]) = Crossing(mesh, f);
            if (firsts[f] == ends[f]) continue;
            begins[firsts[f] + 1]++;
            crossings[firsts[f]]++;
            crossings[ends[f]]--;
        }
        _starts = new int[heights.Length + 1];
        for (var layer = 0; layer < heights.Length; layer++)
        {
            begins[layer + 1] += begins[layer];
            if (layer > 0) crossings[layer] += crossings[layer - 1];
            _starts[layer + 1] = _starts[layer] + crossings[layer];
        }
        _faces = new Face[begins[^1]];
        for (var f = 0; f < n; f++) if (firsts[f] < ends[f]) places[f] = begins[firsts[f]]++;
        _crossed = new int[_starts[^1]];
        var next = _starts.AsSpan().ToArray();
        for (var f = 0; f < n; f++)
        {
            if (firsts[f] == ends[f]) continue;
            _faces[places[f]] = new Face(Corner(mesh, 3 * f), Corner(mesh, 3 * f + 1), Corner(mesh, 3 * f + 2), Across(3 * f),
                Across(3 * f + 1), Across(3 * f + 2));
            for (var layer = firsts[f]; layer < ends[f]; layer++) _crossed[next[layer]++] = places[f];
        }
        foreach (var rented in new[] { firsts, ends, places }) pool.Return(rented);

        // only a neighbour across a crossed edge is ever asked for, and that one is crossed too
        int Across(int halfEdge) => neighbours.Across(halfEdge) is >= 0 and var other ? places[other / 3] : -1;
    }

    /// <summary>A corner, mm.</summary>
    private readonly record struct Corner3(float X, float Y, float Z);

    /// <summary>A face with all that cutting it needs: its corners, and the places of the faces across its edges, −1 for none.</summary>
    private readonly record struct Face(Corner3 A, Corner3 B, Corner3 C, int AcrossAb, int AcrossBc, int AcrossCa)
    {
        /// <summary>Where the outline enters by the edge that comes down, or leaves by the one that goes up: the edge's ends and the face
        /// across it.</summary>
        public (Corner3 From, Corner3 To, int Across) Edge(double height, bool up)
        {
            var (a, b, c) = (A.Z < height, B.Z < height, C.Z < height);
            if (a == up && b != up) return (A, B, AcrossAb);
            if (b == up && c != up) return (B, C, AcrossBc);
            return (C, A, AcrossCa);
        }
    }

    private static Corner3 Corner(Mesh mesh, int faceCorner)
    {
        var at = 3 * mesh.Faces[faceCorner];
        return new Corner3(mesh.Corners[at], mesh.Corners[at + 1], mesh.Corners[at + 2]);
    }

    /// <summary>Number of planes.</summary>
    public int Count => _heights.Length;

    /// <summary>The outlines on every plane, one after the other on this thread.</summary>
    public Contours[] All(CancellationToken stop = default)
    {
        var all = new Contours[Count];
        using var tracer = new Tracer(this);
        for (var layer = 0; layer < all.Length; layer++)
        {
            stop.ThrowIfCancellationRequested();
            all[layer] = tracer.Trace(layer);
        }
        return all;
    }

    /// <summary>A tracer for one thread.</summary>
    public Tracer NewTracer() => new(this);

    private (int First, int End) Crossing(Mesh mesh, int face)
    {
        var (a, b, c) = (Z(3 * face), Z(3 * face + 1), Z(3 * face + 2));
        // a plane crosses where some corner is below it and some is at or above it
        var first = After(Math.Min(a, Math.Min(b, c)));
        var end = After(Math.Max(a, Math.Max(b, c)));
        return (first, end);

        double Z(int faceCorner) => mesh.Corners[3 * mesh.Faces[faceCorner] + 2];
    }

    /// <summary>Index of the first plane above a height.</summary>
    private int After(double z)
    {
        var (low, high) = (0, _heights.Length);
        while (low < high)
        {
            var middle = (low + high) >>> 1;
            if (_heights[middle] > z) high = middle; else low = middle + 1;
        }
        return low;
    }

    /// <summary>Traces outlines; holds places of its own, so that layers can be traced on several threads.</summary>
    public sealed class Tracer : IDisposable
    {
        private const int Done = -2;

        private readonly CrossSections _sections;
        // by face: its place among the crossed faces of this layer; what an earlier layer left is never read
        private readonly int[] _places;
        // by place: where the outline leaves the face, and the place of the face that it leaves to, −1 for none
        private Point[] _exits = [];
        private int[] _next = [];
        private readonly List<Point> _points = [];
        private readonly List<int> _ends = [];
        private readonly List<Point> _back = [];
        private readonly List<Point[]> _open = [];

        internal Tracer(CrossSections sections)
        {
            _sections = sections;
            _places = ArrayPool<int>.Shared.Rent(Math.Max(1, sections._faces.Length));
        }

        /// <summary>The outlines on one plane.</summary>
        public Contours Trace(int layer)
        {
            _points.Clear(); _ends.Clear(); _open.Clear();
            var height = _sections._heights[layer];
            var crossed = _sections._crossed.AsSpan(_sections._starts[layer], _sections._starts[layer + 1] - _sections._starts[layer]);
            Cut(crossed, height);
            for (var place = 0; place < crossed.Length; place++)
                if (_next[place] != Done) Follow(crossed, place, height);
            var unclosed = _open.Count == 0 ? 0 : CloseGaps();
            return new Contours([.. _points], [.. _ends], unclosed);
        }

        /// <summary>Gives the places back.</summary>
        public void Dispose() => ArrayPool<int>.Shared.Return(_places);

        private void Cut(ReadOnlySpan<int> crossed, double height)
        {
            if (_next.Length < crossed.Length) (_next, _exits) = (new int[crossed.Length], new Point[crossed.Length]);
            for (var place = 0; place < crossed.Length; place++) _places[crossed[place]] = place;
            for (var place = 0; place < crossed.Length; place++)
            {
                var (from, to, across) = _sections._faces[crossed[place]].Edge(height, up: true);
                (_exits[place], _next[place]) = (Cut(from, to, height), across < 0 ? -1 : _places[across]);
            }
        }

        private void Follow(ReadOnlySpan<int> crossed, int start, double height)
        {
            var begin = _points.Count;
            var place = start;
            while (true)
            {
                Add(_exits[place], begin);
                var next = _next[place];
                _next[place] = Done;
                if (next < 0) { FollowBack(crossed[start], height, begin); return; }
                if (next == start) break;
                place = next;
            }
            if (_points.Count > begin && _points[^1] == _points[begin]) _points.RemoveAt(_points.Count - 1);
            if (_points.Count - begin >= 3) _ends.Add(_points.Count);
            else _points.RemoveRange(begin, _points.Count - begin);
        }

        private void FollowBack(int face, double height, int begin)
        {
            _back.Clear();
            while (face >= 0)
            {
                _next[_places[face]] = Done;
                var (from, to, across) = _sections._faces[face].Edge(height, up: false);
                var point = Cut(from, to, height);
                if (_back.Count == 0 || _back[^1] != point) _back.Add(point);
                face = across;
            }
            _back.Reverse();
            _open.Add([.. _back, .. _points.Skip(begin)]);
            _points.RemoveRange(begin, _points.Count - begin);
        }

        private void Add(Point point, int begin)
        {
            if (_points.Count == begin || _points[^1] != point) _points.Add(point);
        }

        private static Point Cut(Corner3 from, Corner3 to, double height)
        {
            // always from the lower end, so that both faces at an edge get the same bits
            var (low, high) = from.Z >= height ? (to, from) : (from, to);
            var t = (height - low.Z) / ((double)high.Z - low.Z);
            return new Point(low.X + t * ((double)high.X - low.X), low.Y + t * ((double)high.Y - low.Y));
        }

        /// <summary>Joins open chains end to beginning where they are near enough; returns how many stay open.</summary>
        private int CloseGaps()
        {
            var left = 0;
            while (_open.Count > 0)
            {
                var chain = new List<Point>(_open[^1]);
                _open.RemoveAt(_open.Count - 1);
                while (true)
                {
                    var (nearest, distance) = (-1, chain[^1].To(chain[0]));
                    for (var i = 0; i < _open.Count; i++)
                        if (_open[i][0].To(chain[^1]) is var d && d < distance) (nearest, distance) = (i, d);
                    if (distance > Gap) { left++; break; }
                    if (nearest < 0)
                    {
                        if (chain.Count >= 3) { _points.AddRange(chain); _ends.Add(_points.Count); }
                        break;
                    }
                    chain.AddRange(_open[nearest]);
                    _open.RemoveAt(nearest);
                }
            }
            return left;
        }
    }
}

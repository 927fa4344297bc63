using System.Buffers;
using MillCard.Core.Meshes;

namespace MillCard.Core.Slicing;

/// <summary>Cuts a mesh by horizontal planes. The cost is linear in faces, crossing segments and layers.</summary>
/// <remarks>
/// A corner on a plane counts as above it, so every crossed face gives exactly one directed segment, which enters by the edge
/// that comes down and leaves by the edge that goes up. Segments are chained through the faces' neighbours, without any search.
/// </remarks>
public sealed class CrossSections
{
    /// <summary>Gaps up to this are closed, mm.</summary>
    public const double Gap = 0.05;

    private readonly Mesh _mesh;
    private readonly Neighbours _neighbours;
    private readonly double[] _heights;
    private readonly int[] _starts;
    private readonly int[] _faces;

    /// <summary>Sorts the faces by the planes that cross them.</summary>
    /// <param name="mesh">The mesh.</param>
    /// <param name="neighbours">Of the same mesh.</param>
    /// <param name="heights">Heights of the planes, mm, ascending.</param>
    public CrossSections(Mesh mesh, Neighbours neighbours, double[] heights)
    {
        (_mesh, _neighbours, _heights) = (mesh, neighbours, heights);
        _starts = new int[heights.Length + 2];
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            var (first, end) = Crossing(f);
            for (var layer = first; layer < end; layer++) _starts[layer + 2]++;
        }
        for (var i = 2; i < _starts.Length; i++) _starts[i] += _starts[i - 1];
        _faces = new int[_starts[^1]];
        for (var f = 0; f < mesh.FaceCount; f++)
        {
            var (first, end) = Crossing(f);
            for (var layer = first; layer < end; layer++) _faces[_starts[layer + 1]++] = f;
        }
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

    private (int First, int End) Crossing(int face)
    {
        var (a, b, c) = (Z(3 * face), Z(3 * face + 1), Z(3 * face + 2));
        // a plane crosses where some corner is below it and some is at or above it
        var first = After(Math.Min(a, Math.Min(b, c)));
        var end = After(Math.Max(a, Math.Max(b, c)));
        return (first, end);
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

    private double Z(int faceCorner) => _mesh.Corners[3 * _mesh.Faces[faceCorner] + 2];

    /// <summary>Traces outlines; holds marks of its own, so that layers can be traced on several threads.</summary>
    public sealed class Tracer : IDisposable
    {
        private readonly CrossSections _sections;
        private readonly int[] _seen;
        private readonly List<Point> _points = [];
        private readonly List<int> _ends = [];
        private readonly List<Point> _back = [];
        private readonly List<Point[]> _open = [];

        internal Tracer(CrossSections sections)
        {
            _sections = sections;
            _seen = ArrayPool<int>.Shared.Rent(Math.Max(1, sections._mesh.FaceCount));
            Array.Clear(_seen, 0, sections._mesh.FaceCount);
        }

        /// <summary>The outlines on one plane.</summary>
        public Contours Trace(int layer)
        {
            _points.Clear(); _ends.Clear(); _open.Clear();
            var height = _sections._heights[layer];
            var faces = _sections._faces.AsSpan(_sections._starts[layer], _sections._starts[layer + 1] - _sections._starts[layer]);
            foreach (var face in faces)
                if (_seen[face] != layer + 1) Follow(face, layer + 1, height);
            var unclosed = _open.Count == 0 ? 0 : CloseGaps();
            return new Contours([.. _points], [.. _ends], unclosed);
        }

        /// <summary>Gives the marks back.</summary>
        public void Dispose() => ArrayPool<int>.Shared.Return(_seen);

        private void Follow(int start, int mark, double height)
        {
            var begin = _points.Count;
            var face = start;
            while (true)
            {
                _seen[face] = mark;
                var exit = Edge(face, height, up: true);
                Add(Cut(exit, height), begin);
                var across = _sections._neighbours.Across(exit);
                if (across < 0) { FollowBack(start, mark, height, begin); return; }
                face = across / 3;
                if (face == start) break;
            }
            if (_points.Count > begin && _points[^1] == _points[begin]) _points.RemoveAt(_points.Count - 1);
            if (_points.Count - begin >= 3) _ends.Add(_points.Count);
            else _points.RemoveRange(begin, _points.Count - begin);
        }

        private void FollowBack(int start, int mark, double height, int begin)
        {
            _back.Clear();
            var face = start;
            while (true)
            {
                _seen[face] = mark;
                var entry = Edge(face, height, up: false);
                var point = Cut(entry, height);
                if (_back.Count == 0 || _back[^1] != point) _back.Add(point);
                var across = _sections._neighbours.Across(entry);
                if (across < 0) break;
                face = across / 3;
            }
            _back.Reverse();
            _open.Add([.. _back, .. _points.Skip(begin)]);
            _points.RemoveRange(begin, _points.Count - begin);
        }

        private void Add(Point point, int begin)
        {
            if (_points.Count == begin || _points[^1] != point) _points.Add(point);
        }

        /// <summary>The half-edge of a crossed face that goes up through the plane, or down.</summary>
        private int Edge(int face, double height, bool up)
        {
            var h = 3 * face;
            var (a, b, c) = (_sections.Z(h) < height, _sections.Z(h + 1) < height, _sections.Z(h + 2) < height);
            if (a == up && b != up) return h;
            if (b == up && c != up) return h + 1;
            return h + 2;
        }

        private Point Cut(int halfEdge, double height)
        {
            var faces = _sections._mesh.Faces;
            var corners = _sections._mesh.Corners;
            var (i, j) = (3 * faces[halfEdge], 3 * faces[halfEdge % 3 == 2 ? halfEdge - 2 : halfEdge + 1]);
            // always from the lower end, so that both faces at an edge get the same bits
            if (corners[i + 2] >= height) (i, j) = (j, i);
            double low = corners[i + 2];
            var t = (height - low) / (corners[j + 2] - low);
            return new Point(corners[i] + t * ((double)corners[j] - corners[i]), corners[i + 1] + t * ((double)corners[j + 1] - corners[i + 1]));
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

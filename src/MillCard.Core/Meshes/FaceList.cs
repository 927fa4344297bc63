namespace MillCard.Core.Meshes;

/// <summary>Faces as they are read from a file: corners welded, faces without area dropped.</summary>
/// <param name="format">Name of the file's format, for refusals.</param>
/// <param name="expected">About how many faces come.</param>
/// <param name="stop">Ends the reading.</param>
internal sealed class FaceList(string format, int expected, CancellationToken stop)
{
    /// <summary>Most faces that are read.</summary>
    public const int Most = 20_000_000;

    private const int Beat = 1 << 14;
    private const float Farthest = 100_000;

    private readonly CornerTable _corners = new(expected);
    private int[] _faces = GC.AllocateUninitializedArray<int>(3 * Math.Max(16, expected));
    private int _kept;

    /// <summary>Faces that were added, the dropped ones with them.</summary>
    public int Count { get; private set; }

    /// <summary>Adds a face.</summary>
    /// <param name="c">x, y, z of its three corners, mm.</param>
    /// <exception cref="MeshRefusedException">It holds something that is not a number, or lies too far away.</exception>
    public void Add(ReadOnlySpan<float> c)
    {
        if (Count % Beat == 0) stop.ThrowIfCancellationRequested();
        if (++Count > Most) throw new MeshRefusedException($"This {format} has more than {Most} faces.");
        for (var i = 0; i < 9; i++)
        {
            if (!(Math.Abs(c[i]) <= Farthest))
                throw new MeshRefusedException(float.IsFinite(c[i])
                    ? $"Face {Count} of this {format} lies {c[i]:0} mm away; {Farthest:0} is the farthest that is read."
                    : $"Face {Count} of this {format} holds something that is not a number.");
        }
        var (p, q, r) = (_corners.Weld(c[0], c[1], c[2]), _corners.Weld(c[3], c[4], c[5]), _corners.Weld(c[6], c[7], c[8]));
        if (p == q || q == r || r == p) return;
        if (3 * _kept == _faces.Length) Array.Resize(ref _faces, 2 * _faces.Length);
        _faces[3 * _kept] = p; _faces[3 * _kept + 1] = q; _faces[3 * _kept + 2] = r;
        _kept++;
    }

    /// <summary>The mesh.</summary>
    /// <exception cref="MeshRefusedException">No face has an area.</exception>
    public Mesh ToMesh()
    {
        if (_kept == 0) throw new MeshRefusedException($"No face of this {format} has an area.");
        return new Mesh(_corners.Corners(), _kept * 3 == _faces.Length ? _faces : _faces.AsSpan(0, 3 * _kept).ToArray());
    }
}

using System.Numerics;

namespace MillCard.Core.Meshes;

/// <summary>Which face lies across each edge of each face.</summary>
public sealed class Neighbours
{
    private const int Beat = 1 << 16;
    private readonly int[] _across;

    private Neighbours(int[] across, int open, bool crowded) => (_across, OpenEdges, HasCrowdedEdges) = (across, open, crowded);

    /// <summary>Edges with no partner: 0 for a closed mesh.</summary>
    public int OpenEdges { get; }

    /// <summary>Whether more than two faces share an edge somewhere, or two run along one the same way, as faces that stand twice in a file
    /// do.</summary>
    public bool HasCrowdedEdges { get; }

    /// <summary>The half-edge (3·face + k) that runs the other way along half-edge h, or −1.</summary>
    /// <param name="h">3·face + k, the edge from the face's corner k to its corner k + 1.</param>
    public int Across(int h) => _across[h];

    /// <summary>Pairs half-edges by an open-addressing table; where more than two faces share an edge, in the order met.</summary>
    /// <remarks>
    /// Every edge has one place in the table, however many faces share it, and there a queue of the half-edges that wait for a
    /// partner: all of them run the same way. So the time is that of the faces alone.
    /// </remarks>
    /// <param name="mesh">Any mesh.</param>
    /// <param name="stop">Ends the search.</param>
    public static Neighbours Of(Mesh mesh, CancellationToken stop = default)
    {
        var faces = mesh.Faces;
        var across = new int[faces.Length];
        Array.Fill(across, -1);
        var mask = (int)BitOperations.RoundUpToPowerOf2((uint)Math.Max(16, faces.Length / 3 * 4)) - 1;
        // an edge's entry names one of its half-edges; only where several wait do queues say which is next
        var (slots, waiting) = (new int[mask + 1], new int[mask + 1]);
        Dictionary<int, Queue<int>>? queues = null;
        var (open, crowded) = (0, false);
        for (var h = 0; h < faces.Length; h++)
        {
            if (h % Beat == 0) stop.ThrowIfCancellationRequested();
            var (from, to) = Ends(faces, h);
            var slot = (int)Hash(Math.Min(from, to), Math.Max(from, to)) & mask;
            while (slots[slot] is var known and not 0 && !IsEdge(Ends(faces, known - 1), from, to)) slot = (slot + 1) & mask;
            var first = waiting[slot] - 1;
            crowded |= slots[slot] != 0 && (first < 0 || Ends(faces, first).From == from);
            slots[slot] = slots[slot] == 0 ? h + 1 : slots[slot];
            if (first < 0)
            {
                waiting[slot] = h + 1;
                open++;
            }
            else if (Ends(faces, first).From == from)
            {
                queues ??= [];
                if (!queues.TryGetValue(slot, out var queue)) queues[slot] = queue = [];
                queue.Enqueue(h);
                open++;
            }
            else
            {
                (across[h], across[first]) = (first, h);
                waiting[slot] = queues is not null && queues.TryGetValue(slot, out var queue) && queue.TryDequeue(out var next) ? next + 1
                    : 0;
                open--;
            }
        }
        return new Neighbours(across, open, crowded);
    }

    private static bool IsEdge((int From, int To) known, int from, int to) => known.From == from && known.To == to || known.From == to
        && known.To == from;

    private static (int From, int To) Ends(int[] faces, int h) => (faces[h], faces[h % 3 == 2 ? h - 2 : h + 1]);

    private static uint Hash(int low, int high)
    {
        var h = ((ulong)(uint)low << 32 | (uint)high) * 0x9E3779B97F4A7C15ul;
        return (uint)(h >> 32) ^ (uint)h;
    }
}

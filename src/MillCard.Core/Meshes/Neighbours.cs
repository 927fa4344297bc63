using System.Numerics;

namespace MillCard.Core.Meshes;

/// <summary>Which face lies across each edge of each face.</summary>
public sealed class Neighbours
{
    private readonly int[] _across;

    private Neighbours(int[] across, int open) => (_across, OpenEdges) = (across, open);

    /// <summary>Edges with no partner: 0 for a closed mesh.</summary>
    public int OpenEdges { get; }

    /// <summary>The half-edge (3·face + k) that runs the other way along half-edge h, or −1.</summary>
    /// <param name="h">3·face + k, the edge from the face's corner k to its corner k + 1.</param>
    public int Across(int h) => _across[h];

    /// <summary>Pairs half-edges by an open-addressing table; where more than two faces share an edge, in the order met.</summary>
    public static Neighbours Of(Mesh mesh)
    {
        var faces = mesh.Faces;
        var across = new int[faces.Length];
        Array.Fill(across, -1);
        var mask = (int)BitOperations.RoundUpToPowerOf2((uint)Math.Max(16, faces.Length)) * 2 - 1;
        var slots = new int[mask + 1];
        var open = 0;
        for (var h = 0; h < faces.Length; h++)
        {
            var (from, to) = Ends(faces, h);
            var slot = (int)Hash(Math.Min(from, to), Math.Max(from, to)) & mask;
            while (true)
            {
                var entry = slots[slot];
                if (entry == 0) { slots[slot] = h + 1; open++; break; }
                if (entry > 0)
                {
                    var (a, b) = Ends(faces, entry - 1);
                    if (a == to && b == from)
                    {
                        across[h] = entry - 1;
                        across[entry - 1] = h;
                        slots[slot] = -1;
                        open--;
                        break;
                    }
                }
                slot = (slot + 1) & mask;
            }
        }
        return new Neighbours(across, open);
    }

    private static (int From, int To) Ends(int[] faces, int h) => (faces[h], faces[h % 3 == 2 ? h - 2 : h + 1]);

    private static uint Hash(int low, int high)
    {
        var h = ((ulong)(uint)low << 32 | (uint)high) * 0x9E3779B97F4A7C15ul;
        return (uint)(h >> 32) ^ (uint)h;
    }
}

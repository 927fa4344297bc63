using System.Numerics;

namespace MillCard.Core.Meshes;

/// <summary>Welds corners with the same coordinates: an open-addressing table on their bits.</summary>
internal sealed class CornerTable
{
    private int[] _slots;
    private float[] _corners;
    private int _count;

    public CornerTable(int expectedFaces)
    {
        var corners = Math.Max(16, expectedFaces / 2 + 16);
        _corners = GC.AllocateUninitializedArray<float>(3 * corners);
        _slots = new int[BitOperations.RoundUpToPowerOf2((uint)corners * 2)];
    }

    /// <summary>The corner's number, the same for the same coordinates; −0 counts as 0.</summary>
    public int Weld(float x, float y, float z)
    {
        x += 0f; y += 0f; z += 0f;
        var mask = _slots.Length - 1;
        var slot = (int)Hash(x, y, z) & mask;
        while (_slots[slot] is var entry and not 0)
        {
            var at = 3 * (entry - 1);
            if (_corners[at] == x && _corners[at + 1] == y && _corners[at + 2] == z) return entry - 1;
            slot = (slot + 1) & mask;
        }
        if (3 * _count == _corners.Length) Array.Resize(ref _corners, 2 * _corners.Length);
        _corners[3 * _count] = x; _corners[3 * _count + 1] = y; _corners[3 * _count + 2] = z;
        _slots[slot] = ++_count;
        if (2 * _count > _slots.Length) Grow();
        return _count - 1;
    }

    /// <summary>All corners, x y z in a row.</summary>
    public float[] Corners() => _corners.AsSpan(0, 3 * _count).ToArray();

    private void Grow()
    {
        _slots = new int[2 * _slots.Length];
        var mask = _slots.Length - 1;
        for (var i = 0; i < _count; i++)
        {
            var slot = (int)Hash(_corners[3 * i], _corners[3 * i + 1], _corners[3 * i + 2]) & mask;
            while (_slots[slot] != 0) slot = (slot + 1) & mask;
            _slots[slot] = i + 1;
        }
    }

    private static uint Hash(float x, float y, float z)
    {
        var h = BitConverter.SingleToUInt32Bits(x) * 0x9E3779B1u;
        h = BitOperations.RotateLeft(h ^ (BitConverter.SingleToUInt32Bits(y) * 0x85EBCA77u), 13) * 0xC2B2AE3Du;
        h = BitOperations.RotateLeft(h ^ (BitConverter.SingleToUInt32Bits(z) * 0x27D4EB2Fu), 15) * 0x165667B1u;
        return h ^ (h >> 15);
    }
}

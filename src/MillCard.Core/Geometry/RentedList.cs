using System.Buffers;

namespace MillCard.Core.Geometry;

/// <summary>A growing list in rented memory: for lists too long to be thrown away for every layer.</summary>
internal sealed class RentedList<T>(int capacity) : IDisposable where T : struct
{
    private T[] _items = ArrayPool<T>.Shared.Rent(capacity);

    /// <summary>How many there are.</summary>
    public int Count { get; private set; }

    /// <summary>The last of them.</summary>
    public T Last => _items[Count - 1];

    /// <summary>Adds one.</summary>
    public void Add(in T item)
    {
        if (Count == _items.Length) Grow();
        _items[Count++] = item;
    }

    /// <summary>Takes all out.</summary>
    public void Clear() => Count = 0;

    /// <summary>A copy of what is in it.</summary>
    public T[] ToArray() => _items.AsSpan(0, Count).ToArray();

    /// <summary>Gives the memory back.</summary>
    public void Dispose() => ArrayPool<T>.Shared.Return(_items);

    private void Grow()
    {
        var more = ArrayPool<T>.Shared.Rent(2 * _items.Length + 1);
        _items.AsSpan(0, Count).CopyTo(more);
        ArrayPool<T>.Shared.Return(_items);
        _items = more;
    }
}

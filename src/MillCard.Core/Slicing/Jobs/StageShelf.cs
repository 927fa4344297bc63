using System.Runtime.CompilerServices;
using MillCard.Core.Documents;

namespace MillCard.Core.Slicing.Jobs;

/// <summary>What stages of slicing came to lately, so that nothing is computed twice that rests on the same. Safe to share.</summary>
/// <param name="bytes">What it may hold, about; what was used longest ago goes first.</param>
public sealed class StageShelf(long bytes)
{
    private static readonly ConditionalWeakTable<object, object> Numbers = [];
    private static long _numbers;

    private readonly Dictionary<string, LinkedListNode<Kept>> _byKey = [];
    private readonly LinkedList<Kept> _byUse = [];
    private readonly Lock _lock = new();
    private long _held;

    private sealed record Kept(string Key, object Result, long Bytes);

    /// <summary>A result, kept or made.</summary>
    /// <param name="stage">Which stage's.</param>
    /// <param name="restsOn">All that it depends on, as values; things that are too large for that by their numbers.</param>
    /// <param name="make">Makes it.</param>
    /// <param name="sizeOf">What it takes in memory, bytes, about.</param>
    internal T Take<T>(string stage, object restsOn, Func<T> make, Func<T, long> sizeOf) where T : class
    {
        var key = stage + Fingerprint.Of(restsOn);
        if (Find(key) is T known) return known;
        var made = make();
        Put(new Kept(key, made, sizeOf(made)));
        return made;
    }

    /// <summary>A number that stands for a thing as long as the process runs.</summary>
    internal static long NumberOf(object thing) => (long)Numbers.GetValue(thing, _ => Interlocked.Increment(ref _numbers));

    private object? Find(string key)
    {
        lock (_lock)
        {
            if (!_byKey.TryGetValue(key, out var node)) return null;
            _byUse.Remove(node);
            _byUse.AddFirst(node);
            return node.Value.Result;
        }
    }

    private void Put(Kept kept)
    {
        lock (_lock)
        {
            if (kept.Bytes > bytes || _byKey.ContainsKey(kept.Key)) return;
            _byKey[kept.Key] = _byUse.AddFirst(kept);
            _held += kept.Bytes;
            while (_held > bytes)
            {
                var last = _byUse.Last!;
                _byUse.RemoveLast();
                _byKey.Remove(last.Value.Key);
                _held -= last.Value.Bytes;
            }
        }
    }
}

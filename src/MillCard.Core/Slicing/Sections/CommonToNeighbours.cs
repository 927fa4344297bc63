using System.Collections.Concurrent;
using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Sections;

/// <summary>What runs of consecutive layers have in common, by doubling and where it is asked for: few intersections however long the
/// run.</summary>
/// <param name="regions">The layers' cross-sections.</param>
internal sealed class CommonToNeighbours(Shape[] regions)
{
    // by the first layer and the power of two that they are
    private readonly ConcurrentDictionary<(int First, int Power), Shape> _runs = new();

    /// <summary>Whether an area lies well within all layers first … first + count − 1, without computing what they have in common;
    /// false where one of them does not exist, and where outlines meet.</summary>
    /// <param name="first">The lowest.</param>
    /// <param name="count">How many.</param>
    /// <param name="area">Valid areas, not empty.</param>
    /// <param name="edges">Its edges.</param>
    public bool ClearlyHolds(int first, int count, Shape area, Edges edges)
    {
        if (IsOutside(first, count)) return false;
        for (var k = first; k < first + count; k++)
            if ((k == first || !ReferenceEquals(regions[k], regions[k - 1])) && !Nesting.LiesClearlyWithin(area, edges, regions[k]))
                return false;
        return true;
    }

    /// <summary>What layers first … first + count − 1 have in common; nothing where one of them does not exist.</summary>
    public Shape Of(int first, int count)
    {
        if (IsOutside(first, count)) return Plane.Empty;
        var power = 0;
        while (2 << power <= count) power++;
        return Common(Run(first, power), Run(first + count - (1 << power), power));
    }

    private bool IsOutside(int first, int count) => first < 0 || first + count > regions.Length;

    private Shape Run(int first, int power) => power == 0 ? regions[first] : _runs.GetOrAdd((first, power), static (key, all) =>
        Common(all.Run(key.First, key.Power - 1), all.Run(key.First + (1 << key.Power - 1), key.Power - 1)), this);

    private static Shape Common(Shape a, Shape b) => ReferenceEquals(a, b) || a.EqualsExact(b) ? a : Plane.Intersection(a, b);
}

using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing.Sections;

/// <summary>What a run of consecutive layers has in common, by doubling: few intersections however long the run.</summary>
internal sealed class CommonToNeighbours
{
    private readonly List<Shape[]> _powers = [];

    public CommonToNeighbours(Shape[] regions, int longest, ParallelOptions options)
    {
        _powers.Add(regions);
        for (var run = 1; 2 * run <= longest; run *= 2)
        {
            var half = _powers[^1];
            var whole = new Shape[Math.Max(0, half.Length - run)];
            Parallel.For(0, whole.Length, options, i => whole[i] = Common(half[i], half[i + run]));
            _powers.Add(whole);
        }
    }

    /// <summary>What layers first … first + count − 1 have in common; nothing where one of them does not exist.</summary>
    public Shape Of(int first, int count)
    {
        if (first < 0 || first + count > _powers[0].Length) return Plane.Empty;
        var power = 0;
        while (2 << power <= count) power++;
        return Common(_powers[power][first], _powers[power][first + count - (1 << power)]);
    }

    private static Shape Common(Shape a, Shape b) => ReferenceEquals(a, b) || a.EqualsExact(b) ? a : Plane.Intersection(a, b);
}

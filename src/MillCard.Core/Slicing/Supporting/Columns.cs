using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using NetTopologySuite.Simplify;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Supports that go straight down from what they hold.</summary>
internal static class Columns
{
    private const double Plain = 0.03;

    /// <summary>The areas, from the top down.</summary>
    public static SupportAreas Of(SupportTask task, ParallelOptions options)
    {
        var n = task.Regions.Length;
        var (body, dense) = (Filled(n), Filled(n));
        var blocked = new Shape[n];
        Parallel.For(0, n, options, i => blocked[i] = task.Blocked(i));
        var below = task.Supports.From == SupportFrom.Bed ? FromBelow(task, options.CancellationToken) : null;
        var hanging = Plane.Empty;
        for (var i = n - 1; i >= 0; i--)
        {
            options.CancellationToken.ThrowIfCancellationRequested();
            foreach (var over in task.OverhangsFrom(i)) hanging = Plane.Union(hanging, Plane.Offset(over, task.Width / 2, 2));
            if (hanging.IsEmpty) continue;
            // what the part itself covers ends here; what is only blocked by the gap goes on below
            hanging = Plane.Difference(hanging, task.Regions[i]);
            hanging = DouglasPeuckerSimplifier.Simplify(hanging, Plain);
            if (!hanging.IsValid) hanging = Plane.Offset(hanging, 0.001, 1);
            var here = Plane.Intersection(Plane.Difference(hanging, blocked[i]), task.Ground(i));
            if (below is not null) here = Plane.Difference(here, below[i]);
            here = Opened(here, 0.6 * task.Width);
            dense[i] = Dense(task, i, here);
            body[i] = Plane.Difference(here, dense[i]);
        }
        return new SupportAreas(body, dense);
    }

    /// <summary>What of an area lies within the interface's layers under the part, or above it.</summary>
    private static Shape Dense(SupportTask task, int layer, Shape here)
    {
        if (here.IsEmpty || task.Supports.InterfaceLayers == 0) return Plane.Empty;
        var near = new List<Shape>();
        for (var k = 1; k <= task.Supports.InterfaceLayers; k++)
        {
            near.AddRange(task.OverhangsFrom(layer + k - 1).Select(over => Plane.Offset(over, task.Width, 2)));
            if (layer - task.FreeBelow(layer) - k is >= 0 and var below) near.Add(task.Regions[below]);
        }
        return Opened(Plane.Intersection(here, Plane.Union([.. near.Where(s => !s.IsEmpty)])), task.Width / 2);
    }

    internal static Shape Opened(Shape shape, double radius) => Plane.Opened(shape, radius, 2);

    internal static Shape[] Filled(int count)
    {
        var all = new Shape[count];
        Array.Fill(all, Plane.Empty);
        return all;
    }

    /// <summary>On every layer, what has the part somewhere below it.</summary>
    private static Shape[] FromBelow(SupportTask task, CancellationToken stop)
    {
        var all = new Shape[task.Regions.Length];
        var sum = Plane.Empty;
        for (var i = 0; i < all.Length; i++)
        {
            stop.ThrowIfCancellationRequested();
            if (i == 0 || !task.Regions[i].EqualsExact(task.Regions[i - 1]))
                sum = Plane.Union(sum, Plane.Offset(task.Regions[i], task.Supports.GapXy, 4));
            all[i] = sum;
        }
        return all;
    }
}

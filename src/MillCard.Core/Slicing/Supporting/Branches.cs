using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Supports that branch: tips under what they hold lean towards each other on their way down, join, and grow thicker.</summary>
internal static class Branches
{
    internal const double TipSpacing = 4;
    private const double TipRadius = 0.8;
    private const double GreatestRadius = 3;
    private const double Thickens = 0.05;
    private const double FarthestNeighbour = 25;

    /// <summary>Farthest lean of a branch from the upright: 40°; common practice, no source.</summary>
    private static readonly double Lean = Math.Tan(40 * Math.PI / 180);

    private readonly record struct Node(double X, double Y, double Radius);

    /// <summary>The areas, from the top down.</summary>
    public static SupportAreas Of(SupportTask task, ParallelOptions options)
    {
        var n = task.Regions.Length;
        var (body, dense, blocked, standing) = (Columns.Filled(n), Columns.Filled(n), Columns.Filled(n), new List<Node>[n]);
        Parallel.For(0, n, options, i => blocked[i] = task.Blocked(i));
        // where each node of a layer goes on in the one below; −1 where it ends on the part
        var (goesOn, nodes) = (new int[n][], new List<Node>());
        for (var i = n - 1; i >= 0; i--)
        {
            options.CancellationToken.ThrowIfCancellationRequested();
            foreach (var over in task.OverhangsFrom(i + task.Supports.InterfaceLayers))
                foreach (var tip in Tips(over))
                    // what a branch already holds needs no other
                    if (!nodes.Exists(node => new Point(node.X, node.Y).To(tip) < TipSpacing / 2))
                        nodes.Add(new Node(tip.X, tip.Y, TipRadius));
            (standing[i], goesOn[i]) = Descend(nodes, task, task.HeightOf(i), blocked[i], task.Ground(i));
            nodes = [.. standing[i]];
        }
        if (task.Supports.From == SupportFrom.Bed) KeepThoseOnTheBed(standing, goesOn);
        Parallel.For(0, n, options, i =>
        {
            Shape Free(Shape shape) => Plane.Intersection(Plane.Difference(shape, blocked[i]), task.Ground(i));
            var pads = Pads(task, i);
            // dense layers that no branch carries would lie in the air
            if (task.Supports.From == SupportFrom.Bed && !pads.IsEmpty)
                pads = Plane.Intersection(pads, Circles(standing[Math.Max(0, i - task.Supports.InterfaceLayers)], _ => TipSpacing));
            if (!pads.IsEmpty) dense[i] = Columns.Opened(Free(pads), task.Width / 2);
            if (standing[i].Count == 0) return;
            var circles = Circles(standing[i], node => node.Radius);
            body[i] = Columns.Opened(Plane.Difference(Free(circles), dense[i]), task.Width / 2);
        });
        return new SupportAreas(body, dense);
    }

    private static Shape Circles(List<Node> nodes, Func<Node, double> radius) => Plane.Union([.. nodes
        .Select(node => Plane.Factory.CreatePoint(new Coordinate(node.X, node.Y)).Buffer(radius(node), 4))]);

    /// <summary>Takes away the branches that would end on the part, from the bottom up.</summary>
    private static void KeepThoseOnTheBed(List<Node>[] standing, int[][] goesOn)
    {
        bool[] stands = [.. Enumerable.Repeat(element: true, standing[0].Count)];
        for (var i = 1; i < standing.Length; i++)
        {
            // those of this layer come first among the ones that went on from it
            bool[] here = [.. goesOn[i - 1].Take(standing[i].Count).Select(next => next >= 0 && stands[next])];
            (standing[i], stands) = ([.. standing[i].Where((_, k) => here[k])], here);
        }
    }

    private static Shape Pads(SupportTask task, int layer)
    {
        var near = new List<Shape>();
        for (var k = 1; k <= task.Supports.InterfaceLayers; k++)
            near.AddRange(task.OverhangsFrom(layer + k - 1).Select(over => Plane.Offset(over, task.Width / 2, 2)));
        return Plane.Union(near);
    }

    /// <summary>Places to hold an overhang at: a grid over it, at least one a piece.</summary>
    private static IEnumerable<Point> Tips(Shape over)
    {
        foreach (var piece in Plane.Polygons(over))
        {
            var (box, any) = (piece.EnvelopeInternal, false);
            for (var x = Math.Ceiling(box.MinX / TipSpacing) * TipSpacing; x <= box.MaxX; x += TipSpacing)
                for (var y = Math.Ceiling(box.MinY / TipSpacing) * TipSpacing; y <= box.MaxY; y += TipSpacing)
                {
                    if (!piece.Covers(Plane.Factory.CreatePoint(new Coordinate(x, y)))) continue;
                    any = true;
                    yield return new Point(x, y);
                }
            if (any) continue;
            var inside = piece.InteriorPoint;
            yield return new Point(inside.X, inside.Y);
        }
    }

    private static (List<Node> Moved, int[] To) Descend(List<Node> nodes, SupportTask task, double height, Shape blocked,
        Shape ground)
    {
        var step = Lean * height;
        var (moved, to) = (new List<Node>(nodes.Count), new int[nodes.Count]);
        Array.Fill(to, -1);
        for (var k = 0; k < nodes.Count; k++)
        {
            var node = nodes[k];
            var radius = Math.Min(GreatestRadius, node.Radius + Thickens * height);
            var at = Towards(node, nodes, step);
            var next = Clear(new Node(at.X, at.Y, radius), node, blocked, ground, 2 * step, task);
            if (next is not { } free) continue;
            // those that meet go on as one
            var twin = moved.FindIndex(m => new Point(m.X, m.Y).To(new Point(free.X, free.Y)) < step);
            to[k] = twin < 0 ? moved.Count : twin;
            if (twin < 0) moved.Add(free);
            else moved[twin] = moved[twin] with
            {
                Radius = Math.Min(GreatestRadius,
                Math.Sqrt(moved[twin].Radius * moved[twin].Radius + free.Radius * free.Radius / 4))
            };
        }
        return (moved, to);
    }

    /// <summary>A step towards the nearest other branch, no farther than half the way.</summary>
    private static Point Towards(Node node, List<Node> nodes, double step)
    {
        var here = new Point(node.X, node.Y);
        var (nearest, distance) = (here, FarthestNeighbour);
        foreach (var other in nodes)
            if (other != node && here.To(new Point(other.X, other.Y)) is var d && d < distance && d > 0)
                (nearest, distance) = (new Point(other.X, other.Y), d);
        if (nearest == here) return here;
        var share = Math.Min(step, distance / 2) / distance;
        return new Point(here.X + (nearest.X - here.X) * share, here.Y + (nearest.Y - here.Y) * share);
    }

    /// <summary>The node, out of what it must stay clear of; null where it ends on the part, or would have no way to the bed.</summary>
    private static Node? Clear(Node node, Node before, Shape blocked, Shape ground, double most, SupportTask task)
    {
        foreach (var candidate in new[] { node, before with { Radius = node.Radius } })
        {
            var point = Plane.Factory.CreatePoint(new Coordinate(candidate.X, candidate.Y));
            if (!blocked.Covers(point) && ground.Covers(point)) return candidate;
        }
        var here = Plane.Factory.CreatePoint(new Coordinate(before.X, before.Y));
        if (blocked.IsEmpty || !ground.Covers(here)) return null;
        var edge = DistanceOp.NearestPoints(blocked.Boundary, here)[0];
        var distance = edge.Distance(here.Coordinate);
        // a branch that may rest on the part does so rather than crawl along it
        if (distance > most && task.Supports.From == SupportFrom.Everywhere || distance < 1e-9) return null;
        var outside = (distance + 0.05) / distance;
        var free = before with
        {
            X = before.X + (edge.X - before.X) * outside,
            Y = before.Y + (edge.Y - before.Y) * outside,
            Radius = node.Radius
        };
        return distance > 4 * most ? null : free;
    }
}

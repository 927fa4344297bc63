using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Supporting;
using MillCard.Core.Slicing.Walls;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Order;

/// <summary>Puts every layer's lines in the order in which they are printed: what stands round the parts, then nozzle by nozzle and part by
/// part supports, walls, fill.</summary>
internal sealed class LayerOrder
{
    /// <summary>mm².</summary>
    private const double LeastCut = 0.5;
    private readonly SliceJob _job;
    private readonly IReadOnlyList<LaidPart> _parts;
    private readonly AllowedGround _ground;
    private readonly int[] _nozzles, _inUse;
    private readonly double _lift;
    private readonly List<Finding> _notes = [];

    private LayerOrder(SliceJob job, IReadOnlyList<LaidPart> parts, AllowedGround ground)
    {
        (_job, _parts, _ground) = (job, parts, ground);
        _nozzles = [.. job.Parts.Select(p => job.Machine.NozzlesOf(p.Part.Nozzles)[0])];
        _inUse = [.. _nozzles.Distinct().Order()];
        _lift = Foot.Lift(job.Recipe);
    }

    /// <summary>Layers in order, and what forbids them.</summary>
    public sealed record Ordered(IReadOnlyList<LayerPlan> Layers, Finding? Refusal = null)
    {
        /// <summary>What was noticed on the way.</summary>
        public IReadOnlyList<Finding> Notes { get; init; } = [];
    }

    /// <summary>Each part to its top before the next begins.</summary>
    public static Ordered OneAtATime(SliceJob job, IReadOnlyList<LaidPart> parts, AllowedGround ground, IReadOnlyList<int> order,
        CancellationToken stop)
    {
        var each = order.Where(i => parts[i].Layers.Length > 0)
            .Select(i => (Part: i, Ordered: Of(job with { Parts = [job.Parts[i]] }, [parts[i]], ground, stop))).ToArray();
        return new([.. each.SelectMany(e => e.Ordered.Layers.Select(plan => plan with { Part = e.Part }))])
        {
            Notes = [.. each.SelectMany(e => e.Ordered.Notes)],
        };
    }

    /// <summary>Layer by layer through all parts.</summary>
    public static Ordered Of(SliceJob job, IReadOnlyList<LaidPart> parts, AllowedGround ground, CancellationToken stop) =>
        new LayerOrder(job, parts, ground).Order(stop);

    private Ordered Order(CancellationToken stop)
    {
        var recipe = _job.Recipe;
        var count = _parts.Max(p => p.Layers.Length);
        var floor = _ground.Of(_inUse[0], 0);
        var brims = _parts.Select((p, i) => recipe.Raft.Layers > 0 || p.Layers.Length == 0 ? Plane.Empty : BrimOf(i, floor)).ToArray();
        var foot = Plane.Union([.. _parts.Where(p => p.Layers.Length > 0).SelectMany(p => new[] { p.Layers[0].Region, p.Layers[0].Held })
            .Concat(brims).Where(s => !s.IsEmpty)]);
        var raft = recipe.Raft.Layers == 0 ? [] : Foot.Raft(recipe, foot, floor)
            .Select(l => l with { Paths = [.. l.Paths.Select(p => p with { Nozzle = _inUse[0] })] }).ToArray();
        if (raft.Length > 0)
        {
            var whole = Plane.Offset(foot, recipe.Raft.Margin);
            foot = Plane.Intersection(whole, floor);
            CutOff("raft", whole, foot, "/recipe/raft/margin");
        }

        var sequence = Enumerable.Range(0, count).Select(NozzlesOn).ToArray();
        var changes = sequence.Select((s, i) => s.Length - 1
            + (i > 0 && s.Length > 0 && sequence[i - 1].Length > 0 && s[0] != sequence[i - 1][^1] ? 1 : 0)).Select(c => Math.Max(0, c))
            .ToArray();
        var taken = Plane.Union([foot, .. _parts.SelectMany(p => p.Layers).Select(l => l.Held)
            .Where(h => !h.IsEmpty),
            .. _job.Parts.Select(p => p.Footprints.Below(double.PositiveInfinity, p.Part.X, p.Part.Y, p.Part.Turn))]);
        var (tower, refusal) = Tower.Of(_job, changes, taken);
        if (refusal is not null) return new Ordered([], refusal);
        var shield = recipe.NozzleChanges.Shield && changes.Any(c => c > 0) ? Shield(taken) : [];
        if (shield.Any(ring => !floor.Covers(
            Plane.Factory.CreateLineString([.. ring.Points.Append(ring.Points[0]).Select(p => new Coordinate(p.X, p.Y))]))))
            return new Ordered([], new Finding("no-room-for-shield", Severity.Stop,
                "There is no room for the shield round the parts within the bed and clear of its keep-outs.",
                "It would be laid where the nozzle must not go. Move the parts inwards, or narrow its gap.",
                "/recipe/nozzleChanges/shield"));
        var skirt = Foot.Skirt(recipe, shield.Length > 0 ? Plane.Union([foot, .. shield.Select(Filled)]) : foot, floor);
        var shieldTop = Array.FindLastIndex(changes, c => c > 0);

        var plans = new LayerPlan[count];
        // every layer starts where the machine's zero is nearest: layers stay independent of each other and can be ordered in parallel
        var zero = new Point(_job.Machine.Frames.ZeroX, _job.Machine.Frames.ZeroY);
        Parallel.For(0, count, _job.Parallel(stop), i =>
        {
            var place = LayerHeights.At(i, recipe.Layers.FirstHeight, recipe.Layers.Others!.Value);
            var layer = new Layer(zero);
            var nozzles = sequence[i];
            if (i < recipe.Skirt.Layers && raft.Length == 0) layer.Add(skirt, nozzles[0]);
            if (i == 0) for (var p = 0; p < _parts.Count; p++) layer.Add(Foot.Brim(brims[p], _parts[p].Recipe), nozzles[0]);
            if (i <= shieldTop) layer.Add(shield, nozzles.Length > 0 ? nozzles[0] : _inUse[0]);
            var strip = 0;
            for (var k = 0; k < nozzles.Length; k++)
            {
                var changed = k > 0 || i > 0 && sequence[i - 1].Length > 0 && sequence[i - 1][^1] != nozzles[0];
                if (changed && tower is not null && i < tower.Top)
                    layer.Add(tower.Lines(strip++, i, place, _job, primes: true), nozzles[k]);
                Parts(layer, i, nozzles[k]);
            }
            for (; tower is not null && i < tower.Top && strip < tower.Strips; strip++)
                layer.Add(tower.Lines(strip, i, place, _job, primes: false), nozzles[^1]);
            plans[i] = new LayerPlan(place with { Top = place.Top + _lift }, layer.Paths);
        });
        if (raft.Length > 0 && skirt.Count > 0)
            raft[0] = raft[0] with { Paths = [.. skirt.Select(s => s with { Nozzle = _inUse[0] }), .. raft[0].Paths] };
        return new Ordered([.. raft, .. recipe.Spiral ? Spiralled(plans) : plans]) { Notes = _notes };
    }

    /// <summary>Nozzles of a layer in order; every other layer begins with the one that the layer below ended with.</summary>
    private int[] NozzlesOn(int layer)
    {
        var used = _inUse.Where(n => _parts.Index()
            .Any(p => _nozzles[p.Index] == n && layer < p.Item.Layers.Length && !IsEmpty(p.Item.Layers[layer]))).ToArray();
        if (used.Length == 0) used = [_inUse[0]];
        return layer % 2 == 0 ? used : [.. used.Reverse()];
    }

    private static bool IsEmpty(PartLayer layer) => layer.Region.IsEmpty && layer.Supports.Count == 0;

    private Shape BrimOf(int part, Shape floor)
    {
        var area = Foot.BrimArea(_parts[part].Recipe, Plane.Union(_parts[part].Layers[0].Region, _parts[part].Layers[0].Held),
            _job.Parts[part].Footprints.Height);
        if (area.IsEmpty) return area;
        var others = Plane.Union([.. _parts.Where((p, i) => i != part && p.Layers.Length > 0)
            .Select(p => Plane.Offset(p.Layers[0].Region, _parts[part].Recipe.Brim.Gap + 0.01))]);
        var whole = Plane.Difference(area, others);
        var laid = Plane.Intersection(whole, floor);
        CutOff($"brim of {_job.Parts[part].Part.Name}", whole, laid, "/recipe/brim/width");
        return laid;
    }

    /// <summary>Says that what is grown round the parts is not laid whole.</summary>
    private void CutOff(string what, Shape whole, Shape laid, string pointer)
    {
        if (whole.Area - laid.Area < LeastCut) return;
        _notes.Add(new Finding("foot-cut-off", Severity.Note, Invariant(
            $"The {what} does not fit whole: {laid.Area / 100:0.##} of {whole.Area / 100:0.##} cm² are laid, the rest would lie "
                + $"off the bed, out of reach or in a keep-out."),
            "Where it is missing the part holds less well.", pointer));
    }

    private ToolPath[] Shield(Shape taken)
    {
        var width = _job.Recipe.LineWidth!.Value;
        return [.. Plane.Polygons(Plane.Offset(taken, _job.Recipe.NozzleChanges.ShieldGap + width / 2))
            .Select(p => WallLines.Ring(p.ExteriorRing, PathKind.Shield, width))];
    }

    private static Shape Filled(ToolPath ring) =>
        Plane.Factory.CreatePolygon([.. ring.Points.Append(ring.Points[0]).Select(p => new Coordinate(p.X, p.Y))]);

    private void Parts(Layer into, int layer, int nozzle)
    {
        var left = _parts.Index().Where(p => _nozzles[p.Index] == nozzle && layer < p.Item.Layers.Length && !IsEmpty(p.Item.Layers[layer]))
            .ToList();
        while (left.Count > 0)
        {
            var next = left.MinBy(p => Middle(p.Item.Layers[layer]).To(into.Here));
            left.Remove(next);
            Part(into, next.Item, layer, next.Index, nozzle);
        }
    }

    private static Point Middle(PartLayer layer)
    {
        var middle = (layer.Region.IsEmpty ? layer.Held : layer.Region).Centroid;
        return middle.IsEmpty ? new Point(0, 0) : new Point(middle.X, middle.Y);
    }

    private static void Part(Layer into, LaidPart part, int layer, int index, int nozzle)
    {
        var own = part.Layers[layer];
        into.AddNearest(own.Supports, nozzle, index);
        using var inside = part.Recipe.Retraction.StayInside && !own.Region.IsEmpty
            ? new InsideTravel(own.Region, [.. own.Walls.Take(1).SelectMany(rings => rings).Where(r => r.Closed).Select(r => r.Points)])
            : null;
        into.Inside = inside;
        var inward = part.Recipe.Wall.Order == WallOrder.OutsideIn;
        for (var k = 0; k < own.Walls.Count; k++)
            into.AddNearest(own.Walls[inward ? k : own.Walls.Count - 1 - k], nozzle, index, keepSeams: true);
        into.AddNearest(own.Thin, nozzle, index);
        foreach (var group in own.Fill)
        {
            // lines that all run one way keep their order
            var fixedOrder = part.Recipe.Top.OneDirection && group.Count > 0 && group[0].Kind == PathKind.Top;
            if (fixedOrder) into.Add(group, nozzle, index); else into.AddNearest(group, nozzle, index);
        }
        into.Inside = null;
    }

    /// <summary>Every climbing ring begins where the one below it ended.</summary>
    private static IEnumerable<LayerPlan> Spiralled(LayerPlan[] plans)
    {
        Point? here = null;
        foreach (var plan in plans)
        {
            var paths = plan.Paths.Select(path =>
            {
                if (!path.Climbs || here is not { } end) return path;
                var best = 0;
                for (var i = 1; i < path.Points.Length; i++) if (path.Points[i].To(end) < path.Points[best].To(end)) best = i;
                return path.From(best);
            }).ToArray();
            if (paths.Length > 0) here = paths[^1].End;
            yield return plan with { Paths = paths };
        }
    }

    /// <summary>The paths of a layer as they are put in order.</summary>
    private sealed class Layer(Point start)
    {
        public List<ToolPath> Paths { get; } = [];
        public Point Here { get; private set; } = start;
        /// <summary>Ways that stay within the part that is being laid; null for straight ways.</summary>
        public InsideTravel? Inside { get; set; }

        public void Add(IEnumerable<ToolPath> paths, int nozzle, int? part = null)
        {
            foreach (var path in paths) Put(path with { Nozzle = nozzle, Part = part });
        }

        /// <summary>Nearest next; rings may begin at any corner unless they keep their seams.</summary>
        public void AddNearest(IReadOnlyList<ToolPath> paths, int nozzle, int part, bool keepSeams = false)
        {
            foreach (var path in TravelOrder.Of(paths, Here, keepSeams)) Put(path with { Nozzle = nozzle, Part = part });
        }

        private void Put(ToolPath path)
        {
            var before = Paths.Count > 0 ? Paths[^1] : null;
            if (Inside is not null && before is not null && before.Part == path.Part && before.Nozzle == path.Nozzle
                && before.Kind.IsPart() && Inside.Between(before.End, path.Points[0]) is { } way)
                path = path with { Approach = way };
            Paths.Add(path);
            Here = path.End;
        }
    }
}

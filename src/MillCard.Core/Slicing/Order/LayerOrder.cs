using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Supporting;
using MillCard.Core.Slicing.Walls;

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
    private readonly int[] _nozzles, _interfaces, _inUse;
    private readonly int _first;
    private readonly double _lift;
    private readonly LayerPlace[] _places;
    private readonly List<Finding> _notes = [];

    private LayerOrder(SliceJob job, IReadOnlyList<LaidPart> parts, AllowedGround ground)
    {
        (_job, _parts, _ground) = (job, parts, ground);
        _nozzles = [.. job.Parts.Select(p => job.Machine.NozzlesOf(p.Part.Nozzles)[0])];
        _first = _nozzles.Min();
        _interfaces = [.. job.Parts.Select(p => job.InterfaceNozzleOf(p.Part))];
        _inUse = [.. _nozzles.Concat(_interfaces).Distinct().Order()];
        _lift = Foot.Lift(job.Recipe);
        _places = parts.MaxBy(p => p.Places.Length)!.Places;
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
        var sequence = Enumerable.Range(0, _parts.Max(p => p.Layers.Length)).Select(NozzlesOn).ToArray();
        var (around, refusal) = Around(ChangesIn(sequence));
        if (around is null) return new Ordered([], refusal);
        var plans = new LayerPlan[sequence.Length];
        // every layer starts where the machine's zero is nearest: layers stay independent of each other and can be ordered in parallel
        Parallel.For(0, plans.Length, _job.Parallel(stop), i => plans[i] = Plan(i, sequence, around));
        return new Ordered([.. around.Raft, .. _job.Recipe.Spiral ? Spirals.Of(plans) : plans]) { Notes = _notes };
    }

    /// <summary>How often the nozzle changes on each layer, with the change on the way to it.</summary>
    private static int[] ChangesIn(int[][] sequence) =>
        [.. sequence.Select((nozzles, i) => Math.Max(0, nozzles.Length - 1 + (BeginsWithChange(sequence, i) ? 1 : 0)))];

    private static bool BeginsWithChange(int[][] sequence, int layer) =>
        layer > 0 && sequence[layer].Length > 0 && sequence[layer - 1].Length > 0 && sequence[layer][0] != sequence[layer - 1][^1];

    /// <summary>What is laid round the parts and below them.</summary>
    /// <param name="Raft">Layers below the parts, the skirt with the lowest.</param>
    /// <param name="Skirt">Round all, on the first layers where there is no raft.</param>
    /// <param name="Brims">One a part, perhaps empty.</param>
    /// <param name="Shield">Round all up to a layer.</param>
    /// <param name="ShieldTop">The last layer that has it; −1 for none.</param>
    /// <param name="Tower">Where nozzles prime; null for none.</param>
    private sealed record Surroundings(IReadOnlyList<LayerPlan> Raft, IReadOnlyList<ToolPath> Skirt, IReadOnlyList<Shape> Brims,
        IReadOnlyList<ToolPath> Shield, int ShieldTop, Tower? Tower);

    private (Surroundings? Around, Finding? Refusal) Around(int[] changes)
    {
        var recipe = _job.Recipe;
        var floor = _ground.Of(_first, 0);
        var brims = _parts.Select((p, i) => recipe.Raft.Layers > 0 || p.Layers.Length == 0 ? Plane.Empty : BrimOf(i, floor)).ToArray();
        var foot = Plane.Union([.. _parts.Where(p => p.Layers.Length > 0).SelectMany(p => new[] { p.Layers[0].Region, p.Layers[0].Held })
            .Concat(brims).Where(s => !s.IsEmpty)]);
        var raft = recipe.Raft.Layers == 0 ? [] : Foot.Raft(recipe, foot, floor)
            .Select(l => l with { Paths = [.. l.Paths.Select(p => p with { Nozzle = _first })] }).ToArray();
        if (raft.Length > 0) foot = RaftedFoot(foot, floor);
        var taken = new Lazy<Shape>(() => Plane.Union([foot, .. _parts.SelectMany(p => p.Layers).Select(l => l.Held).Where(h => !h.IsEmpty),
            .. _job.Parts.Select(p => p.Footprints.Below(double.PositiveInfinity, p.Part.X, p.Part.Y, p.Part.Turn))]));
        var (tower, refusal) = Tower.Of(_job, changes, _parts.SelectMany(p => p.Places).Min(p => p.Height), taken);
        if (refusal is not null) return (null, refusal);
        var shield = recipe.NozzleChanges.Shield && changes.Any(c => c > 0) ? Shield(taken.Value) : [];
        if (shield.Any(ring => !floor.Covers(Line(ring)))) return (null, NoRoomForShield);
        var skirt = Foot.Skirt(recipe, Plane.Union([foot, .. shield.Select(Filled), .. WithinSkirt()]), floor);
        for (var i = 0; i < raft.Length && skirt.Count > 0 && (i == 0 || recipe.Skirt.ToTop); i++)
            raft[i] = raft[i] with { Paths = [.. skirt.Select(s => s with { Nozzle = _first }), .. raft[i].Paths] };
        var onLayers = raft.Length > 0 && !recipe.Skirt.ToTop ? [] : skirt;
        return (new(raft, onLayers, brims, shield, Array.FindLastIndex(changes, c => c > 0), tower), null);
    }

    /// <summary>What reaches out over the first layer below the skirt's top: a high skirt must stand clear of it.</summary>
    private IEnumerable<Shape> WithinSkirt()
    {
        var layers = _job.Recipe.Layers;
        var top = _job.Recipe.Skirt.Height(layers.FirstHeight, layers.Others!.Value);
        if (top <= layers.FirstHeight) return [];
        var count = _job.Recipe.Skirt.ToTop ? int.MaxValue : _job.Recipe.Skirt.Layers;
        return [.. _job.Parts.Select(p => p.Footprints.Below(top, p.Part.X, p.Part.Y, p.Part.Turn)),
            .. _parts.SelectMany(p => p.Layers.Take(count)).Select(l => l.Held).Where(h => !h.IsEmpty)];
    }

    /// <summary>What a raft stands on: the foot with the raft's margin, as far as there is room.</summary>
    private Shape RaftedFoot(Shape foot, Shape floor)
    {
        var whole = Plane.Offset(foot, _job.Recipe.Raft.Margin);
        var laid = Plane.Intersection(whole, floor);
        CutOff("raft", whole, laid, "/recipe/raft/margin");
        return laid;
    }

    private static readonly Finding NoRoomForShield = new("no-room-for-shield", Severity.Stop,
        "There is no room for the shield round the parts within the bed and clear of its keep-outs.",
        "It would be laid where the nozzle must not go. Move the parts inwards, or narrow its gap.", "/recipe/nozzleChanges/shield");

    private LayerPlan Plan(int layer, int[][] sequence, Surroundings around)
    {
        var (recipe, nozzles) = (_job.Recipe, sequence[layer]);
        var place = _places[layer];
        var lines = new OrderedLayer(new Point(_job.Machine.Frames.ZeroX, _job.Machine.Frames.ZeroY));
        if (layer < recipe.Skirt.Layers || recipe.Skirt.ToTop) lines.Add(around.Skirt, nozzles[0]);
        if (layer == 0)
            for (var p = 0; p < _parts.Count; p++) lines.Add(Foot.Brim(around.Brims[p], _parts[p].Recipe), nozzles[0]);
        if (layer <= around.ShieldTop) lines.Add(around.Shield, nozzles.Length > 0 ? nozzles[0] : _first);
        var tower = around.Tower is { } there && layer < there.Top ? there : null;
        var strip = 0;
        for (var k = 0; k < nozzles.Length; k++)
        {
            if (tower is not null && (k > 0 || BeginsWithChange(sequence, layer)))
                lines.Add(tower.Lines(strip++, layer, place, _job, primes: true), nozzles[k]);
            Parts(lines, layer, nozzles[k]);
        }
        for (; tower is not null && strip < tower.Strips; strip++)
            lines.Add(tower.Lines(strip, layer, place, _job, primes: false), nozzles[^1]);
        return new LayerPlan(place with { Top = place.Top + _lift }, lines.Paths);
    }

    /// <summary>Nozzles of a layer in order; every other layer begins with the one that the layer below ended with.</summary>
    private int[] NozzlesOn(int layer)
    {
        var used = _inUse.Where(n => _parts.Index().Any(p => Lays(n, p.Index, layer))).ToArray();
        if (used.Length == 0) used = [_first];
        return layer % 2 == 0 ? used : [.. used.Reverse()];
    }

    /// <summary>Whether a nozzle lays anything of a part on a layer.</summary>
    private bool Lays(int nozzle, int part, int layer)
    {
        if (layer >= _parts[part].Layers.Length || IsEmpty(_parts[part].Layers[layer])) return false;
        return _nozzles[part] == nozzle
            || _interfaces[part] == nozzle && _parts[part].Layers[layer].Supports.Any(s => s.Kind == PathKind.Interface);
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
        var (there, asked) = (laid.Area / 100, whole.Area / 100);
        _notes.Add(new Finding("foot-cut-off", Severity.Note,
            $"The {what} does not fit whole: {there:0.##} of {asked:0.##} cm² are laid, the rest would lie "
                + $"off the bed, out of reach or in a keep-out.",
            "Where it is missing the part holds less well.", pointer));
    }

    private ToolPath[] Shield(Shape taken)
    {
        var width = _job.Recipe.LineWidth!.Value;
        return [.. Plane.Polygons(Plane.Offset(taken, _job.Recipe.NozzleChanges.ShieldGap + width / 2))
            .Select(p => WallLines.Ring(p.ExteriorRing, PathKind.Shield, width))];
    }

    private static Shape Filled(ToolPath ring) => Plane.Factory.CreatePolygon(WallLines.Corners(ring));

    private static Shape Line(ToolPath ring) => Plane.Factory.CreateLineString(WallLines.Corners(ring));

    private void Parts(OrderedLayer into, int layer, int nozzle)
    {
        var left = _parts.Index().Where(p => Lays(nozzle, p.Index, layer)).ToList();
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

    private void Part(OrderedLayer into, LaidPart part, int layer, int index, int nozzle)
    {
        var own = part.Layers[layer];
        into.AddNearest([.. own.Supports.Where(s => (s.Kind == PathKind.Interface ? _interfaces : _nozzles)[index] == nozzle)], nozzle,
            index);
        if (nozzle != _nozzles[index]) return;
        using var inside = part.Recipe.Retraction.StayInside && !own.Region.IsEmpty
            ? new InsideTravel(own.Region, [.. own.Walls.Take(1).SelectMany(rings => rings).Where(r => r.Closed).Select(r => r.Points)])
            : null;
        into.Inside = inside;
        var inward = part.Recipe.Wall.Order == WallOrder.OutsideIn;
        if (part.Recipe.Wall.FillFirst) Fill(group => !IsLast(group));
        for (var k = 0; k < own.Walls.Count; k++)
            into.AddNearest(own.Walls[inward ? k : own.Walls.Count - 1 - k], nozzle, index, keepSeams: true);
        into.AddNearest(own.Thin, nozzle, index);
        Fill(group => !part.Recipe.Wall.FillFirst || IsLast(group));
        into.Inside = null;

        void Fill(Func<IReadOnlyList<ToolPath>, bool> which)
        {
            foreach (var group in own.Fill.Where(g => g.Count > 0 && which(g)))
            {
                // lines that all run one way keep their order
                var fixedOrder = part.Recipe.Top.OneDirection && group[0].Kind == PathKind.Top;
                if (fixedOrder) into.Add(group, nozzle, index); else into.AddNearest(group, nozzle, index);
            }
        }

        // the second pass goes over walls too
        static bool IsLast(IReadOnlyList<ToolPath> group) => group[0].Kind == PathKind.Smoothing;
    }
}

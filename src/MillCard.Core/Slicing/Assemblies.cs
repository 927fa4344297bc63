using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Wording;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Slicing;

/// <summary>Parts that grow together as one: where they overlap the later one is printed, and what stands beside a part carries
/// it.</summary>
internal sealed class Assemblies
{
    /// <summary>Bodies count as touching up to this, mm.</summary>
    private const double Touching = 0.05;

    private readonly SliceJob _job;
    private readonly LayerPlace[] _places;
    private readonly Dictionary<int, Shape[]> _onBed = [];
    private readonly ParallelOptions _options;

    /// <summary>Cuts all that belong to an assembly of several.</summary>
    /// <param name="job">The job.</param>
    /// <param name="places">Layers of all parts.</param>
    /// <param name="cut">A part's cross-sections, turned as it stands, its middle at (0, 0).</param>
    /// <param name="stop">Ends it.</param>
    public Assemblies(SliceJob job, LayerPlace[] places, Func<PartToSlice, Shape[]> cut, CancellationToken stop)
    {
        (_job, _places, _options) = (job, places, job.Parallel(stop));
        foreach (var group in job.Parts.Index().Where(p => p.Item.Part.Assembly is not null).GroupBy(p => p.Item.Part.Assembly)
            .Where(group => group.Count() > 1))
            foreach (var (index, part) in group)
                _onBed[index] = PartSections.Mapped(cut(part), region => Plane.Moved(region, part.Part.X, part.Part.Y));
    }

    /// <summary>What stands round a part; null where it is alone.</summary>
    public Fellows? Of(int index)
    {
        if (!_onBed.ContainsKey(index)) return null;
        var own = _job.Parts[index].Part;
        var all = _onBed.Keys.Where(other => other != index && _job.Parts[other].Part.Assembly == own.Assembly).ToArray();
        return new(Here(all), Here([.. all.Where(other => other > index)]), all.Select(other => new
        {
            Part = StageShelf.NumberOf(_job.Parts[other].Footprints),
            _job.Parts[other].Part.Turn,
            X = _job.Parts[other].Part.X - own.X,
            Y = _job.Parts[other].Part.Y - own.Y,
            _job.RecipeOf(_job.Parts[other].Part).Compensation,
            Goes = other > index,
        }).ToArray());

        Shape[] Here(int[] others)
        {
            var layers = new Shape[others.Select(other => _onBed[other].Length).DefaultIfEmpty(0).Max()];
            for (var i = 0; i < layers.Length; i++)
            {
                Shape[] now = [.. others.Select(other => On(other, i))];
                layers[i] = i > 0 && others.All(other => ReferenceEquals(On(other, i), On(other, i - 1))) ? layers[i - 1]
                    : Plane.Moved(Plane.Union([.. now.Where(region => !region.IsEmpty)]), -own.X, -own.Y);
            }
            return layers;
        }
    }

    private Shape On(int part, int layer) => layer < _onBed[part].Length ? _onBed[part][layer] : Plane.Empty;

    /// <summary>Where bodies of an assembly overlap, and which of them touches no other.</summary>
    public IEnumerable<Finding> Notes()
    {
        foreach (var group in _onBed.Keys.GroupBy(part => _job.Parts[part].Part.Assembly))
        {
            int[] bodies = [.. group];
            var meets = new bool[bodies.Length];
            for (var a = 0; a < bodies.Length; a++)
                for (var b = a + 1; b < bodies.Length; b++)
                {
                    if (Deepest(bodies[a], bodies[b]) is { } overlap) yield return overlap;
                    var touch = Gap(bodies[a], bodies[b], out _) <= Touching;
                    (meets[a], meets[b]) = (meets[a] || touch, meets[b] || touch);
                }
            for (var a = 0; a < bodies.Length; a++) if (!meets[a] && Apart(bodies, a) is { } apart) yield return apart;
        }
    }

    /// <summary>The layer on which two bodies share most.</summary>
    private Finding? Deepest(int a, int b)
    {
        var shared = new Shape[Math.Min(_onBed[a].Length, _onBed[b].Length)];
        Parallel.For(0, shared.Length, _options, i => shared[i] = Fellows.Shared(On(a, i), On(b, i)));
        var worst = Enumerable.Range(0, shared.Length).Where(i => !shared[i].IsEmpty).DefaultIfEmpty(-1)
            .MaxBy(i => i < 0 ? 0 : shared[i].Area);
        if (worst < 0) return null;
        var at = shared[worst].InteriorPoint;
        var (first, second) = (_job.Parts[a].Part.Name, _job.Parts[b].Part.Name);
        var by = 2 * Inscribed(shared[worst]);
        return new Finding("bodies-overlap", Severity.Note,
            $"{second} overlaps {first} by {by:0.00} mm on layer {worst + 1} "
                + $"({_places[worst].Top:0.##} mm up), at X {at.X:0.#}, Y {at.Y:0.#}: what both have is printed as {second}.",
            "Bodies of an assembly that overlap share plastic; the one farther down in the list has it.", JsonPointer.Root / "parts" / b);
    }

    /// <summary>The radius of the largest circle in a shape, mm, to a hundredth.</summary>
    private static double Inscribed(Shape shape)
    {
        var (low, high) = (0.0, Math.Min(shape.EnvelopeInternal.Width, shape.EnvelopeInternal.Height));
        while (high - low > 0.0005)
        {
            var middle = (low + high) / 2;
            if (Plane.Offset(shape, -middle, 2).IsEmpty) high = middle;
            else low = middle;
        }
        return low;
    }

    /// <summary>How far two bodies are apart on a layer, or from one layer to the next, mm.</summary>
    private double Gap(int a, int b, out int layer)
    {
        var gaps = new double[Math.Max(_onBed[a].Length, _onBed[b].Length)];
        Parallel.For(0, gaps.Length, _options, i =>
        {
            gaps[i] = double.PositiveInfinity;
            if (On(a, i) is { IsEmpty: false } here && On(b, i) is { IsEmpty: false } there)
                gaps[i] = Covers(here, there) || Covers(there, here) ? 0 : IndexedFacetDistance.Distance(here, there);
            if (i > 0 && (Overlap(On(a, i), On(b, i - 1)) || Overlap(On(b, i), On(a, i - 1)))) gaps[i] = 0;
        });
        layer = gaps.Length == 0 ? 0 : Enumerable.Range(0, gaps.Length).MinBy(i => gaps[i]);
        return gaps.Length == 0 ? double.PositiveInfinity : gaps[layer];

        static bool Overlap(Shape one, Shape other) => !Fellows.Shared(one, other).IsEmpty;
        static bool Covers(Shape one, Shape other) => one.Covers(other.InteriorPoint);
    }

    private Finding? Apart(int[] bodies, int one)
    {
        var (nearest, gap, layer) = bodies.Where((_, i) => i != one)
            .Select(other => (Other: other, Gap: Gap(bodies[one], other, out var at), At: at)).MinBy(o => o.Gap);
        var name = _job.Parts[bodies[one]].Part.Name;
        var other = _job.Parts[nearest].Part.Name;
        var how = Sentence.When(double.IsFinite(gap),
            $": {other} is {gap:0.00} mm away, on layer {layer + 1} ({_places[layer].Top:0.##} mm up)");
        return new Finding("body-apart", Severity.Caution, $"{name} touches no other body of its assembly{how}.",
            "Bodies that do not touch come off the bed as pieces of their own.", JsonPointer.Root / "parts" / bodies[one]);
    }
}

using MillCard.Core.Slicing.Sections;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>What a part's supports cover on each of its layers.</summary>
/// <param name="Body">Sparse supports.</param>
/// <param name="Interface">Dense supports right under, or right above, the part.</param>
internal sealed record SupportAreas(Shape[] Body, Shape[] Interface)
{
    /// <summary>All that they cover on a layer.</summary>
    public Shape On(int layer) => Geometry.Plane.Union(Body[layer], Interface[layer]);
}

/// <summary>What supports have to know of a part.</summary>
internal sealed class SupportTask
{
    /// <summary>A gap counts as wide enough that lacks less than this share of a layer.</summary>
    private const double Rounding = 0.01;

    private readonly Func<int, Shape> _ground;
    private readonly LayerPlace[] _places;
    private readonly int[] _tops;
    private readonly ILookup<int, int> _heldFrom;

    /// <param name="regions">Its cross-sections.</param>
    /// <param name="overhangs">What of each layer must be held up from below.</param>
    /// <param name="ground">Where supports may stand, by layer.</param>
    /// <param name="supports">The settings.</param>
    /// <param name="width">Line width, mm.</param>
    /// <param name="places">Its layers.</param>
    public SupportTask(Shape[] regions, Shape[] overhangs, Func<int, Shape> ground, Documents.Supports supports, double width,
        LayerPlace[] places)
    {
        (Regions, Overhangs, _ground, Supports, Width, _places) = (regions, overhangs, ground, supports, width, places);
        _tops = [.. Enumerable.Range(0, places.Length).Select(layer => layer - 1 - FreeUnder(layer))];
        _heldFrom = Enumerable.Range(0, places.Length).Where(layer => _tops[layer] >= 0).ToLookup(layer => _tops[layer]);
    }

    /// <summary>The part's cross-sections.</summary>
    public Shape[] Regions { get; }
    /// <summary>What of each layer must be held up from below.</summary>
    public Shape[] Overhangs { get; }
    /// <summary>The settings.</summary>
    public Documents.Supports Supports { get; }
    /// <summary>Line width, mm.</summary>
    public double Width { get; }

    /// <summary>Where supports may stand on a layer.</summary>
    public Shape Ground(int layer) => _ground(layer);

    /// <summary>Height of a layer, mm.</summary>
    public double HeightOf(int layer) => _places[layer].Height;

    /// <summary>The highest layer of supports under an overhang on a layer, the gap between them left free; below 0 where there is no
    /// room for any.</summary>
    public int TopFor(int layer) => _tops[layer];

    /// <summary>The same of every layer.</summary>
    public IReadOnlyList<int> Tops => _tops;

    /// <summary>What overhangs hold on supports whose highest layer is this one; several where layers are lower than those below.</summary>
    public IEnumerable<Shape> OverhangsFrom(int layer) => _heldFrom[layer].Select(above => Overhangs[above]).Where(o => !o.IsEmpty);

    /// <summary>Layers left free between supports and an overhang on a layer.</summary>
    private int FreeUnder(int layer) => Supports.RoofGap ?? FreeBelow(layer);

    /// <summary>Layers left free between the part and supports on a layer over it.</summary>
    public int FreeBelow(int layer)
    {
        var free = 0;
        while (layer - 1 - free >= 0
            && _places[layer - 1].Top - _places[layer - 1 - free].Top < Supports.GapZ - Rounding * _places[layer - 1 - free].Height) free++;
        return free;
    }

    /// <summary>Layers left free between supports on a layer and the part over them.</summary>
    private int FreeAbove(int layer)
    {
        if (Supports.RoofGap is { } layers) return layers;
        var free = 0;
        while (layer + free < _places.Length
            && _places[layer + free].Top - _places[layer].Top < Supports.GapZ - Rounding * _places[layer + free].Height) free++;
        return free;
    }

    /// <summary>What a layer's supports must stay clear of: the part beside it, and the part within the gap above and below.</summary>
    public Shape Blocked(int layer)
    {
        var near = new List<Shape> { Geometry.Plane.Offset(Regions[layer], Supports.GapXy, 4) };
        for (var k = 1; k <= FreeBelow(layer) && layer - k >= 0; k++) near.Add(Regions[layer - k]);
        for (var k = 1; k <= FreeAbove(layer) && layer + k < Regions.Length; k++) near.Add(Regions[layer + k]);
        return Geometry.Plane.Union([.. near.Where(n => !n.IsEmpty)]);
    }
}

namespace MillCard.Core.Slicing.Supporting;

/// <summary>What a part's supports cover on each of its layers.</summary>
/// <param name="Body">Sparse supports.</param>
/// <param name="Interface">Dense supports right under, or right above, the part.</param>
internal sealed record SupportAreas(Shape[] Body, Shape[] Interface);

/// <summary>What supports have to know of a part.</summary>
/// <param name="Regions">Its cross-sections.</param>
/// <param name="Overhangs">What of each layer must be held up from below.</param>
/// <param name="Ground">Where supports may stand, by layer.</param>
/// <param name="Supports">The settings.</param>
/// <param name="Width">Line width, mm.</param>
/// <param name="Height">Height of the layers, mm.</param>
internal sealed record SupportTask(Shape[] Regions, Shape[] Overhangs, Func<int, Shape> Ground, Documents.Supports Supports, double Width,
    double Height)
{
    /// <summary>Layers left free between support and part.</summary>
    public int Gap => (int)Math.Ceiling(Supports.GapZ / Height - 0.01);

    /// <summary>What a layer's supports must stay clear of: the part beside it, and the part within the gap above and below.</summary>
    public Shape Blocked(int layer)
    {
        var near = new List<Shape> { Geometry.Plane.Offset(Regions[layer], Supports.GapXy, 4) };
        for (var k = 1; k <= Gap; k++)
        {
            if (layer - k >= 0) near.Add(Regions[layer - k]);
            if (layer + k < Regions.Length) near.Add(Regions[layer + k]);
        }
        return Geometry.Plane.Union([.. near.Where(n => !n.IsEmpty)]);
    }
}

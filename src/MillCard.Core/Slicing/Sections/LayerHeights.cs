using MillCard.Core.Documents;
using MillCard.Core.Meshes;

namespace MillCard.Core.Slicing.Sections;

/// <summary>One layer's place: its top above the bed and its height, mm.</summary>
public readonly record struct LayerPlace(double Top, double Height)
{
    /// <summary>Height of the plane that cuts the part for this layer: the middle.</summary>
    public double Middle => Top - Height / 2;
}

/// <summary>Where the layers of a part lie.</summary>
public static class LayerHeights
{
    /// <summary>One layer above the parts' floor.</summary>
    /// <param name="layer">Number of the layer, counted from 0.</param>
    /// <param name="first">Height of the first layer, mm.</param>
    /// <param name="others">Height of the others, mm.</param>
    public static LayerPlace At(int layer, double first, double others) => layer == 0 ? new(first, first)
        : new(first + layer * others, others);

    /// <summary>The layers of parts that are printed together.</summary>
    /// <param name="meshes">As they stand on the bed.</param>
    /// <param name="layers">Of a complete recipe.</param>
    /// <param name="step">A full step of Z, mm; null where it is not known.</param>
    internal static LayerPlace[] Of(IReadOnlyList<Mesh> meshes, LayerSizes layers, double? step)
    {
        if (layers.Error is not { } error) return Of(meshes.Max(m => m.Box.MaxZ), layers.FirstHeight, layers.Others!.Value);
        var (lowest, highest) = layers.Range;
        // rungs finer than positions are written to are none
        var rung = step is > FinestRung and var full && full <= highest ? full : CommonRung;
        var least = (int)Math.Ceiling(lowest / rung - 0.01);
        return SlopedHeights.Of(meshes, new(layers.FirstHeight, rung, Math.Max(1, least),
            Math.Max(Math.Max(1, least), (int)(highest / rung + 0.01)), error));
    }

    private const double FinestRung = 0.0025, CommonRung = 0.01;

    /// <summary>The layers of a part among those of all.</summary>
    /// <param name="all">Of all that is printed together.</param>
    /// <param name="part">Height of the part, mm.</param>
    internal static LayerPlace[] Below(LayerPlace[] all, double part) => [.. all.TakeWhile(place => place.Middle < part)];

    /// <summary>All layers whose middle lies in the part.</summary>
    /// <param name="part">Height of the part, mm.</param>
    /// <param name="first">Height of the first layer, mm.</param>
    /// <param name="others">Height of the others, mm.</param>
    public static LayerPlace[] Of(double part, double first, double others)
    {
        var layers = new List<LayerPlace>();
        for (var i = 0; ; i++)
        {
            var place = At(i, first, others);
            if (place.Middle >= part) return [.. layers];
            layers.Add(place);
        }
    }
}

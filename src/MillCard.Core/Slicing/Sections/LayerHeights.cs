using MillCard.Core.Documents;

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
    /// <param name="top">Height of the highest, mm.</param>
    /// <param name="layers">Of a complete recipe.</param>
    /// <param name="slopes">What their surfaces allow; null where heights do not follow it.</param>
    /// <param name="wanted">What is asked for beside the usual height.</param>
    internal static LayerPlace[] Of(double top, LayerSizes layers, SlopedHeights? slopes, WantedHeights wanted)
    {
        var others = layers.Others!.Value;
        if (slopes is null && wanted.Wishes.Count == 0) return Of(top, layers.FirstHeight, others);
        var places = new List<LayerPlace> { new(layers.FirstHeight, layers.FirstHeight) };
        while (places.Count <= Most)
        {
            var below = places[^1].Top;
            var height = wanted.At(below) ?? slopes?.Over(below) ?? others;
            if (below + height / 2 >= top) break;
            places.Add(new(Math.Round(below + height, Digits), height));
        }
        return [.. places];
    }

    /// <summary>More layers than these are none of a print.</summary>
    public const int Most = 100_000;

    /// <summary>To which heights are rounded, so that nothing adds up.</summary>
    private const int Digits = 9;

    /// <summary>The layers of a part among those of all.</summary>
    /// <param name="all">Of all that is printed together.</param>
    /// <param name="part">Height of the part, mm.</param>
    internal static LayerPlace[] Below(LayerPlace[] all, double part) => [.. all.TakeWhile(place => place.Middle < part)];

    /// <summary>All layers whose middle lies in the part, but one more than the most at most.</summary>
    /// <param name="part">Height of the part, mm.</param>
    /// <param name="first">Height of the first layer, mm.</param>
    /// <param name="others">Height of the others, mm.</param>
    public static LayerPlace[] Of(double part, double first, double others)
    {
        var layers = new List<LayerPlace>();
        for (var i = 0; i <= Most; i++)
        {
            var place = At(i, first, others);
            if (place.Middle >= part) break;
            layers.Add(place);
        }
        return [.. layers];
    }
}

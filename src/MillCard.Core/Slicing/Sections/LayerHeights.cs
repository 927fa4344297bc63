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

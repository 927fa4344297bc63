namespace MillCard.Core.Slicing;

/// <summary>One layer's place: its top above the bed and its height, mm.</summary>
public readonly record struct LayerPlace(double Top, double Height)
{
    /// <summary>Height of the plane that cuts the part for this layer: the middle.</summary>
    public double Middle => Top - Height / 2;
}

/// <summary>Where the layers of a part lie.</summary>
public static class LayerHeights
{
    /// <summary>All layers whose middle lies in the part.</summary>
    /// <param name="part">Height of the part, mm.</param>
    /// <param name="first">Height of the first layer, mm.</param>
    /// <param name="others">Height of the others, mm.</param>
    public static LayerPlace[] Of(double part, double first, double others)
    {
        var layers = new List<LayerPlace>();
        for (var i = 0; ; i++)
        {
            var place = i == 0 ? new LayerPlace(first, first) : new LayerPlace(first + i * others, others);
            if (place.Middle >= part) return [.. layers];
            layers.Add(place);
        }
    }
}

namespace MillCard.Core.Slicing.Sections;

/// <summary>A height that layers are to have from one Z to another.</summary>
/// <param name="From">Layers that begin at or above it, mm above the parts' own floor.</param>
/// <param name="To">Layers that begin below it, mm.</param>
/// <param name="Height">mm.</param>
/// <param name="Pointer">Where it is asked for.</param>
internal sealed record HeightWish(double From, double To, double Height, string Pointer);

/// <summary>Heights that parts, zones and bands by hand ask for beside the usual one; a later wish goes before an earlier one.</summary>
/// <param name="Wishes">In their order.</param>
internal sealed record WantedHeights(IReadOnlyList<HeightWish> Wishes)
{
    /// <summary>What a layer is to be as high as that begins at a height; null where nothing is wished.</summary>
    public double? At(double bottom) =>
        Wishes.LastOrDefault(w => w.From - Geometry.Plane.Touch <= bottom && bottom < w.To - Geometry.Plane.Touch)?.Height;
}

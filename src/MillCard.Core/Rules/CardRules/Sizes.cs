using MillCard.Core.Documents;
using MillCard.Core.Geometry;

namespace MillCard.Core.Rules.CardRules;

/// <summary>Sizes of what a draft may say only in part.</summary>
internal static class Sizes
{
    /// <summary>Width and depth of a bed, mm; null where it is not there yet or its outline is broken.</summary>
    public static (double Width, double Depth)? Of(Bed? bed)
    {
        switch (bed)
        {
            case RectangleBed { Width: { } width, Depth: { } depth }: return (width, depth);
            case EllipseBed { Width: { } width, Depth: { } depth }: return (width, depth);
            case null or RectangleBed or EllipseBed: return null;
        }
        try { return Shapes.Of(bed).EnvelopeInternal is var box ? (box.MaxX, box.MaxY) : null; }
        catch (OutlineException) { return null; }
    }
}

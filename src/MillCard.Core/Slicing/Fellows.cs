using MillCard.Core.Geometry;

namespace MillCard.Core.Slicing;

/// <summary>What else of its assembly stands round a part, in the part's own frame, turned as it stands.</summary>
/// <param name="Beside">All of it, by layer.</param>
/// <param name="Before">What of it goes before the part where both would be, by layer.</param>
/// <param name="RestsOn">What decides both.</param>
internal sealed record Fellows(Shape[] Beside, Shape[] Before, object RestsOn)
{
    /// <summary>Two bodies that touch share no plastic: what they share by less is rounding, mm.</summary>
    private const double Rounding = 0.01;

    /// <summary>A part's cross-sections without what goes before it; equal neighbours stay one shape.</summary>
    public Shape[] LeftOf(Shape[] regions) => Layered(regions, Before, (own, before) =>
        Shared(own, before) is { IsEmpty: false } shared ? Plane.Difference(own, shared) : own);

    /// <summary>What two bodies share on a layer; nothing where they only touch.</summary>
    public static Shape Shared(Shape one, Shape other) => Plane.Opened(Plane.Intersection(one, other), Rounding, 2);

    /// <summary>A part's cross-sections with all that stands beside it; equal neighbours stay one shape.</summary>
    public Shape[] With(Shape[] regions) => Layered(regions, Beside, Plane.Union);

    private static Shape[] Layered(Shape[] regions, Shape[] others, Func<Shape, Shape, Shape> of)
    {
        var made = new Shape[regions.Length];
        for (var i = 0; i < made.Length; i++)
        {
            var asBelow = i > 0 && ReferenceEquals(regions[i], regions[i - 1]) && i < others.Length
                && ReferenceEquals(others[i], others[i - 1]);
            if (i >= others.Length || others[i].IsEmpty) made[i] = regions[i];
            else made[i] = asBelow ? made[i - 1] : of(regions[i], others[i]);
        }
        return made;
    }
}

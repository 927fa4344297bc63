namespace MillCard.Core.Geometry;

/// <summary>The union of areas that may be very many and lie deep upon each other.</summary>
internal static class ManyAreas
{
    /// <summary>Up to so many are joined pair by pair.</summary>
    private const int Few = 500;

    /// <summary>What any covers.</summary>
    /// <param name="areas">Valid areas.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Shape Union(IReadOnlyList<Shape> areas, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        if (areas.Count <= Few) return Plane.Union(areas);
        var certain = EnclosedCells.Of([.. areas.SelectMany(Plane.Border)], stop);
        var border = areas.Where(area => !Holds(certain, area)).SelectMany(Plane.Border).ToArray();
        return OuterBorder.Enclosed(border, certain, stop) ?? Plane.Union(areas);
    }

    private static bool Holds(CertainCells certain, Shape area) =>
        area.EnvelopeInternal is var box && certain.Holds(box.MinX, box.MinY, box.MaxX, box.MaxY);
}

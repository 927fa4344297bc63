using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Reach;

/// <summary>Which moves of a part end all that it violates.</summary>
internal sealed class CuringMoves(Machine machine, Overlaps overlaps)
{
    /// <summary>The smallest displacement to where the part violates nothing at all.</summary>
    public Move? Least(PlacedPart part, PlacedPart[] all, CancellationToken stop)
    {
        var free = Free(part, stop);
        free = FreeOfOthers(free, part, all, stop);
        if (part.Second is { } second && !free.IsEmpty)
        {
            var theirs = FreeOfOthers(Free(second, stop), second, all, stop);
            free = Plane.Intersection(free, second.Mirrored ? MirroredMoves(theirs) : theirs);
        }
        if (free.IsEmpty) return null;
        var nearest = DistanceOp.NearestPoints(free, Plane.Factory.CreatePoint(new Coordinate(0, 0)))[0];
        return new Move(nearest.X, nearest.Y);
    }

    /// <summary>The same for a part and its copy, where it has one.</summary>
    public Shape FreeWithCopy(PlacedPart part, CancellationToken stop)
    {
        var free = Free(part, stop);
        if (part.Second is not { } second || free.IsEmpty) return free;
        var theirs = Free(second, stop);
        return Plane.Intersection(free, second.Mirrored ? MirroredMoves(theirs) : theirs);
    }

    /// <summary>Displacements at which a part is on the bed, in reach and clear of every keep-out.</summary>
    public Shape Free(PlacedPart part, CancellationToken stop)
    {
        var free = Plane.Intersection(Erosion.Of(machine.Usable, part.Widest), Erosion.Of(part.Reach, part.Widest));
        foreach (var forbidden in part.Forbidden)
        {
            stop.ThrowIfCancellationRequested();
            if (free.IsEmpty) break;
            if (part.Below(forbidden.Below).IsEmpty) continue;
            free = Plane.Difference(free, Plane.Moved(overlaps.SpaceOf(part, forbidden).Grown, -part.At.X, -part.At.Y));
        }
        return free;
    }

    private Shape FreeOfOthers(Shape free, PlacedPart part, PlacedPart[] all, CancellationToken stop)
    {
        foreach (var other in all)
        {
            stop.ThrowIfCancellationRequested();
            if (ReferenceEquals(other.Part, part.Part) || free.IsEmpty) continue;
            free = Plane.Difference(free, overlaps.Of(part, other));
            if (other.Second is { } second && !part.IsSecond) free = Plane.Difference(free, overlaps.Of(part, second));
        }
        return free;
    }

    private static Shape MirroredMoves(Shape moves) => NetTopologySuite.Geometries.Utilities.AffineTransformation.ScaleInstance(-1, 1)
        .Transform(moves);
}

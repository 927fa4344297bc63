using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using NetTopologySuite.Geometries;
using NetTopologySuite.Geometries.Prepared;
using NetTopologySuite.Operation.Distance;

namespace MillCard.Core.Reach;

/// <summary>What of that which is printed a violation is told of.</summary>
internal enum FootprintPart
{
    /// <summary>The part with what is grown round it.</summary>
    Whole,
    /// <summary>Its skirt.</summary>
    Skirt,
}

/// <summary>Finds what parts violate where they stand.</summary>
internal sealed class Violations(Surroundings around, Overlaps overlaps)
{
    /// <summary>What one of the parts violates.</summary>
    /// <param name="part">One of them.</param>
    /// <param name="all">All that lie on the bed.</param>
    /// <param name="plan">The plan of a mode; null where there is none.</param>
    /// <param name="told">What violations are told of.</param>
    public List<Violation> Of(PlacedPart part, PlacedPart[] all, ModePlan? plan, FootprintPart told = FootprintPart.Whole)
    {
        var found = new List<Violation>();
        TooHighOrLow(part, found);
        Alone(part, found, told);
        foreach (var other in all)
        {
            if (other != part) Into(part, other, found);
            if (other != part && other.Second is { } theirs) Into(part, theirs, found);
        }
        if (part.Second is { } second)
        {
            Alone(second, found, told);
            foreach (var other in all) if (other != part) Into(second, other, found);
        }
        TooWide(part, plan, found);
        return found;
    }

    private void TooHighOrLow(PlacedPart part, List<Violation> found)
    {
        var high = part.Part.Footprints.Height;
        if (high - around.Machine.Height is var over && over > Plane.Touch)
        {
            var takes = around.Machine.HeightIsTrials ? "this trial" : "this machine";
            found.Add(new(ViolationKind.Height, null, null, over, null,
                $"{part.Label} is {high:0.00} mm high; {takes} takes {around.Machine.Height:0.00}. It is {over:0.00} mm too high."));
        }
        if (high >= around.Apron.FirstLayer / 2) return;
        var box = part.Part.Footprints.Box;
        found.Add(new(ViolationKind.Size, null, null, around.Apron.FirstLayer / 2 - high, null, Invariant(
            $"{part.Label} is {box.MaxX - box.MinX:0.###} × {box.MaxY - box.MinY:0.###} × {high:0.###} mm, lower than half the "
                + $"first layer of {around.Apron.FirstLayer:0.##}: nothing of it would be printed.")));
    }

    private void Alone(PlacedPart part, List<Violation> found, FootprintPart told)
    {
        var bed = around.Machine.TrialsMargin is { } margin
            ? Invariant($"the bed within this trial's margin of {margin:0.##} mm") : "the usable bed";
        Outside(part, around.Machine.Usable, ViolationKind.Bed, bed, found, told);
        Outside(part, part.Reach, ViolationKind.Reach, part.NozzleNames(around.Machine), found, told);
        foreach (var group in part.Forbidden.GroupBy(f => f.KeepOut)) Inside(part, group, found, told);
    }

    /// <summary>No move cures a copy that lies too near: its distance is the same everywhere.</summary>
    private static void TooWide(PlacedPart part, ModePlan? plan, List<Violation> found)
    {
        if (plan?.Second is not { Mirrored: false }) return;
        if (plan.Distance < plan.LeastDistance - Plane.Touch)
            found.Add(new(ViolationKind.Copy, null, null, plan.LeastDistance - plan.Distance, null,
                $"The copies lie {plan.Distance:0.##} mm apart; the two nozzles come no nearer than {plan.LeastDistance:0.##}."));
        else if (part.Widest.EnvelopeInternal.Width + plan.Gap - plan.Distance is var over && over > Plane.Touch)
            found.Add(new(ViolationKind.Copy, null, null, over, null,
                $"{part.Label} is {part.Widest.EnvelopeInternal.Width:0.##} mm wide; copies {plan.Distance:0.##} mm apart leave "
                    + $"{plan.Distance - plan.Gap:0.##}. The distance is {over:0.##} mm too short."));
    }

    private static void Outside(PlacedPart part, Shape region, ViolationKind kind, string name, List<Violation> found, FootprintPart told)
    {
        if (region.IsEmpty)
        {
            found.Add(new(kind, null, null, Math.Max(part.Widest.EnvelopeInternal.Width, part.Widest.EnvelopeInternal.Height), null,
                $"{part.Label} stands nowhere right: nothing is {name}."));
            return;
        }
        var distance = Protrusion(part.Widest, region);
        if (distance > Plane.Touch)
            found.Add(new(kind, null, null, distance, null,
                $"{Whose(part, told)} {(told == FootprintPart.Skirt ? "lies" : "stands")} {distance:0.00} mm beyond {name}."));
    }

    private void Inside(PlacedPart part, IGrouping<KeepOut, Forbidden> group, List<Violation> found, FootprintPart told)
    {
        Violation? worst = null;
        foreach (var forbidden in group)
        {
            var depth = Depth(part, forbidden);
            if (depth <= Plane.Touch || depth <= worst?.Distance) continue;
            var by = forbidden.With is null ? "" : $" for the {forbidden.With}";
            var trials = around.Machine.IsTrials(group.Key) ? ", which this trial keeps out of" : "";
            worst = new(ViolationKind.KeepOut, group.Key.Name, forbidden.With, depth, null,
                $"{Whose(part, told)} is {depth:0.00} mm too near {group.Key.Name}{by}{trials}.");
        }
        if (worst is not null) found.Add(worst);
    }

    private static string Whose(PlacedPart part, FootprintPart told) =>
        told == FootprintPart.Skirt ? $"The skirt of {part.Label}" : part.Label;

    private void Into(PlacedPart part, PlacedPart other, List<Violation> found)
    {
        if (part.Part.IsFellowOf(other.Part) && part.Mirrored == other.Mirrored) return;
        if (!part.Whole.EnvelopeInternal.Intersects(other.Whole.EnvelopeInternal)) return;
        var overlap = Plane.Intersection(part.Whole, other.Whole);
        if (overlap.IsEmpty || Plane.Offset(overlap, -Plane.Touch / 2).IsEmpty) return;
        var depth = DepthIn(overlaps.Of(part, other));
        if (depth > Plane.Touch)
            found.Add(new(ViolationKind.Part, other.Label, null, depth, null, $"{part.Label} overlaps {other.Label} by {depth:0.00} mm."));
    }

    /// <summary>How far the farthest point of a shape lies outside a region, mm.</summary>
    private static double Protrusion(Shape shape, Shape region)
    {
        if (shape.IsEmpty) return 0;
        var convex = region is Polygon polygon && MinkowskiSum.IsConvex(polygon);
        var part = convex ? Shapes.Hull(shape) : shape;
        if (PreparedGeometryFactory.Prepare(region).Covers(part)) return 0;
        var outside = convex ? part : Plane.Difference(part, region);
        var farthest = 0.0;
        var distance = new IndexedFacetDistance(region);
        foreach (var corner in outside.Coordinates)
        {
            var point = Plane.Factory.CreatePoint(corner);
            if (convex && region.Covers(point)) continue;
            farthest = Math.Max(farthest, distance.Distance(point));
        }
        return farthest;
    }

    /// <summary>How far a part is within a region that it must stay out of, margin grown on, mm; 0 where it is clear.</summary>
    private double Depth(PlacedPart part, Forbidden forbidden)
    {
        var shape = part.Below(forbidden.Below);
        if (shape.IsEmpty || shape.EnvelopeInternal.Distance(forbidden.Core.EnvelopeInternal) >= Math.Max(forbidden.Margin, Plane.Touch))
            return 0;
        if (!overlaps.IsKnown(part, forbidden) && DistanceOp.Distance(shape, forbidden.Core) is var gap and > 0)
            return Math.Max(0, forbidden.Margin - gap);
        return Math.Max(0, forbidden.Margin + overlaps.SpaceOf(part, forbidden).DepthAt(part.At.X, part.At.Y));
    }

    private static double DepthIn(Shape space)
    {
        var here = Plane.Factory.CreatePoint(new Coordinate(0, 0));
        return space.Covers(here) ? DistanceOp.Distance(space.Boundary, here) : 0;
    }
}

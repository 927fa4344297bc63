using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Walls;
using NetTopologySuite.Algorithm;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Where rows of a hatch are led further than to the border, so that no hole is left at their ends: into corners between two rows,
/// into points before the first row and after the last, and into wedges between a row and a border that runs off at a slant.</summary>
internal sealed class RowEnds
{
    /// <summary>Radius of the holes that may stay, mm.</summary>
    private const double Hole = 0.05;

    /// <summary>Shallower corners and shorter ways leave no hole worth mending, mm.</summary>
    private const double Shallow = 0.06;

    /// <summary>Sine of half of the angle inside a corner: blunter ones are filled by the turns of the rows.</summary>
    private const double Blunt = 0.94;

    /// <summary>Corners so far from a row's end are none of its own, in distances of the rows.</summary>
    private const double Farthest = 4;

    /// <summary>Deeper points are led along on both of their sides, in distances of the rows.</summary>
    private const double Deep = 0.6;

    /// <summary>Points as wide as this are flat and hold no row, in distances of the rows.</summary>
    private const double Widest = 3;

    /// <summary>By how much of its width a line may lie on the walls beside a sharp corner.</summary>
    private const double OnWalls = 0.1;

    private readonly ILookup<int, SharpCorner> _corners;
    private readonly Edges _border;
    private readonly HatchFrame _frame;
    private readonly double _spacing, _half, _beside, _leastRoom;

    /// <param name="At">Where it is.</param>
    /// <param name="Reached">How far a line is led into it.</param>
    private sealed record SharpCorner(Along At, Along Reached);

    /// <param name="area">Where the middles of rows may lie.</param>
    /// <param name="border">Of it.</param>
    /// <param name="frame">Of the rows.</param>
    /// <param name="spacing">Distance of the rows, mm.</param>
    /// <param name="width">Of their lines, mm.</param>
    /// <param name="leastRoom">Of lines in wedges, mm.</param>
    public RowEnds(Polygon area, Edges border, HatchFrame frame, double spacing, double width, double leastRoom)
    {
        (_border, _frame, _spacing, _half, _leastRoom) = (border, frame, spacing, width / 2, leastRoom);
        // walls lie so far beside the border of their middles
        _beside = _half - WallLines.Lap * spacing / 2;
        _corners = Plane.Rings(area).SelectMany((ring, i) => Corners(ring.CoordinateSequence, isHole: i > 0))
            .ToLookup(corner => (int)Math.Floor(corner.At.V / spacing));
    }

    /// <summary>Tells pieces of a row and of the next which have others beside them.</summary>
    public static void Meet(RowPiece[] row, RowPiece[] next)
    {
        foreach (var low in row)
            foreach (var high in next.Where(low.IsBeside)) low.HasAbove = high.HasBelow = true;
    }

    /// <summary>Fills what two pieces that are joined leave free at their ends.</summary>
    /// <param name="low">A piece of a row.</param>
    /// <param name="high">A piece of the next.</param>
    /// <param name="side">1 where they are joined at their ends, -1 at their beginnings.</param>
    public void Fill(RowPiece low, RowPiece high, int side)
    {
        high.Corner = Corner(low.At(side), high.At(side), side);
        FillFree(low, high, -side);
    }

    /// <summary>Fills what a piece leaves free that is joined to none of the row before.</summary>
    public void Fill(RowPiece[] row, RowPiece high)
    {
        if (Array.Find(row, high.IsBeside) is { } first) FillFree(first, high, -1);
        if (Array.FindLast(row, high.IsBeside) is { } last) FillFree(last, high, 1);
    }

    /// <summary>Leads a piece of a row or of the next into what both leave free on a side where they are not joined.</summary>
    private void FillFree(RowPiece low, RowPiece high, int side)
    {
        var (below, above) = (low.At(side), high.At(side));
        if (Corner(below, above, side) is { } corner) (corner.To(below) < corner.To(above) ? low : high).Lead(side, corner);
        else if (side * (above.U - below.U) < 0) Lead(high, above, below);
        else Lead(low, below, above);

        void Lead(RowPiece shorter, Along end, Along longer)
        {
            if (Wedge(end, longer, side) is { } led) shorter.Lead(side, led);
        }
    }

    /// <summary>A corner between the ends of a row and of the next; null for none.</summary>
    private Along? Corner(Along low, Along high, int side)
    {
        SharpCorner? found = null;
        var most = Shallow;
        foreach (var corner in _corners[StripOver(low)])
        {
            var share = (corner.Reached.V - low.V) / (high.V - low.V);
            var beyond = side * (corner.Reached.U - (low.U + share * (high.U - low.U)));
            if (beyond <= most || corner.At.To(low) > Farthest * _spacing
                || !LiesInside(low.Towards(high, 0.5).Inside(side), corner.At.Inside(side))) continue;
            (found, most) = (corner, beyond);
        }
        return found?.Reached;
    }

    /// <summary>How far a row is led into the wedge between its longer neighbour and the border; null where no hole is left.</summary>
    private Along? Wedge(Along shorter, Along longer, int side)
    {
        var (along, way) = (Math.Abs(longer.U - shorter.U), shorter.To(longer));
        // lines of their own lie in longer ones
        if (along >= Slivers.Shortest * _spacing) return null;
        var (cosine, sine) = (along / way, _spacing / way);
        // a circle that touches the border, the side of the longer row and the round end of the shorter one
        var fromLonger = (_half + Hole - (_beside - Hole) * cosine) / sine;
        var led = way - fromLonger - Math.Sqrt((_half + Hole) * (_half + Hole) - (_beside - Hole) * (_beside - Hole));
        if (led < Shallow) return null;
        var to = shorter.Towards(longer, Math.Min(led / way, 0.5));
        return LiesInside(shorter.Inside(side), to.Inside(side)) ? to : null;
    }

    /// <summary>The way into a point beyond the first or the last piece of a row, from the point on; empty where there is none.</summary>
    /// <param name="near">End of the piece from which the way leads on.</param>
    /// <param name="far">Its other end.</param>
    /// <param name="above">Whether the point is looked for above the piece.</param>
    public Along[] Point(Along near, Along far, bool above)
    {
        var (middle, way) = (near.Towards(far, 0.5), above ? 1 : -1);
        // a row too short to be laid may lie between
        var strip = above ? StripOver(near) : StripOver(near) - 1;
        var tip = _corners[strip].Concat(_corners[strip + way])
            .Where(c => way * (c.Reached.V - near.V) > Shallow && LiesInside(middle, c.At.Towards(middle, Along.Slack / c.At.To(middle))))
            .MaxBy(c => way * c.At.V);
        var width = Math.Abs(far.U - near.U);
        if (tip is null || width >= Widest * _spacing) return [];
        if (Slivers.FillPoint(width, Math.Abs(tip.At.V - near.V), _spacing, _leastRoom)) return [];
        return Math.Abs(tip.Reached.V - near.V) > Deep * _spacing ? [tip.Reached, tip.Reached.Towards(far, 0.5)] : [tip.Reached];
    }

    /// <summary>Whether a way stays within the area; one that meets no border may lie outside.</summary>
    private bool LiesInside(Along from, Along to) =>
        !_border.AreMet(_frame.Back(from), _frame.Back(to)) && _border.Hold(_frame.Back(to));

    /// <summary>Number of the strip over a row, as its corners are filed.</summary>
    private int StripOver(Along onRow) => (int)Math.Round(onRow.V / _spacing);

    private IEnumerable<SharpCorner> Corners(CoordinateSequence c, bool isHole)
    {
        var places = new Along[c.Count - 1];
        for (var i = 0; i < places.Length; i++) places[i] = _frame.Turn(c.GetX(i), c.GetY(i));
        var turn = Orientation.IsCCW(c) != isHole ? 1 : -1;
        for (var i = 0; i < places.Length; i++)
        {
            var (before, at, next) = (places[(i + places.Length - 1) % places.Length], places[i], places[(i + 1) % places.Length]);
            var (back, on) = (at.To(before), at.To(next));
            var (bu, bv) = ((before.U - at.U) / back, (before.V - at.V) / back);
            var (nu, nv) = ((next.U - at.U) / on, (next.V - at.V) / on);
            // corners that fall together have no turn
            if (!(turn * (nu * bv - nv * bu) > 0)) continue;
            var half = Math.Sqrt((1 - (bu * nu + bv * nv)) / 2);
            if (half > Blunt) continue;
            // until the hole beyond the round end of the line is small enough
            var led = Math.Min(_beside / half - _half - Hole * (1 + 1 / half), OnWalls * 2 * _half / half);
            var inwards = Math.Sqrt((bu + nu) * (bu + nu) + (bv + nv) * (bv + nv));
            var share = led / inwards;
            yield return new(at, new(at.U - share * (bu + nu), at.V - share * (bv + nv)));
        }
    }
}

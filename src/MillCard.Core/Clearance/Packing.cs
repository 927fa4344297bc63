using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Reach;
using NetTopologySuite.Algorithm.Locate;
using NetTopologySuite.Geometries;
using NetTopologySuite.Operation.Overlay;
using NetTopologySuite.Operation.OverlayNG;

namespace MillCard.Core.Clearance;

/// <summary>How equal parts stand in rows so that they can be printed one at a time.</summary>
/// <param name="PitchX">From one part to the next in a row, mm; null where a row holds one part only.</param>
/// <param name="PitchY">From one row to the next, mm; null where there is one row only.</param>
/// <param name="Places">Middles of the parts in the order of printing, bed frame.</param>
public sealed record Packing(double? PitchX, double? PitchY, IReadOnlyList<Point> Places)
{
    private const double Far = 5_000;
    private const int Offsets = 8;
    private const int Most = 500;

    /// <summary>As many of a part as fit this bed one at a time, in rows.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="recipe">What is grown on the first layer; null for nothing.</param>
    /// <param name="part">The part; its own place plays no role.</param>
    /// <param name="stop">Ends the computation.</param>
    public static Packing Of(Machine machine, Recipe? recipe, StandingPart part, CancellationToken stop = default)
    {
        var free = new Fit(machine, recipe).FreePlaces(part, stop);
        if (free.IsEmpty) return new Packing(null, null, []);
        var whole = part.Footprints.Below(double.PositiveInfinity, 0, 0, part.Turn, Fit.ApronOf(recipe, machine.Card), stop);
        var blocked = Plane.Union(new PrintOrder(machine, recipe)
            .BlockedFor(part), MinkowskiSum.Of(MinkowskiSum.Negated(whole), Shapes.Hull(whole), stop));
        Packing? best = null;
        foreach (var rows in Rows.All)
        {
            stop.ThrowIfCancellationRequested();
            var packing = rows.Of(free, blocked);
            if (best is null || packing.Places.Count > best.Places.Count) best = packing;
        }
        return best!;
    }

    /// <summary>One way to stand in rows, one row after the other; within a row and from row to row always in the same sense.</summary>
    /// <param name="SenseX">Whether the next stands to the right (1) or to the left (−1).</param>
    /// <param name="SenseY">Whether the next stands behind (1) or before (−1).</param>
    /// <param name="AlongX">Whether rows run along X.</param>
    /// <param name="Wide">Whether neighbours in a row stand so far apart that either may be printed first.</param>
    private sealed record Rows(int SenseX, int SenseY, bool AlongX, bool Wide)
    {
        private static readonly int[] Senses = [1, -1];

        public static readonly Rows[] All = [.. from x in Senses
                                                from y in Senses
                                                from alongX in new[] { true, false }
                                                from wide in new[] { false, true }
                                                select new Rows(x, y, alongX, wide)];

        public Packing Of(Shape free, Shape blocked)
        {
            var room = OfAxes(free.EnvelopeInternal.Width, free.EnvelopeInternal.Height);
            var sense = OfAxes(SenseX, SenseY);
            var within = Wide ? Widest(blocked.EnvelopeInternal) : Reaches(blocked, 0, sense.Along, AlongX);
            var most = HowMany(within, room.Along);
            var between = 0.0;
            for (var k = -(most - 1); k < most; k++)
                between = Math.Max(between, Reaches(blocked, k * within, sense.Across, !AlongX));
            var rows = HowMany(between, room.Across);
            var pitch = OfAxes(most > 1 ? within : 0, rows > 1 ? between : 0);
            var count = OfAxes(most, rows);
            var places = Best(free, pitch.Along, pitch.Across, count.Along, count.Across);
            var ordered = AlongX
                ? places.OrderBy(p => Math.Round(SenseY * p.Y, 6)).ThenBy(p => SenseX * p.X)
                : places.OrderBy(p => Math.Round(SenseX * p.X, 6)).ThenBy(p => SenseY * p.Y);
            return new Packing(count.Along > 1 ? pitch.Along : null, count.Across > 1 ? pitch.Across : null, [.. ordered.Take(Most)]);
        }

        /// <summary>Of a value for X and one for Y the one along rows first; the same turns them back.</summary>
        private (T Along, T Across) OfAxes<T>(T x, T y) => AlongX ? (x, y) : (y, x);

        private double Widest(NetTopologySuite.Geometries.Envelope blocked) =>
            AlongX ? Math.Max(blocked.MaxX, -blocked.MinX) : Math.Max(blocked.MaxY, -blocked.MinY);

        private static int HowMany(double pitch, double room) =>
            pitch > room || pitch <= 0 ? 1 : (int)Math.Floor(room / pitch + 1e-9) + 1;
    }

    /// <summary>How far a blocked area reaches along a line parallel to an axis, in one sense, from the other axis, mm.</summary>
    private static double Reaches(Shape blocked, double aside, int sense, bool alongX)
    {
        var (from, to) = alongX ? (new Coordinate(0, aside), new Coordinate(sense * Far, aside))
            : (new Coordinate(aside, 0), new Coordinate(aside, sense * Far));
        var hit = OverlayNGRobust.Overlay(Plane.Factory.CreateLineString([from, to]), blocked, SpatialFunction.Intersection);
        if (hit.IsEmpty) return 0;
        var box = hit.EnvelopeInternal;
        return (alongX, sense) switch
        {
            (true, > 0) => box.MaxX,
            (true, _) => -box.MinX,
            (false, > 0) => box.MaxY,
            _ => -box.MinY,
        };
    }

    /// <summary>The grid's places in the free area, shifted so that most of them count.</summary>
    private static List<Point> Best(Shape free, double px, double py, int nx, int ny)
    {
        var inside = new IndexedPointInAreaLocator(Plane.Offset(free, Plane.Touch / 2));
        var box = free.EnvelopeInternal;
        var (slackX, slackY) = (box.Width - (nx - 1) * px, box.Height - (ny - 1) * py);
        List<Point> best = [];
        for (var shift = 0; shift < (Offsets + 1) * (Offsets + 1); shift++)
        {
            var (a, b) = Math.DivRem(shift, Offsets + 1);
            var corner = new Point(box.MinX + a * slackX / Offsets, box.MinY + b * slackY / Offsets);
            var places = Grid(corner, px, py, nx, ny)
                .Where(place => inside.Locate(new Coordinate(place.X, place.Y)) != Location.Exterior).ToList();
            if (places.Count > best.Count) best = places;
        }
        return best;
    }

    private static IEnumerable<Point> Grid(Point corner, double px, double py, int nx, int ny)
    {
        for (var i = 0; i < nx; i++)
            for (var j = 0; j < ny; j++) yield return new Point(corner.X + i * px, corner.Y + j * py);
    }
}

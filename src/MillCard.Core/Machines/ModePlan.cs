using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries.Utilities;

namespace MillCard.Core.Machines;

/// <summary>A mode of two carriages as one job runs it: where each nozzle may print, and where the second part comes to lie.</summary>
/// <remarks>The left carriage is the first. x, y are places of nozzles in the bed frame; g is their least distance, d the copy distance, m
/// the mirror axis.</remarks>
public sealed class ModePlan
{
    private readonly Machine _machine;
    private readonly int _left, _right;
    private readonly double _parkLeft, _parkRight;

    private ModePlan(Machine machine, Mode mode, ModeUse use, double widest)
    {
        var head = machine.Card.Head;
        (_machine, Mode) = (machine, mode);
        (_left, _right) = (Math.Max(0, machine.NozzleNamed(head.Carriages[0].Nozzle)),
            Math.Max(0, machine.NozzleNamed(head.Carriages[1].Nozzle)));
        (_parkLeft, _parkRight) = (head.Carriages[0].Park + machine.Frames.ZeroX, head.Carriages[1].Park + machine.Frames.ZeroX);
        LeastDistance = head.LeastDistance ?? 0;
        Gap = mode.Gap ?? machine.Clearance;
        ProposedDistance = Math.Ceiling(Math.Max(LeastDistance, widest + Gap) - Plane.Touch);
        Distance = use.Distance ?? ProposedDistance;
        MirrorAt = mode.MirrorAt ?? (machine.Bed.EnvelopeInternal.MinX + machine.Bed.EnvelopeInternal.MaxX) / 2;
        var (a, b) = (machine.Nozzles[_left].Offset ?? new(), machine.Nozzles[_right].Offset ?? new());
        Second = mode.Kind switch
        {
            ModeKind.Copy => new SecondPart(_right, Mirrored: false, Distance, b.Y - a.Y),
            ModeKind.Mirror => new SecondPart(_right, Mirrored: true, 2 * MirrorAt, b.Y - a.Y),
            _ => null,
        };
    }

    /// <summary>The mode's facts on the card.</summary>
    public Mode Mode { get; }
    /// <summary>Least distance of the two nozzles, mm.</summary>
    public double LeastDistance { get; }
    /// <summary>Least gap between a part and its copy, mm.</summary>
    public double Gap { get; }
    /// <summary>Distance of the copy, mm: the trial's, or the proposed one.</summary>
    public double Distance { get; }
    /// <summary>What lies on the bed asks for: max(g, width + gap), rounded up to whole mm.</summary>
    public double ProposedDistance { get; }
    /// <summary>Where the mirror stands, mm, bed frame.</summary>
    public double MirrorAt { get; }
    /// <summary>Where the second part comes to lie; null where only one is printed.</summary>
    public SecondPart? Second { get; }

    /// <summary>Indices of the nozzles that parts may ask for: the first, and the second too where both take turns.</summary>
    public IReadOnlyList<int> Printing => Mode.Kind == ModeKind.TwoMaterial ? [_left, _right] : [_left];

    /// <summary>The mode that a job runs in: what it says, or single on a machine with two carriages.</summary>
    public static ModeUse? InUse(Machine machine, ModeUse? said) =>
        said ?? (machine.HasTwoCarriages && machine.Card.Modes.Any(m => m.Kind == ModeKind.Single) ? new ModeUse { Kind = ModeKind.Single }
            : null);

    /// <summary>The plan of a mode.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="use">The trial's choice.</param>
    /// <param name="widest">Width along X of all that lies on the bed, mm.</param>
    /// <returns>Null where the machine has one carriage or the card has no such mode.</returns>
    public static ModePlan? Of(Machine machine, ModeUse use, double widest) =>
        machine.HasTwoCarriages && machine.Nozzles.Count >= 2 && machine.Card.Modes.FirstOrDefault(m => m.Kind == use.Kind) is { } mode
            ? new ModePlan(machine, mode, use, widest)
            : null;

    /// <summary>Where a nozzle may print, beside the bed too. In copy and mirror the first nozzle prints and takes the second
    /// along.</summary>
    /// <param name="nozzle">Index of the nozzle.</param>
    public Shape RegionOf(int nozzle)
    {
        var travel = _machine.Travel(nozzle);
        if (Second is not { } second)
            return nozzle == _right ? Plane.Intersection(travel, RightOf(_parkLeft + LeastDistance))
                : Plane.Intersection(travel, LeftOf(_parkRight - LeastDistance));
        if (nozzle != _left) return Plane.Empty;
        if (!second.Mirrored && second.X < LeastDistance - Plane.Touch) return Plane.Empty;
        var both = Plane.Intersection(travel, second.Back(_machine.Travel(_right)));
        return second.Mirrored ? Plane.Intersection(both, LeftOf(MirrorAt - LeastDistance / 2)) : both;
    }

    /// <summary>Width along X of the widest part that this mode prints at its distance, mm.</summary>
    public double Widest => Mode.Kind switch
    {
        ModeKind.Copy => Math.Max(0, Math.Min(Distance - Gap, RegionOnBed(_left).EnvelopeInternal.Width)),
        _ => RegionOnBed(_left).EnvelopeInternal.Width,
    };

    /// <summary>Width along X of the widest part that this mode prints at the distance that suits it best, mm.</summary>
    /// <remarks>Copies of width w at distance d need w ≤ d − gap, and w ≤ W − d where W is what both nozzles reach side by side: best at d
    /// = (W + gap) / 2.</remarks>
    public double BestWidth
    {
        get
        {
            if (Mode.Kind != ModeKind.Copy) return Widest;
            var (first, second) = (Plane.Intersection(_machine.Travel(_left), _machine.Bed).EnvelopeInternal,
                Plane.Intersection(_machine.Travel(_right), _machine.Bed).EnvelopeInternal);
            var room = Math.Max(0, second.MaxX - first.MinX);
            var best = Math.Max(LeastDistance, (room + Gap) / 2);
            return Math.Max(0, Math.Min(best - Gap, Math.Min(first.Width, room - best)));
        }
    }

    /// <summary>Where a nozzle may print on the bed; in copy and mirror so that the second part lies on the bed too.</summary>
    public Shape RegionOnBed(int nozzle)
    {
        var region = Plane.Intersection(RegionOf(nozzle), _machine.Bed);
        return Second is { } second ? Plane.Intersection(region, second.Back(_machine.Bed)) : region;
    }

    private static Shape LeftOf(double x) => Shapes.Rectangle(x - 20_000, -10_000, 20_000, 20_000);
    private static Shape RightOf(double x) => Shapes.Rectangle(x, -10_000, 20_000, 20_000);
}

/// <summary>Where the second part of a copy or mirror mode comes to lie.</summary>
/// <param name="Nozzle">Index of the nozzle that prints it.</param>
/// <param name="Mirrored">Whether it is the mirror image.</param>
/// <param name="X">Its x is X + x, or X − x where mirrored, mm.</param>
/// <param name="Y">Its y is Y + y, mm.</param>
public sealed record SecondPart(int Nozzle, bool Mirrored, double X, double Y)
{
    /// <summary>From the first part to the second.</summary>
    public Shape Of(Shape first) => new AffineTransformation(Mirrored ? -1 : 1, 0, X, 0, 1, Y).Transform(first);

    /// <summary>From the second part back to the first.</summary>
    public Shape Back(Shape second) => new AffineTransformation(Mirrored ? -1 : 1, 0, Mirrored ? X : -X, 0, 1, -Y).Transform(second);

    /// <summary>From a place of the first part to that of the second.</summary>
    public Point Of(Point first) => new(Mirrored ? X - first.X : X + first.X, Y + first.Y);
}

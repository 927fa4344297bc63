using MillCard.Core.Geometry;
using MillCard.Core.Machines;

namespace MillCard.Core.Reach;

/// <summary>A part's projections in the bed frame, each made when first asked for; or those of its copy.</summary>
internal sealed class PlacedPart
{
    private readonly Dictionary<double, Shape> _below = [];
    private readonly Surroundings _around;
    private readonly SecondPart? _as;
    private readonly IReadOnlyList<int> _nozzles;
    private readonly ModePlan? _plan;
    private Shape? _whole, _plain, _reach;
    private IReadOnlyList<Forbidden>? _forbidden;

    /// <param name="part">The part.</param>
    /// <param name="around">What is round it.</param>
    /// <param name="plan">Of a mode of two carriages; null where there is none.</param>
    /// <param name="stop">Ends the making of projections.</param>
    /// <param name="second">What makes it the copy; null for the part itself.</param>
    public PlacedPart(StandingPart part, Surroundings around, ModePlan? plan, CancellationToken stop, SecondPart? second = null)
    {
        (Part, _around, _plan, _as, Stop) = (part, around, plan, second, stop);
        _nozzles = second is null ? around.Machine.NozzlesOf(part.Nozzles ?? []) : [second.Nozzle];
        At = second?.Of(new Point(part.X, part.Y)) ?? new Point(part.X, part.Y);
        Label = second is null ? part.Name : $"the copy of {part.Name}";
        if (second is null && plan?.Second is { } other) Second = new PlacedPart(part, around, plan, stop, other);
    }

    public StandingPart Part { get; }
    /// <summary>Ends what is computed of it.</summary>
    public CancellationToken Stop { get; }
    /// <summary>The copy; null where there is none.</summary>
    public PlacedPart? Second { get; }
    public string Label { get; }
    public Point At { get; }
    public bool IsSecond => _as is not null;
    public bool Mirrored => _as is { Mirrored: true };

    /// <summary>Where all its nozzles can print.</summary>
    public Shape Reach => _reach ??= _nozzles.Select(i => IsSecond || _plan is null ? _around.Machine.Travel(i) : _plan.RegionOf(i))
        .Aggregate(Plane.Intersection);

    /// <summary>What it must stay out of.</summary>
    public IReadOnlyList<Forbidden> Forbidden => _forbidden ??= [.. _nozzles.SelectMany(_around.ForbiddenTo)];

    /// <summary>The part itself, seen from above.</summary>
    public Shape Whole => _whole ??= Seen(Part.Footprints.Below(double.PositiveInfinity, Part.X, Part.Y, Part.Turn, stop: Stop));

    /// <summary>The part itself with its own place at (0, 0), outlines of very many corners made plain to the safe side.</summary>
    public Shape Plain => _plain ??= Plane.PlainOutside(Plane.Moved(Whole, -At.X, -At.Y));

    /// <summary>All that is printed of it, seen from above: the part and what is grown on its first layer.</summary>
    public Shape Widest => Below(double.PositiveInfinity);

    /// <summary>What is printed of it below a height.</summary>
    public Shape Below(double height)
    {
        if (!_below.TryGetValue(height, out var shape))
            _below[height] = shape = Seen(Part.Footprints.Below(height, Part.X, Part.Y, Part.Turn, _around.Apron, Stop));
        return shape;
    }

    public string NozzleNames(Machine machine)
    {
        var names = (machine.Nozzles.Count, _nozzles) switch
        {
            ( < 2, _) => "the nozzle reaches",
            (_, [var one]) => $"nozzle {machine.Nozzles[one].Id} reaches",
            _ => $"nozzles {string.Join(" and ", _nozzles.Select(i => machine.Nozzles[i].Id))} all reach",
        };
        return _plan is null || IsSecond ? $"what {names}" : $"what {names} in this mode";
    }

    private Shape Seen(Shape shape) => _as is null ? shape : _as.Of(shape);
}

using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Reach;

/// <summary>A complete card with what follows at once from it: polygons, frames, limits. All in the bed frame, mm.</summary>
public sealed class Machine
{
    private const double DefaultClearance = 1;

    private Machine(Card card)
    {
        Card = card;
        var envelope = card.Envelope;
        Frames = Frames.Of(envelope.Origin!);
        Bed = Shapes.Of(envelope.Bed!);
        Height = Math.Min(envelope.Height!.Value, envelope.Use?.Height ?? double.PositiveInfinity);
        Usable = UsableOf(Bed, envelope.Use);
        Travel = TravelOf(card, Bed, Frames);
        Clearance = card.Head.Clearance ?? DefaultClearance;
        KeepOuts = [.. envelope.KeepOuts.Select(Region.Of)];
        Bodies = [.. card.Head.Bodies.Select(b => new SolidBody(b, Shapes.Of(b.Outline, Side.Outside)))];
    }

    /// <summary>The document.</summary>
    public Card Card { get; }
    /// <summary>Bed frame ↔ machine frame.</summary>
    public Frames Frames { get; }
    /// <summary>The bed's outline.</summary>
    public Polygon Bed { get; }
    /// <summary>Highest part, mm: the lower of the machine's height and the limit of use.</summary>
    public double Height { get; }
    /// <summary>The bed within its margins.</summary>
    public Shape Usable { get; }
    /// <summary>Where the first nozzle can go.</summary>
    public Shape Travel { get; }
    /// <summary>Room kept between head and anything that stands, mm.</summary>
    public double Clearance { get; }
    /// <summary>The keep-outs with their polygons.</summary>
    public IReadOnlyList<Region> KeepOuts { get; }
    /// <summary>The head's bodies with their polygons, head frame.</summary>
    public IReadOnlyList<SolidBody> Bodies { get; }
    /// <summary>The first nozzle.</summary>
    public Nozzle Nozzle => Card.Head.Nozzles![0];
    /// <summary>The firmware's dialect.</summary>
    public FlavourId Flavour => Card.Firmware.Flavour!.Value;

    /// <summary>Resolves a complete card.</summary>
    /// <exception cref="InvalidDataException">An outline crosses itself; the message names it.</exception>
    public static Machine Of(Card card) => new(card);

    /// <summary>Resolves a draft as far as the plan goes: what is missing of origin and height plays no part there.</summary>
    /// <returns>Null where the bed is not there yet.</returns>
    /// <exception cref="InvalidDataException">An outline crosses itself; the message names it.</exception>
    public static Machine? OfDraft(Card card) => card.Envelope.Bed switch
    {
        null or RectangleBed { Width: null } or RectangleBed { Depth: null } or EllipseBed { Width: null } or EllipseBed { Depth: null } => null,
        _ => new(card with { Envelope = card.Envelope with { Origin = card.Envelope.Origin ?? new Documents.Position { X = 0, Y = 0 }, Height = card.Envelope.Height ?? double.PositiveInfinity } }),
    };

    private static Shape UsableOf(Polygon bed, UseLimits? use)
    {
        var within = Plane.Offset(bed, -(use?.Margin ?? 0));
        if (use?.Edges is not { } edges) return within;
        var box = bed.EnvelopeInternal;
        var (left, front) = (box.MinX + (edges.Left ?? 0), box.MinY + (edges.Front ?? 0));
        var (right, back) = (box.MaxX - (edges.Right ?? 0), box.MaxY - (edges.Back ?? 0));
        return right > left && back > front ? Plane.Intersection(within, Shapes.Rectangle(left, front, right - left, back - front)) : Plane.Empty;
    }

    private static Shape TravelOf(Card card, Polygon bed, Frames frames)
    {
        var (x, y) = (card.Motion.Axes.X, card.Motion.Axes.Y);
        var box = bed.EnvelopeInternal;
        if (card.Motion.Layout == MotionLayout.Delta)
        {
            var radius = x?.Max ?? Math.Max(box.Width, box.Height) / 2;
            return Shapes.Ellipse(frames.ZeroX, frames.ZeroY, radius, radius, Side.Outside);
        }
        var minX = x?.Min + frames.ZeroX ?? box.MinX;
        var maxX = x?.Max + frames.ZeroX ?? box.MaxX;
        var minY = y?.Min + frames.ZeroY ?? box.MinY;
        var maxY = y?.Max + frames.ZeroY ?? box.MaxY;
        return Shapes.Rectangle(minX, minY, Math.Max(0, maxX - minX), Math.Max(0, maxY - minY));
    }
}

/// <summary>A keep-out with its polygon, the tolerance grown on.</summary>
public sealed record Region(KeepOut KeepOut, Polygon Outline)
{
    /// <summary>Of a keep-out.</summary>
    /// <exception cref="InvalidDataException">Its outline crosses itself.</exception>
    public static Region Of(KeepOut keepOut) =>
        new(keepOut, (Polygon)Plane.GrowOutside(Shapes.Of(keepOut.Outline, Side.Outside), keepOut.Tolerance ?? 0));
}

/// <summary>A body of the head with its polygon, head frame.</summary>
public sealed record SolidBody(Body Body, Polygon Outline);

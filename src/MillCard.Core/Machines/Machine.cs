using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Machines;

/// <summary>A complete card with what follows at once from it: polygons, frames, limits. All in the bed frame, mm.</summary>
public sealed class Machine
{
    private const double DefaultClearance = 1;
    private readonly IReadOnlyList<HeadSolid>[] _heads;
    private readonly Documents.Envelope _own;
    private readonly TrialLimits? _limits;

    private Machine(Card card, Card own, TrialLimits? limits)
    {
        (Card, _own, _limits) = (card, own.Envelope, limits);
        var envelope = card.Envelope;
        Frames = Frames.Of(envelope.Origin!);
        Bed = OutlineException.Naming("/envelope/bed", "The bed", () => Shapes.Of(envelope.Bed!));
        Height = Math.Min(envelope.Height!.Value, envelope.Use?.Height ?? double.PositiveInfinity);
        Usable = UsableOf(Bed, envelope.Use);
        Clearance = card.Head.Clearance ?? DefaultClearance;
        KeepOuts = [.. envelope.KeepOuts.Select((k, i) =>
            OutlineException.Naming(JsonPointer.KeepOut(i) / "outline", k.Name, () => Region.Of(k)))];
        Nozzles = card.Head.Nozzles ?? [];
        _heads = [.. Enumerable.Range(0, Math.Max(1, Nozzles.Count)).Select(i => HeadSolid.Of(card.Head, i))];
    }

    /// <summary>The document.</summary>
    public Card Card { get; }
    /// <summary>Whether a trial's limit, not the card, says how high parts may be.</summary>
    public bool HeightIsTrials => _limits?.Height is { } height && height <= Height
        && height < Math.Min(_own.Height ?? double.PositiveInfinity,
        _own.Use?.Height ?? double.PositiveInfinity);
    /// <summary>A trial's margin where it is wider than the card's, mm; null otherwise.</summary>
    public double? TrialsMargin => _limits?.Margin is { } margin && margin > (_own.Use?.Margin ?? 0) ? margin : null;
    /// <summary>Whether a keep-out is a trial's own.</summary>
    public bool IsTrials(KeepOut keepOut) => _limits?.KeepOuts.Any(k => ReferenceEquals(k, keepOut)) == true;
    /// <summary>Bed frame ↔ machine frame.</summary>
    public Frames Frames { get; }
    /// <summary>The bed's outline.</summary>
    public Polygon Bed { get; }
    /// <summary>Highest part, mm: the lower of the machine's height and the limit of use.</summary>
    public double Height { get; }
    /// <summary>The bed within its margins.</summary>
    public Shape Usable { get; }
    /// <summary>Room kept between head and anything that stands, mm.</summary>
    public double Clearance { get; }
    /// <summary>The keep-outs with their polygons.</summary>
    public IReadOnlyList<Region> KeepOuts { get; }
    /// <summary>The nozzles; none on a draft that does not say.</summary>
    public IReadOnlyList<Nozzle> Nozzles { get; }
    /// <summary>The first nozzle.</summary>
    public Nozzle Nozzle => Nozzles[0];
    /// <summary>Whether two carriages share the beam.</summary>
    public bool HasTwoCarriages => Card.Head.Carriages.Count == 2 && Nozzles.Count >= 2;
    /// <summary>The firmware's dialect.</summary>
    public FlavourId Flavour => Card.Firmware.Flavour!.Value;

    /// <summary>Resolves a complete card.</summary>
    /// <exception cref="OutlineException">An outline crosses itself; the message names it.</exception>
    public static Machine Of(Card card) => new(card, card, null);

    /// <summary>Resolves a complete card as a trial with tighter limits may use it.</summary>
    /// <exception cref="OutlineException">An outline crosses itself; the message names it.</exception>
    public static Machine Of(Card card, TrialLimits? limits) => new(card.Tightened(limits), card, limits);

    /// <summary>Resolves a draft as far as the plan goes: what is missing of origin and height plays no part there.</summary>
    /// <returns>Null where the bed is not there yet.</returns>
    /// <exception cref="OutlineException">An outline crosses itself; the message names it.</exception>
    public static Machine? OfDraft(Card card) => card.Envelope.Bed switch
    {
        null or RectangleBed { Width: null } or RectangleBed { Depth: null } or EllipseBed { Width: null } or EllipseBed { Depth: null } =>
            null,
        _ => Of(card with
        {
            Envelope = card.Envelope with
            {
                Origin = card.Envelope.Origin ?? new Documents.Position { X = 0, Y = 0 },
                Height = card.Envelope.Height ?? double.PositiveInfinity,
            },
        }),
    };

    /// <summary>What can hit a standing thing while a nozzle prints.</summary>
    /// <param name="nozzle">Index of the nozzle.</param>
    public IReadOnlyList<HeadSolid> HeadOf(int nozzle) => _heads[nozzle];

    /// <summary>The fan that the firmware knows by a number; null where the card does not say. A part fan without a number is fan
    /// 0.</summary>
    public Fan? FanOf(int number) =>
        Card.Head.Fans.FirstOrDefault(f => f.Number == number)
            ?? (number == 0 ? Card.Head.Fans.FirstOrDefault(f => f is { Number: null, Kind: FanKind.Part }) : null);

    /// <summary>Index of the nozzle with an id; −1 where there is none.</summary>
    public int NozzleNamed(string id)
    {
        for (var i = 0; i < Nozzles.Count; i++) if (Nozzles[i].Id == id) return i;
        return -1;
    }

    /// <summary>Indices of the nozzles that a part names; the first where it names none.</summary>
    public IReadOnlyList<int> NozzlesOf(IReadOnlyList<string> ids) => ids.Count == 0 ? [0]
        : [.. ids.Select(NozzleNamed).Where(i => i >= 0).Distinct()];

    private static Shape UsableOf(Polygon bed, UseLimits? use)
    {
        var within = Plane.Offset(bed, -(use?.Margin ?? 0));
        if (use?.Edges is not { } edges) return within;
        var box = bed.EnvelopeInternal;
        var (left, front) = (box.MinX + (edges.Left ?? 0), box.MinY + (edges.Front ?? 0));
        var (right, back) = (box.MaxX - (edges.Right ?? 0), box.MaxY - (edges.Back ?? 0));
        return right > left && back > front ? Plane.Intersection(within, Shapes.Rectangle(left, front, right - left, back - front))
            : Plane.Empty;
    }
}

/// <summary>A keep-out with its polygon, the tolerance grown on.</summary>
public sealed record Region(KeepOut KeepOut, Polygon Outline)
{
    /// <summary>Of a keep-out.</summary>
    /// <exception cref="OutlineException">Its outline crosses itself.</exception>
    public static Region Of(KeepOut keepOut) =>
        new(keepOut, (Polygon)Plane.GrowOutside(Shapes.Of(keepOut.Outline, Side.Outside), keepOut.Tolerance ?? 0));
}

using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Heat;
using MillCard.Core.Wording;

namespace MillCard.Core.Matching;

/// <summary>Whether a card can print a filament: by temperatures, diameter, wear, feed and housing.</summary>
public static class FilamentMatch
{
    /// <summary>Filled filament wants a bore of at least this, mm; common practice, no source.</summary>
    private const double FilledBore = 0.4;

    /// <summary>A cold bed still holds what asks for no more than this, °C; common practice, no source.</summary>
    private const double ColdBed = 45;

    /// <summary>With the nozzle of the card that suits it best.</summary>
    public static Match Of(Card card, Filament filament) =>
        Match.Best((card.Head.Nozzles ?? []).Select((n, i) => Of(card, i, filament))
        .DefaultIfEmpty(Match.Of([new Reason("nozzles-unsaid", Verdict.FitsWithCautions,
            "This card does not say which nozzle it has.", "/nozzle",
        "/head/nozzles")])));

    /// <summary>With one nozzle of the card.</summary>
    /// <param name="card">Any card; what it does not say is a caution.</param>
    /// <param name="index">Index of the nozzle.</param>
    /// <param name="filament">Any filament.</param>
    public static Match Of(Card card, int index, Filament filament)
    {
        var (nozzle, at) = (card.Head.Nozzles![index], JsonPointer.Nozzle(index));
        return Match.Of([.. Diameter(nozzle, at, filament), .. HotEnd(nozzle, at, filament), .. Bed(card, filament),
            .. Wear(nozzle, at, filament), .. Surroundings(card, filament), .. FeedOf(nozzle, at, filament),
            .. NeedsMatch.Of(card, index, filament.Needs)]);
    }

    private static IEnumerable<Reason> Diameter(Nozzle nozzle, JsonPointer at, Filament filament)
    {
        if (filament.Diameter is not { } asks) yield break;
        if (nozzle.FilamentDiameter is not { } has) yield return new("fed-diameter-unsaid", Verdict.FitsWithCautions,
            $"It is {asks:0.###} mm thick; the card does not say what this machine is fed.", "/diameter", at / "filamentDiameter");
        else if (FedDiameter.Differs(has, asks))
        {
            var share = 100 * FedDiameter.Share(has, asks);
            yield return new("fed-diameter", Verdict.DoesNotFit,
                $"It is {asks:0.###} mm thick; this machine is fed {has:0.###} mm. {share:0} % of the plastic would come out.",
                "/diameter", at / "filamentDiameter");
        }
    }

    private static IEnumerable<Reason> HotEnd(Nozzle nozzle, JsonPointer at, Filament filament)
    {
        if (new[] { filament.Nozzle.First, filament.Nozzle.Others }.Max() is { } asks)
        {
            if (nozzle.MaxTemperature is not { } most)
                yield return new("rating-unsaid", Verdict.FitsWithCautions,
                    $"It asks for {asks:0} °C at the nozzle; the hot end's rating is not known.",
                "/nozzle/first", at / "maxTemperature");
            else if (asks > most) yield return new("above-rating", Verdict.DoesNotFit,
                $"It asks for {asks:0} °C at the nozzle; this hot end is rated for {most:0} °C.", "/nozzle/first", at / "maxTemperature");
        }
        if (filament.MaxFlow is { } flow && nozzle.MaxFlow is { } melts && melts < 0.3 * flow)
            yield return new("melts-less", Verdict.FitsWithCautions,
            $"It could be melted at {flow:0.###} mm³/s; this hot end does {melts:0.###}: it prints, slowly.", "/maxFlow", at / "maxFlow");
    }

    private static IEnumerable<Reason> Bed(Card card, Filament filament)
    {
        var asks = Math.Max(filament.Bed.First, filament.Bed.Others);
        if (asks <= 0) yield break;
        if (card.Envelope.Heated is null) yield return new("bed-heater-unsaid", Verdict.FitsWithCautions,
            $"It asks for a bed of {asks:0} °C; the card does not say whether there is a heater.", "/bed/first", "/envelope/heated");
        else if (card.Envelope.Heated == false)
            yield return new("bed-unheated", asks > ColdBed ? Verdict.DoesNotFit
                : Verdict.FitsWithCautions, $"It asks for a bed of {asks:0} °C; this bed is not heated.", "/bed/first", "/envelope/heated");
        else if (card.Heat.Bed?.Max is { } most && asks > most)
            yield return new("above-bed-limit", Verdict.DoesNotFit,
                $"It asks for a bed of {asks:0} °C; this one may not go above {most:0} °C.", "/bed/first",
            "/heat/bed/max");
        else if (Heaters.Bed(card) is { } model && !model.Reaches(asks))
            yield return new("bed-never-warm", Verdict.DoesNotFit,
                $"This bed ends at {model.Reachable:0} °C; the filament asks for {asks:0} °C. The print would never start.", "/bed/first",
                "/heat/bed");
    }

    private static IEnumerable<Reason> Wear(Nozzle nozzle, JsonPointer at, Filament filament)
    {
        if (filament.Abrasive != true) yield break;
        var wear = nozzle.WearKnown();
        if (wear is null) yield return new("wear-unsaid", Verdict.FitsWithCautions,
            "It wears brass; the card does not say what the nozzle is made of.",
            "/abrasive", at / "material");
        else if (wear == WearRating.Low) yield return new("wears-nozzle", Verdict.DoesNotFit,
            "It wears brass, and this nozzle is as soft: it wants a hardened one.", "/abrasive", at / "material");
        else if (wear == WearRating.Middling)
            yield return new("wears-nozzle", Verdict.FitsWithCautions,
                "It wears brass; this nozzle stands a spool now and then.", "/abrasive",
            at / "wear");
        if (nozzle.Diameter < FilledBore) yield return new("filled-in-fine-bore", Verdict.FitsWithCautions,
            $"It is filled; a bore of {nozzle.Diameter:0.###} mm clogs easily, {FilledBore:0.###} mm and more do not.", "/abrasive",
            at / "diameter");
    }

    private static IEnumerable<Reason> Surroundings(Card card, Filament filament)
    {
        if (filament.WarmChamber != true || card.Heat.Housing is Housing.Closed or Housing.HeatedChamber) yield break;
        yield return new("chamber-wanted", Verdict.FitsWithCautions, card.Heat.Housing is null
            ? "It wants a warm chamber; the card does not say what is around the build volume."
            : "It wants a warm chamber; this machine is open: tall parts warp and split.", "/warmChamber", "/heat/housing");
    }

    private static IEnumerable<Reason> FeedOf(Nozzle nozzle, JsonPointer at, Filament filament)
    {
        if (filament.Material?.Contains("TPU", StringComparison.OrdinalIgnoreCase) == true && nozzle.Feed?.Kind == FeedKind.LongTube)
            yield return new("soft-in-long-tube", Verdict.FitsWithCautions,
                "It is soft; a long tube lets it buckle. Print slowly, with little or no retraction.", "/material", at / "feed");
        if (filament.Retraction?.Length is { } length && nozzle.Feed?.Kind is { } kind && Unusual(length, kind) is { } why)
            yield return new("retraction-for-feed", Verdict.FitsWithCautions, why, "/retraction/length", at / "feed");
    }

    private const double DirectMost = 2;
    private const double TubeUsualFrom = 4;
    private const double TubeUsualTo = 7;

    /// <summary>What is unusual about a retraction on a feed; null where nothing is. The bounds are common practice, no source.</summary>
    internal static Sentence? Unusual(double length, FeedKind kind) => kind switch
    {
        FeedKind.Direct when length > DirectMost =>
            Sentence.Of($"It pulls back {length:0.###} mm; on a direct feed up to {DirectMost} mm do, more can clog."),
        FeedKind.LongTube when length is > 0 and < 2 or > 9 =>
            Sentence.Of($"It pulls back {length:0.###} mm; through a long tube {TubeUsualFrom} to {TubeUsualTo} mm are usual."),
        _ => null,
    };
}

using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Wording;

namespace MillCard.Core.Matching;

/// <summary>What a document says outright that it needs.</summary>
internal static class NeedsMatch
{
    public static IEnumerable<Reason> Of(Card card, int index, Needs needs) =>
        [.. Nozzle(card, index, needs), .. Feed(card, index, needs), .. Chamber(card, needs), .. Room(card, index, needs)];

    private static IEnumerable<Reason> Nozzle(Card card, int index, Needs needs)
    {
        var (nozzle, at) = (card.Head.Nozzles![index], JsonPointer.Nozzle(index));
        if (nozzle.Diameter is { } bore && (needs.NozzleFrom > bore + 1e-9 || needs.NozzleTo < bore - 1e-9))
            yield return new("needs-bore", Verdict.DoesNotFit, $"It needs a nozzle "
                + $"{Bore(needs.NozzleFrom, needs.NozzleTo)}; this one is {bore:0.###} mm.", "/needs/nozzleFrom", at / "diameter");
        if (needs.Wear is { } wear && nozzle.WearKnown() is var has && (has is null || has < wear))
            yield return new("needs-wear", has is null ? Verdict.FitsWithCautions : Verdict.DoesNotFit, has is null
                ? "It needs a harder nozzle than brass; the card does not say what this one is made of."
                : "It needs a nozzle that stands more wear than this one.", "/needs/wear", at / "material");
    }

    private static IEnumerable<Reason> Feed(Card card, int index, Needs needs)
    {
        var (nozzle, at) = (card.Head.Nozzles![index], JsonPointer.Nozzle(index));
        if (needs.Feed is { } feed && nozzle.Feed?.Kind is { } kind && kind != feed)
            yield return new("needs-feed", Verdict.DoesNotFit,
                feed == FeedKind.Direct ? "It needs a direct feed; this one pushes through a long tube."
                : "It needs a feed through a long tube; this one is direct.", "/needs/feed", at / "feed");
        if (needs.Flow is { } flow && nozzle.MaxFlow is { } melts && melts < flow)
            yield return new("needs-flow", Verdict.DoesNotFit,
                $"It needs {flow:0.###} mm³/s; this hot end melts {melts:0.###}.", "/needs/flow",
                at / "maxFlow");
    }

    private static IEnumerable<Reason> Chamber(Card card, Needs needs)
    {
        if (needs.Chamber is { } chamber && !(card.Heat.Housing == Housing.HeatedChamber && (card.Heat.Chamber?.Max ?? 0) >= chamber))
            yield return new("needs-chamber", Verdict.DoesNotFit,
                $"It needs a chamber of {chamber:0} °C; {Heats(card)}.", "/needs/chamber",
                "/heat/housing");
    }

    private static Sentence Bore(double? from, double? to) => (from, to) switch
    {
        ({ } least, { } most) => Sentence.Of($"of {least:0.###} to {most:0.###} mm"),
        ({ } least, null) => Sentence.Of($"of at least {least:0.###} mm"),
        _ => Sentence.Of($"of at most {to:0.###} mm"),
    };

    private static Sentence Heats(Card card)
    {
        var allowed = card.Heat.Chamber?.Max ?? 0;
        return card.Heat.Housing == Housing.HeatedChamber
            ? Sentence.Of($"this one is allowed {allowed:0} °C")
            : Sentence.Of($"this machine heats none");
    }

    private static IEnumerable<Reason> Room(Card card, int index, Needs needs)
    {
        if ((needs.Width ?? needs.Depth ?? needs.Height) is null || Machine.OfDraft(card) is not { } machine) yield break;
        var box = Plane.Intersection(machine.Usable, machine.Travel(index)).EnvelopeInternal;
        foreach (var (asks, has, what, pointer) in new[] { (needs.Width, box.Width, "wide", "/needs/width"),
            (needs.Depth, box.Height, "deep", "/needs/depth"), (needs.Height, machine.Height, "high", "/needs/height") })
            if (asks > has + Plane.Touch) yield return new("needs-room", Verdict.DoesNotFit,
                $"It needs room {asks:0.###} mm {what}; this machine has {has:0.###}.", pointer, what == "high" ? "/envelope/height"
                : "/envelope/bed");
    }
}

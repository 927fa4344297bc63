using MillCard.Core.Documents;
using MillCard.Core.Flavours;

namespace MillCard.StandIn;

/// <summary>What a firmware would say of its settings, from the facts of a card.</summary>
internal static class SettingsWords
{
    public static IEnumerable<string> Of(Card card)
    {
        var perMinute = card.Firmware.Flavour is { } id && Flavour.Of(id).SpeedLimitUnit == "mm/min" ? 60 : 1;
        yield return Line("M92", card, axis => axis.StepsPerMm);
        yield return Line("M203", card, axis => axis.MaxSpeed * perMinute);
        yield return Line("M201", card, axis => axis.MaxAcceleration);
        if (card.Motion.Corner is { Kind: CornerKind.JunctionDeviation } corner)
            yield return Invariant($"echo: M205 J{corner.Value:0.####}");
        if (card.Head.Probe is { Z: { } z } probe)
            yield return Invariant($"echo: M851 X{probe.X ?? 0:0.##} Y{probe.Y ?? 0:0.##} Z{z:0.###}");
    }

    private static string Line(string command, Card card, Func<Axis, double?> of)
    {
        var words = new[] { ("X", card.Motion.Axes.X), ("Y", card.Motion.Axes.Y), ("Z", card.Motion.Axes.Z), ("E", card.Motion.Axes.E) }
            .Where(a => a.Item2 is not null && of(a.Item2) is not null)
                .Select(a => Invariant($"{a.Item1}{of(a.Item2!):0.##}"));
        return $"echo: {command} {string.Join(' ', words)}".TrimEnd();
    }
}

using MillCard.Core.Documents;

namespace MillCard.Core.Heat;

/// <summary>Heat models of a card's heaters. What the card does not say is typical: common practice, no source.</summary>
public static class Heaters
{
    private const double TypicalRoom = 20;
    private const double TypicalBedEnd = 120;
    private const double TypicalBedTime = 300;
    private const double TypicalChamberEnd = 70;
    private const double TypicalChamberTime = 1200;
    private const double TypicalNozzleEnd = 360;
    private const double TypicalNozzleTime = 100;

    /// <summary>The bed's heater; null where the bed is not heated.</summary>
    public static HeatModel? Bed(Card card) => card.Envelope.Heated == false
        ? null
        : Of(card, card.Heat.Bed, Math.Max(TypicalBedEnd, card.Heat.Bed?.Max + 10 ?? 0), TypicalBedTime);

    /// <summary>The housing's heater; null where the housing has none.</summary>
    public static HeatModel? Chamber(Card card) => card.Heat.Housing == Housing.HeatedChamber
        ? Of(card, card.Heat.Chamber, Math.Max(TypicalChamberEnd, card.Heat.Chamber?.Max + 10 ?? 0), TypicalChamberTime)
        : null;

    /// <summary>A nozzle's heater.</summary>
    public static HeatModel Nozzle(Card card, Nozzle? nozzle) =>
        Of(card, nozzle?.Heater, Math.Max(TypicalNozzleEnd, nozzle?.MaxTemperature + 60 ?? 0), TypicalNozzleTime);

    /// <summary>What a heater's log says; null where there is none that can be fitted.</summary>
    public static HeatFit? FitOf(HeaterFacts? facts) =>
        facts is null ? null : HeatFit.Of([.. facts.Log.Where(p => p.Count == 2).Select(p => (p[0], p[1])).OrderBy(p => p.Item1)]);

    /// <summary>From the log where it tells, else from the best temperature ever reached, else typical.</summary>
    private static HeatModel Of(Card card, HeaterFacts? facts, double typicalEnd, double typicalTime)
    {
        var fit = FitOf(facts);
        var room = fit?.Model.Room ?? Room(card);
        if (fit is { Tells: true }) return fit.Model;
        // warmer rooms make warmer beds: what counts is how far it came above the room
        var end = facts?.Best is { } best ? best - (facts.BestAtRoom ?? room) + room : typicalEnd;
        return new HeatModel(room, end, fit is { Covers: >= 1 } ? fit.Model.TimeConstant : typicalTime);
    }

    private static double Room(Card card) => card.Heat.Room ?? TypicalRoom;
}

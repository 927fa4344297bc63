using MillCard.Core.Documents;

namespace MillCard.Core.Heat;

/// <summary>Heat models of a card's heaters. What the card does not say is typical: common practice, no source.</summary>
public static class Heaters
{
    private const double TypicalRoom = 20;
    private const double TypicalBedEnd = 120;
    private const double TypicalBedTime = 300;
    private const double TypicalNozzleEnd = 360;
    private const double TypicalNozzleTime = 100;

    /// <summary>The bed's heater; null where the bed is not heated.</summary>
    public static HeatModel? Bed(Card card) => card.Envelope.Heated == false
        ? null
        : new HeatModel(Room(card), card.Heat.Bed?.Best ?? Math.Max(TypicalBedEnd, card.Heat.Bed?.Max + 10 ?? 0), TypicalBedTime);

    /// <summary>A nozzle's heater.</summary>
    public static HeatModel Nozzle(Card card, Nozzle? nozzle) =>
        new(Room(card), Math.Max(TypicalNozzleEnd, nozzle?.MaxTemperature + 60 ?? 0), TypicalNozzleTime);

    private static double Room(Card card) => card.Heat.Room ?? TypicalRoom;
}

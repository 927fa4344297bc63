using MillCard.Core.Documents;
using MillCard.Core.Motion;

namespace MillCard.Core.Flow;

/// <summary>What sets the fastest speed of a line.</summary>
public enum CeilingBy
{
    /// <summary>The slower of the axes X and Y.</summary>
    Axis,
    /// <summary>The speed of the filament drive.</summary>
    FilamentDrive,
    /// <summary>What the hot end melts.</summary>
    HotEnd,
    /// <summary>What can be melted of the filament.</summary>
    Filament,
    /// <summary>Steps a second of the board.</summary>
    StepRate,
}

/// <summary>The fastest speed of a line, and what sets it.</summary>
/// <param name="Speed">mm/s; infinite where nothing is known.</param>
/// <param name="By">What sets it.</param>
public sealed record SpeedCeiling(double Speed, CeilingBy By)
{
    /// <summary>Of a line.</summary>
    /// <param name="card">The machine.</param>
    /// <param name="nozzle">The nozzle that lays it.</param>
    /// <param name="filament">The filament; null for none in particular.</param>
    /// <param name="width">mm.</param>
    /// <param name="height">mm.</param>
    public static SpeedCeiling Of(Card card, Nozzle nozzle, Filament? filament, double width, double height) =>
        All(card, nozzle, filament, width, height).MinBy(c => c.Speed)!;

    /// <summary>Every ceiling that is known, one a cause.</summary>
    public static IReadOnlyList<SpeedCeiling> All(Card card, Nozzle nozzle, Filament? filament, double width, double height)
    {
        var flow = filament?.Flow ?? 1;
        var axes = card.Motion.Axes;
        var ceilings = new List<SpeedCeiling> { new(
            Math.Min(axes.X?.MaxSpeed ?? double.PositiveInfinity, axes.Y?.MaxSpeed ?? double.PositiveInfinity), CeilingBy.Axis) };
        if ((filament?.Diameter ?? nozzle.FilamentDiameter) is { } diameter && axes.E?.MaxSpeed is { } drive)
            ceilings.Add(new(drive / ExtrudedLine.FeedPerMm(width, height, diameter, flow), CeilingBy.FilamentDrive));
        if (nozzle.MaxFlow is { } melts) ceilings.Add(new(ExtrudedLine.FastestSpeed(melts, width, height, flow), CeilingBy.HotEnd));
        if (filament?.MaxFlow is { } own) ceilings.Add(new(ExtrudedLine.FastestSpeed(own, width, height, flow), CeilingBy.Filament));
        if (card.Motion.StepRate is { } rate && Math.Max(axes.X?.StepsPerMm ?? 0, axes.Y?.StepsPerMm ?? 0) is var steps and > 0)
            ceilings.Add(new(rate / (steps * Drives.WorstMotor(card)), CeilingBy.StepRate));
        return ceilings;
    }
}

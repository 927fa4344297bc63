using MillCard.Core.Documents;

namespace MillCard.Core.Motion;

/// <summary>One reading of a screw whose starts were not said.</summary>
/// <param name="Pitch">Pitch of the thread, mm.</param>
/// <param name="Starts">Starts of the thread.</param>
/// <param name="Lead">Way of one turn, mm.</param>
/// <param name="FullStep">Way of one full step, mm; null where the step angle is not known.</param>
/// <param name="StepsPerMm">Null where step angle or microsteps are not known.</param>
/// <param name="Words">Such as "four starts".</param>
public sealed record ScrewReading(double Pitch, int Starts, double Lead, double? FullStep, double? StepsPerMm, string Words);

/// <summary>How a screw is usually meant where its starts were not said. ISO 2902 writes lead and pitch of a trapezoidal thread with
/// several
/// starts one behind the other, as in Tr8×8(P2); owners often know one of the two.</summary>
public static class ScrewStarts
{
    /// <summary>A pitch above this on the thin screws of printers is the lead of a thread with several starts, mm; common practice, no
    /// source.</summary>
    private const double CoarsestPitch = 3;

    /// <summary>The two usual readings: one start, or four; none where the pitch is not known.</summary>
    public static IReadOnlyList<ScrewReading> Usual(ScrewDrive screw) => screw.Pitch switch
    {
        null => [],
        > CoarsestPitch and var lead => [Of(screw, lead, 1), Of(screw, lead / 4, 4)],
        { } pitch => [Of(screw, pitch, 1), Of(screw, pitch, 4)],
    };

    /// <summary>The only one of the readings, two starts included, that gives the steps per mm which the firmware has, within 1 %; null
    /// where
    /// none or several do.</summary>
    public static ScrewReading? That(ScrewDrive screw, double? stepsPerMm)
    {
        if (screw.Pitch is not { } pitch || stepsPerMm is not { } steps) return null;
        ScrewReading[] fitting = [.. Usual(screw).Append(Of(screw, pitch, 2)).Where(r => Math.Abs(r.StepsPerMm / steps - 1 ?? 1) < 0.01)];
        return fitting is [var only] ? only : null;
    }

    private static ScrewReading Of(ScrewDrive screw, double pitch, int starts)
    {
        var known = screw with { Pitch = pitch, Starts = starts };
        var words = starts switch { 1 => "one start", 2 => "two starts", _ => "four starts" };
        return new(pitch, starts, pitch * starts, Drives.FullStep(known), Drives.StepsPerMm(known), words);
    }
}

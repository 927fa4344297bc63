using MillCard.Core.Documents;

namespace MillCard.Core.Motion;

/// <summary>A figure that could stand for what was measured.</summary>
/// <param name="Microsteps">Microsteps to a full step.</param>
/// <param name="StepsPerMm">What the parts give with them.</param>
/// <param name="Off">How far that is from the measurement, as a ratio less 1.</param>
public sealed record Candidate(int Microsteps, double StepsPerMm, double Off)
{
    private const double Within = 0.03;
    private static readonly int[] Usual = [1, 2, 4, 8, 16, 32, 64, 128, 256];

    /// <summary>All microsteps that boards have, the likeliest first.</summary>
    /// <param name="drive">The parts.</param>
    /// <param name="measured">Steps per mm that the measured move asks for.</param>
    public static IReadOnlyList<Candidate> For(Drive? drive, double measured) =>
        Drives.FullStep(drive) is { } step && step > 0
            ? [.. Usual.Select(m => new Candidate(m, m / step, m / step / measured - 1)).OrderBy(c => Math.Abs(Math.Log(1 + c.Off)))]
            : [];

    /// <summary>The microsteps that explain a measured move, within 3 %; null where none do.</summary>
    public static Candidate? That(Drive? drive, double measured) => For(drive, measured).FirstOrDefault(c => Math.Abs(c.Off) <= Within);
}

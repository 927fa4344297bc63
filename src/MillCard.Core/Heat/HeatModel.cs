using MillCard.Core.Wording;

namespace MillCard.Core.Heat;

/// <summary>A heater of first order with constant power (Newton's law of cooling).</summary>
/// <param name="Room">Temperature around it, °C.</param>
/// <param name="Reachable">Where it ends at full power, °C: T∞.</param>
/// <param name="TimeConstant">τ, s.</param>
public sealed record HeatModel(double Room, double Reachable, double TimeConstant)
{
    /// <summary>A wait ends within this of its target, °C. From memory of the firmwares' public documentation.</summary>
    public const double WaitTolerance = 1;

    /// <summary>Temperature after a time at full power: T∞ − (T∞ − T0)·e^(−t/τ).</summary>
    /// <param name="from">T0, °C.</param>
    /// <param name="seconds">t.</param>
    [Formula("Temperature of a heater", "T = T∞ − (T∞ − T₀)·e^(−t/τ)",
        "Newton's law of cooling.", Where = "T∞ where it ends, T₀ where it begins, τ time constant")]
    public double Heated(double from, double seconds) => Reachable - (Reachable - from) * Math.Exp(-seconds / TimeConstant);

    /// <summary>Temperature after a time without power.</summary>
    /// <param name="from">T0, °C.</param>
    /// <param name="seconds">t.</param>
    [Formula("Temperature of what cools", "T = Tₐ + (T₀ − Tₐ)·e^(−t/τ)",
        "Newton's law of cooling.",
        Where = "Tₐ room, T₀ where it begins, τ time constant")]
    public double Cooled(double from, double seconds) => Room + (from - Room) * Math.Exp(-seconds / TimeConstant);

    /// <summary>Time from one temperature to another, s: τ·ln((T∞ − T0)/(T∞ − T)); infinite where it is never reached.</summary>
    [Formula("Time to a temperature", "t = τ·ln((T∞ − T₀)/(T∞ − T))",
        "Newton's law of cooling.", Where = "infinite where T ≥ T∞: the wait never ends")]
    public double Time(double from, double to)
    {
        var end = to >= from ? Reachable : Room;
        var (start, rest) = (Math.Abs(end - from), Math.Abs(end - to));
        if (from == to) return 0;
        return to > from && to >= end || to < from && to <= end ? double.PositiveInfinity : TimeConstant * Math.Log(start / rest);
    }

    /// <summary>Whether a wait for a target ends: it must come within the tolerance.</summary>
    public bool Reaches(double target) => target - WaitTolerance < Reachable;
}

namespace MillCard.StandIn;

/// <summary>What goes wrong on purpose. Rates are shares of lines, 0 to 1.</summary>
public sealed record Faults
{
    /// <summary>The connection breaks.</summary>
    public double Drop { get; init; }
    /// <summary>A byte of what comes in or goes out is another.</summary>
    public double Noise { get; init; }
    /// <summary>An answer gets lost.</summary>
    public double LostReply { get; init; }
    /// <summary>A good line is asked for again as if its checksum were wrong.</summary>
    public double WrongChecksum { get; init; }
    /// <summary>Behind so many executed lines it falls silent; null for never.</summary>
    public long? SilentAfter { get; init; }
    /// <summary>Behind so many executed lines it starts anew; null for never.</summary>
    public long? RestartAfter { get; init; }
    /// <summary>Behind so many executed lines it says that it is busy and never ends; null for never.</summary>
    public long? BusyAfter { get; init; }
    /// <summary>Heaters take so many times as long.</summary>
    public double SlowHeater { get; init; } = 1;
    /// <summary>The nozzle's heater does not heat: the firmware halts when a wait for it begins.</summary>
    public bool DeadHeater { get; init; }

    /// <summary>With one fault set by its name; null where there is no such fault.</summary>
    /// <param name="name">In capitals, such as <c>NOISE</c>; <c>NONE</c> switches all off.</param>
    /// <param name="value">A rate, a number of lines, or how many times as slow.</param>
    public Faults? With(string name, double value) => name switch
    {
        "NONE" => new Faults(),
        "DROP" => this with { Drop = value },
        "NOISE" => this with { Noise = value },
        "LOST_REPLY" => this with { LostReply = value },
        "WRONG_CHECKSUM" => this with { WrongChecksum = value },
        "SILENCE" => this with { SilentAfter = (long)value },
        "RESTART" => this with { RestartAfter = (long)value },
        "BUSY" => this with { BusyAfter = (long)value },
        "SLOW_HEATER" => this with { SlowHeater = Math.Max(1, value) },
        "DEAD_HEATER" => this with { DeadHeater = value != 0 },
        _ => null,
    };
}

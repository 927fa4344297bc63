using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Macros;

namespace MillCard.Core.DryRun;

/// <summary>A straight move of the simulated machine, machine frame, mm.</summary>
/// <param name="Line">Source line, counted from 0.</param>
/// <param name="Known">Whether X, Y and Z were homed.</param>
/// <param name="From">Where it begins.</param>
/// <param name="To">Where it ends.</param>
/// <param name="Filament">Filament fed, mm; negative when pulled back.</param>
/// <param name="Speed">Asked for, mm/s.</param>
/// <param name="Tool">Which nozzle's tip it is.</param>
public readonly record struct SimulatedMove(int Line, bool Known, Spot From, Spot To, float Filament, float Speed, byte Tool = 0)
{
    /// <summary>Its way along the bed, mm.</summary>
    public double Way => Math.Sqrt(Square((double)To.X - From.X) + Square((double)To.Y - From.Y));

    private static double Square(double v) => v * v;

    /// <summary>Whether it lays plastic on its way.</summary>
    public bool Extrudes => Filament > 0 && (From.X != To.X || From.Y != To.Y);
}

/// <summary>A place in the machine frame, mm.</summary>
public readonly record struct Spot(float X, float Y, float Z);

/// <summary>A moment of a run: the begin of a line or, where a macro does many things on one line, a time within it.</summary>
/// <param name="Line">Source line, counted from 0; −1 for never.</param>
/// <param name="Within">From the begin of the line, s.</param>
public readonly record struct Moment(int Line, double Within = 0) : IComparable<Moment>
{
    /// <summary>What never comes.</summary>
    public static Moment Never { get; } = new(-1);

    /// <summary>Whether it comes.</summary>
    public bool Comes => Line >= 0;

    /// <inheritdoc/>
    public int CompareTo(Moment other) => Line != other.Line ? Line.CompareTo(other.Line) : Within.CompareTo(other.Within);

    /// <summary>Whether the left one comes first.</summary>
    public static bool operator <(Moment a, Moment b) => a.CompareTo(b) < 0;

    /// <summary>Whether the right one comes first.</summary>
    public static bool operator >(Moment a, Moment b) => a.CompareTo(b) > 0;

    /// <summary>Whether the right one does not come first.</summary>
    public static bool operator <=(Moment a, Moment b) => a.CompareTo(b) <= 0;

    /// <summary>Whether the left one does not come first.</summary>
    public static bool operator >=(Moment a, Moment b) => a.CompareTo(b) >= 0;
}

/// <summary>A wait for a temperature.</summary>
/// <param name="Begin">When it is asked for.</param>
/// <param name="Heater">Which heater.</param>
/// <param name="Target">°C.</param>
/// <param name="Seconds">How long; infinite where it never ends.</param>
/// <param name="Tool">Which nozzle.</param>
/// <param name="InMacro">Whether a macro asked for it.</param>
/// <param name="At">When it begins, s.</param>
/// <param name="Hotter">Whether it is over at once because the heater is hotter.</param>
public sealed record Wait(Moment Begin, Heater Heater, double Target, double Seconds, int Tool, bool InMacro, double At,
    bool Hotter = false)
{
    /// <summary>Source line, counted from 0.</summary>
    public int Line => Begin.Line;
}

/// <summary>A new target for a heater.</summary>
/// <param name="Begin">From when on.</param>
/// <param name="Heater">Which heater.</param>
/// <param name="Target">°C, 0 is off.</param>
/// <param name="FirstExtrusion">First time that filament is fed while it holds.</param>
/// <param name="LastExtrusion">Last time that filament is fed while it holds.</param>
/// <param name="Tool">Which nozzle.</param>
/// <param name="InMacro">Whether a macro asked for it.</param>
public sealed record HeatStep(Moment Begin, Heater Heater, double Target, Moment FirstExtrusion, Moment LastExtrusion, int Tool,
    bool InMacro)
{
    /// <summary>Source line, counted from 0.</summary>
    public int Line => Begin.Line;
}

/// <summary>A new speed of a fan.</summary>
/// <param name="Line">Source line, counted from 0.</param>
/// <param name="Fan">The firmware's number for it.</param>
/// <param name="Share">Of full speed.</param>
/// <param name="CoolsPart">Whether it is a part fan, as far as the card says.</param>
public readonly record struct FanStep(int Line, int Fan, float Share, bool CoolsPart);

/// <summary>Something that a line asked for, other than a plain move or a fan.</summary>
/// <param name="When">The moment.</param>
/// <param name="Command">What it was.</param>
/// <param name="Text">The line, or the macro's line.</param>
/// <param name="At">Where the nozzle was then.</param>
/// <param name="Homed">Whether all axes were homed then.</param>
/// <param name="Macro">The macro that asked for it; null for the program itself.</param>
/// <param name="Value">A number that belongs to what came of it: a target, a time, a tool.</param>
/// <param name="MovesBefore">How many moves had been made.</param>
public sealed record MachineEvent(Moment When, Command Command, string Text, Spot At, bool Homed, string? Macro, float Value,
    int MovesBefore)
{
    /// <summary>Source line, counted from 0.</summary>
    public int Line => When.Line;

    /// <summary>What it means.</summary>
    public Meaning Meaning => Command.Meaning;

    /// <summary>A word of the line; NaN where it is missing.</summary>
    public double Word(char letter)
    {
        var words = new Words();
        words.Read(System.Text.Encoding.UTF8.GetBytes(Text));
        return words[letter];
    }

    /// <summary>Whether a letter stands in the line, with a number or without.</summary>
    public bool Has(char letter)
    {
        var words = new Words();
        words.Read(System.Text.Encoding.UTF8.GetBytes(Text));
        return words.Has(letter);
    }
}

/// <summary>A call of a macro, with what it did step by step.</summary>
/// <param name="Line">Source line, counted from 0.</param>
/// <param name="Macro">The macro.</param>
/// <param name="Given">Parameters of the call.</param>
/// <param name="Depth">0 where the program calls it, 1 where a macro does that the program calls, …</param>
/// <param name="Unfollowed">What only the running printer knows.</param>
/// <param name="Steps">Its lines.</param>
public sealed record MacroCall(int Line, Macro Macro, IReadOnlyDictionary<string, string> Given, int Depth,
    IReadOnlyList<string> Unfollowed, List<MacroStep> Steps);

/// <summary>One line of a macro as it ran.</summary>
public sealed record MacroStep(string Text, string Effect, double Seconds);

/// <summary>The heaters.</summary>
public enum Heater
{
    /// <summary>The nozzle's.</summary>
    Nozzle,
    /// <summary>The bed's.</summary>
    Bed,
    /// <summary>The housing's.</summary>
    Chamber,
}

/// <summary>A line that the dialect does not know.</summary>
/// <param name="Line">Source line, counted from 0.</param>
/// <param name="Text">As it stands.</param>
/// <param name="Macro">The macro that it stands in; null for the program itself.</param>
public sealed record UnknownCommand(int Line, string Text, string? Macro = null);

/// <summary>Where printing moves have been, machine frame, mm.</summary>
public sealed record Extents(double MinX, double MinY, double MinZ, double MaxX, double MaxY, double MaxZ);

/// <summary>What is still on when the program ends; the nozzle's target is that of the hottest.</summary>
public sealed record EndState(Spot Position, double NozzleTarget, double BedTarget, double Fan, bool MotorsOn, bool Relative,
    int CarriageMode = 0, double ChamberTarget = 0)
{
    /// <summary>Where the carriage reference is, mm, with all digits that were counted.</summary>
    internal (double X, double Y, double Z) Exact { get; init; }
}

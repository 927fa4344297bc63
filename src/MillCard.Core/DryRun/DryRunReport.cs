using System.Runtime.InteropServices;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Heat;

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
    /// <summary>Whether it lays plastic on its way.</summary>
    public bool Extrudes => Filament > 0 && (From.X != To.X || From.Y != To.Y);
}

/// <summary>A place in the machine frame, mm.</summary>
public readonly record struct Spot(float X, float Y, float Z);

/// <summary>A wait for a temperature.</summary>
/// <param name="Line">Source line, counted from 0.</param>
/// <param name="Heater">Which heater.</param>
/// <param name="Target">°C.</param>
/// <param name="Seconds">How long; infinite where it never ends.</param>
/// <param name="Tool">Which nozzle.</param>
public sealed record Wait(int Line, Heater Heater, double Target, double Seconds, int Tool = 0);

/// <summary>A new target for a heater.</summary>
/// <param name="Line">Source line, counted from 0.</param>
/// <param name="Heater">Which heater.</param>
/// <param name="Target">°C, 0 is off.</param>
/// <param name="FirstExtrusion">First line that feeds filament while it holds; −1 for none.</param>
/// <param name="LastExtrusion">Last line that feeds filament while it holds; −1 for none.</param>
/// <param name="Tool">Which nozzle.</param>
public sealed record HeatStep(int Line, Heater Heater, double Target, int FirstExtrusion, int LastExtrusion, int Tool = 0);

/// <summary>The heaters.</summary>
public enum Heater
{
    /// <summary>The nozzle's.</summary>
    Nozzle,
    /// <summary>The bed's.</summary>
    Bed,
}

/// <summary>A line that the dialect does not know.</summary>
public sealed record UnknownCommand(int Line, string Text);

/// <summary>Where printing moves have been, machine frame, mm.</summary>
public sealed record Extents(double MinX, double MinY, double MinZ, double MaxX, double MaxY, double MaxZ);

/// <summary>What is still on when the program ends; the nozzle's target is that of the hottest.</summary>
public sealed record EndState(Spot Position, double NozzleTarget, double BedTarget, double Fan, bool MotorsOn, bool Relative);

/// <summary>What a dry run found out. Lines are counted from 0 here and from 1 wherever people see them.</summary>
public sealed class DryRunReport
{
    internal List<SimulatedMove> MoveList { get; } = [];
    internal Effect[] EffectList { get; init; } = [];

    /// <summary>The program.</summary>
    public required GcodeText Text { get; init; }
    /// <summary>Its dialect.</summary>
    public required Flavour Flavour { get; init; }
    /// <summary>When each line begins, s.</summary>
    public required double[] Starts { get; init; }
    /// <summary>How long each line takes, s.</summary>
    public required double[] Seconds { get; init; }
    /// <summary>Every straight move in order.</summary>
    public ReadOnlySpan<SimulatedMove> Moves => CollectionsMarshal.AsSpan(MoveList);
    /// <summary>Every wait for a temperature.</summary>
    public List<Wait> Waits { get; } = [];
    /// <summary>Every change of a target.</summary>
    public List<HeatStep> HeatSteps { get; } = [];
    /// <summary>Lines that the dialect does not know, the first few.</summary>
    public List<UnknownCommand> Unknown { get; } = [];
    /// <summary>Every nozzle's temperature over time.</summary>
    public required IReadOnlyList<HeaterTrace> Nozzles { get; init; }
    /// <summary>The first nozzle's temperature over time.</summary>
    public HeaterTrace Nozzle => Nozzles[0];
    /// <summary>The bed's temperature over time; null where it is not heated.</summary>
    public required HeaterTrace? Bed { get; init; }
    /// <summary>First line that feeds filament; −1 for none.</summary>
    public int FirstExtrusion { get; internal set; } = -1;
    /// <summary>First line that feeds filament to each nozzle; −1 for none.</summary>
    public required int[] FirstExtrusions { get; init; }
    /// <summary>Where printing moves have been; null where nothing was printed.</summary>
    public Extents? Extents { get; internal set; }
    /// <summary>Filament used, mm.</summary>
    public double Filament { get; internal set; }
    /// <summary>Total time, s; waits that never end count nothing.</summary>
    public double TotalSeconds { get; internal set; }
    /// <summary>What is still on.</summary>
    public EndState End { get; internal set; } = new(default, 0, 0, 0, false, false);

    /// <summary>What a line does, in plain words.</summary>
    /// <param name="line">Counted from 0.</param>
    public string EffectOf(int line) => EffectWords.Of(this, line);

    /// <summary>Where a line's motion begins and ends, machine frame; null where it moves nothing or its place is unknown.</summary>
    /// <param name="line">Counted from 0.</param>
    public (Spot From, Spot To)? PathOf(int line)
    {
        var moves = Moves;
        var first = EffectList[line].First;
        if (EffectList[line].Kind != EffectKind.Move || first < 0 || first >= moves.Length || !moves[first].Known) return null;
        var last = first;
        while (last + 1 < moves.Length && moves[last + 1].Line == line) last++;
        return (moves[first].From, moves[last].To);
    }
}

using System.Runtime.InteropServices;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Heat;
using MillCard.Core.Macros;

namespace MillCard.Core.DryRun;

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
    /// <summary>Every change of a fan.</summary>
    public List<FanStep> FanSteps { get; } = [];
    /// <summary>What lines asked for, other than plain moves, fans and messages; the first 50 000.</summary>
    public List<MachineEvent> Events { get; } = [];
    /// <summary>Calls of macros, the first few.</summary>
    public List<MacroCall> MacroCalls { get; } = [];
    /// <summary>The macros of the machine.</summary>
    public required MacroFile Macros { get; init; }
    /// <summary>The line at which the layers of a sliced program begin; −1 where it does not say.</summary>
    public int LayersBegin { get; internal set; } = -1;
    /// <summary>The line at which the layers of a sliced program end; −1 where it does not say.</summary>
    public int LayersEnd { get; internal set; } = -1;
    /// <summary>Macros that call themselves, with the line that started it, counted from 0.</summary>
    public List<(int Line, string Macro)> Recursions { get; } = [];
    /// <summary>Whether words were distances when the layers began.</summary>
    public bool RelativeAtLayers { get; internal set; }
    /// <summary>Lines that the dialect does not know, the first few.</summary>
    public List<UnknownCommand> Unknown { get; } = [];
    /// <summary>Every nozzle's temperature over time.</summary>
    public required IReadOnlyList<HeaterTrace> Nozzles { get; init; }
    /// <summary>The first nozzle's temperature over time.</summary>
    public HeaterTrace Nozzle => Nozzles[0];
    /// <summary>The bed's temperature over time; null where it is not heated.</summary>
    public required HeaterTrace? Bed { get; init; }
    /// <summary>The housing's temperature over time; null where it has no heater.</summary>
    public required HeaterTrace? Chamber { get; init; }
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

    /// <summary>The last line, counted from 0; 0 for an empty program.</summary>
    internal int LastLine => Math.Max(0, Text.Count - 1);

    /// <summary>A heater's temperature over time; null where the machine has no such heater.</summary>
    internal HeaterTrace? TraceOf(Heater heater, int tool) => heater switch { Heater.Nozzle => Nozzles[tool], Heater.Bed => Bed, _ => Chamber };

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

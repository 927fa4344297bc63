using System.Runtime.InteropServices;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Heat;
using MillCard.Core.Macros;

namespace MillCard.Core.DryRun;

/// <summary>What a dry run found out. Lines are counted from 0 here and from 1 wherever people see them.</summary>
/// <param name="text">The program.</param>
public sealed class DryRunReport(GcodeText text)
{
    internal List<SimulatedMove> MoveList { get; } = [];
    internal List<SimulatedMove> SecondMoveList { get; } = [];
    internal Effect[] EffectList { get; set; } = [];

    /// <summary>The program.</summary>
    public GcodeText Text { get; internal set; } = text;
    /// <summary>Its dialect.</summary>
    public required Flavour Flavour { get; init; }
    /// <summary>When each line begins, s.</summary>
    public double[] Starts { get; internal set; } = [];
    /// <summary>How long each line takes, s.</summary>
    public double[] Seconds { get; internal set; } = [];
    /// <summary>Every straight move in order.</summary>
    public ReadOnlySpan<SimulatedMove> Moves => CollectionsMarshal.AsSpan(MoveList);
    /// <summary>What the second carriage does meanwhile, where both move together in copy or mirror.</summary>
    public ReadOnlySpan<SimulatedMove> SecondMoves => CollectionsMarshal.AsSpan(SecondMoveList);
    /// <summary>How near the nozzles of two carriages come that move together, mm along X; infinite where they do not.</summary>
    public double LeastApart { get; internal set; } = double.PositiveInfinity;
    /// <summary>The line on which they come so near, counted from 0.</summary>
    public int LeastApartAt { get; internal set; }
    /// <summary>When filament is fed while no tool is chosen.</summary>
    public Moment FedWithoutTool { get; internal set; } = Moment.Never;
    /// <summary>Filament fed by each nozzle, mm.</summary>
    public required double[] FilamentOf { get; init; }
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
    /// <summary>What only the running printer knows, with the line that asks for it, counted from 0; the first few.</summary>
    public List<(int Line, string What)> Unfollowed { get; } = [];
    /// <summary>When first something runs that could not be looked at: a macro or a file that the card does not hold.</summary>
    public Moment Unseen { get; internal set; } = Moment.Never;
    /// <summary>Its name; empty where there is none.</summary>
    public string UnseenName { get; internal set; } = "";
    /// <summary>Whether a condition was taken one way that only the running printer can decide.</summary>
    public bool Hinges { get; internal set; }
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
    /// <summary>When filament is first fed.</summary>
    public Moment FirstExtrusion { get; internal set; } = Moment.Never;
    /// <summary>When filament is first fed to each nozzle.</summary>
    public required Moment[] FirstExtrusions { get; init; }
    /// <summary>Where printing moves have been; null where nothing was printed.</summary>
    public Extents? Extents { get; internal set; }
    /// <summary>Filament used, mm.</summary>
    public double Filament { get; internal set; }
    /// <summary>Total time, s; waits that never end count nothing.</summary>
    public double TotalSeconds { get; internal set; }
    /// <summary>What is still on.</summary>
    public EndState End { get; internal set; } = new(default, 0, 0, 0, MotorsOn: false, Relative: false);

    /// <summary>The last line, counted from 0; 0 for an empty program.</summary>
    internal int LastLine => Math.Max(0, Text.Count - 1);

    /// <summary>A heater's temperature over time; null where the machine has no such heater.</summary>
    internal HeaterTrace? TraceOf(Heater heater, int tool) =>
        heater switch { Heater.Nozzle => Nozzles[tool], Heater.Bed => Bed, _ => Chamber };

    /// <summary>From here on it stands for a program that has the same lines but for what its remarks say.</summary>
    internal void StandFor(GcodeText same)
    {
        if (same.Count != Text.Count) throw new ArgumentException("Other lines want a run of their own.", nameof(same));
        Text = same;
    }

    /// <summary>The time of a moment, s.</summary>
    public double TimeOf(Moment moment) => Starts[moment.Line] + moment.Within;

    /// <summary>The line that runs at a time, counted from 0.</summary>
    /// <param name="time">s.</param>
    public int LineAt(double time)
    {
        var found = Array.BinarySearch(Starts, time);
        if (found < 0) found = ~found - 1;
        // of lines that begin together the last is the one that takes time
        while (found + 1 < Starts.Length && Starts[found + 1] <= time) found++;
        return Math.Max(0, found);
    }

    /// <summary>Whether the last command before a line that says so makes words distances.</summary>
    /// <param name="line">Counted from 0.</param>
    internal bool IsRelativeBefore(int line) =>
        Events.LastOrDefault(e => e.Line < line && e.Meaning is Meaning.Absolute or Meaning.Relative)?.Meaning == Meaning.Relative;

    /// <summary>From which temperature on what is in a nozzle drips, °C: its filament's, or that of the material such a target
    /// suits.</summary>
    /// <param name="tool">Which nozzle.</param>
    /// <param name="until">Targets up to this time are looked at, s.</param>
    /// <remarks>Temperatures by material are common practice, no source.</remarks>
    internal double OozesFrom(int tool, double until)
    {
        if (tool < Filaments.Count && Filaments[tool]?.Nozzle.OozesFrom is { } known) return known;
        var asked = HeatSteps.Where(s => s.Heater == Heater.Nozzle && s.Tool == tool && TimeOf(s.Begin) <= until).Select(s => s.Target)
            .DefaultIfEmpty().Max();
        return asked switch { <= 225 => 160, <= 262 => 190, _ => 200 };
    }

    /// <summary>What is known to be in the nozzles, by tool; null or missing where nothing is.</summary>
    public IReadOnlyList<Documents.Filament?> Filaments { get; init; } = [];

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

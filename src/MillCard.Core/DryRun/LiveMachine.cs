using System.Text;
using MillCard.Core.Flavours;
using MillCard.Core.Gcode;
using MillCard.Core.Machines;
using MillCard.Core.Macros;

namespace MillCard.Core.DryRun;

/// <summary>What a command did on a live machine.</summary>
/// <param name="Seconds">How long it takes; infinite for a wait that never ends.</param>
/// <param name="Effect">In plain words.</param>
/// <param name="Known">Whether the dialect knows it.</param>
public sealed record LiveStep(double Seconds, string Effect, bool Known);

/// <summary>The simulated machine taking one command after the other; it comes to a stop behind each.</summary>
public sealed class LiveMachine
{
    private const int Portion = 512;
    private readonly SimulatedMachine _simulated;
    private int _line;

    /// <summary>A machine that was just switched on.</summary>
    public LiveMachine(Machine machine) => _simulated = SimulatedMachine.Live(machine, Portion);

    /// <summary>Time since it was switched on, s.</summary>
    public double Clock => _simulated.LiveClock;
    /// <summary>What is asked of the nozzle, °C.</summary>
    public double NozzleTarget => _simulated.LiveRun.Nozzle.Target;
    /// <summary>What is asked of the bed, °C; null where it is not heated.</summary>
    public double? BedTarget => _simulated.LiveRun.Bed?.Target;
    /// <summary>Where the nozzle is.</summary>
    public Spot Position => _simulated.LiveSpot;
    /// <summary>The dialect.</summary>
    public Flavour Flavour => _simulated.LiveRun.Flavour;

    /// <summary>Nozzle temperature at a moment, °C.</summary>
    public double NozzleAt(double clock) => _simulated.LiveRun.Nozzle.At(clock);

    /// <summary>Bed temperature at a moment, °C; null where it is not heated.</summary>
    public double? BedAt(double clock) => _simulated.LiveRun.Bed?.At(clock);

    /// <summary>Takes a command.</summary>
    public LiveStep Execute(string command)
    {
        if (_line == Portion) { _simulated.NextPortion(Portion); _line = 0; }
        return _simulated.LiveExecute(_line++, Encoding.UTF8.GetBytes(command));
    }

    /// <summary>Lets time pass.</summary>
    public void Pass(double seconds) => _simulated.LivePass(seconds);
}

// One command at a time, for a machine that lives; state is handed from portion to portion so that memory stays bounded.
public sealed partial class SimulatedMachine
{
    internal DryRunReport LiveRun => _run;
    internal double LiveClock => _clock;
    internal Spot LiveSpot => Spot();

    internal static SimulatedMachine Live(Machine machine, int lines) => new(machine, Blank(lines), [], OpenCondition.Fails);

    internal LiveStep LiveExecute(int line, ReadOnlySpan<byte> text)
    {
        var unknown = _run.Unknown.Count;
        var effect = Execute(line, text);
        Settle(line);
        var endless = effect.Kind == EffectKind.Never;
        var words = EffectWords.Of(_run, effect, line, Encoding.UTF8.GetString(text), _seconds[line]);
        var seconds = _seconds[line];
        Settle(line + 1);
        return new LiveStep(endless ? double.PositiveInfinity : seconds, words, _run.Unknown.Count == unknown);
    }

    internal void LivePass(double seconds) => _clock += Math.Max(0, seconds);

    /// <summary>Forgets the lines so far, so that memory stays bounded; the machine goes on as it is.</summary>
    internal void NextPortion(int lines)
    {
        var before = _run;
        Begin(Blank(lines), before.Filaments);
        foreach (var (old, next) in before.Nozzles.Zip(_run.Nozzles)) next.GoOnFrom(old, _clock);
        if (before.Bed is { } bed) _run.Bed!.GoOnFrom(bed, _clock);
        if (before.Chamber is { } chamber) _run.Chamber!.GoOnFrom(chamber, _clock);
    }

    private static GcodeText Blank(int lines)
    {
        var text = new byte[lines];
        Array.Fill(text, (byte)'\n');
        return new GcodeText(text);
    }
}

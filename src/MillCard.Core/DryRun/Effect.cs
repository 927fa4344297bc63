using MillCard.Core.Gcode;

namespace MillCard.Core.DryRun;

/// <summary>What a line did, kept small; words are made when somebody reads them.</summary>
/// <param name="Kind">What it was.</param>
/// <param name="First">Its first move, or −1.</param>
/// <param name="Value">A number that belongs to it: a target, a share, a time.</param>
internal readonly record struct Effect(EffectKind Kind, int First, float Value);

/// <summary>Kinds of effect.</summary>
internal enum EffectKind : byte
{
    Nothing, Comment, Unknown, Move, NoMove, Dwell, Home, Level, Units, Absolute, Relative, ExtrusionAbsolute, ExtrusionRelative, Position,
    SetNozzle, WaitNozzle, SetBed, WaitBed, SetChamber, WaitChamber, HeatersOff, Never, Returns, WaitAll, Fan, MotorsOff, Tool, Finish,
    Person, CarriageMode, Macro, Setting, Message, Condition, Skipped, InLoop, Unfollowed,
}

/// <summary>Plain words for effects.</summary>
internal static class EffectWords
{
    public static string Of(DryRunReport run, int line) => Of(run, run.EffectList[line], line, null, run.Seconds[line]);

    /// <summary>Words for an effect.</summary>
    /// <param name="run">The run.</param>
    /// <param name="effect">What was done.</param>
    /// <param name="line">Source line, counted from 0.</param>
    /// <param name="text">The macro's line; null for the source line itself.</param>
    /// <param name="seconds">How long it took.</param>
    public static string Of(DryRunReport run, Effect effect, int line, string? text, double seconds)
    {
        var v = effect.Value;
        return effect.Kind switch
        {
            EffectKind.Move => Move(run, line, effect.First),
            EffectKind.NoMove => "stays where it is",
            EffectKind.Dwell => $"waits {Time(seconds)}",
            EffectKind.Home => $"to the end-stops; {Time(seconds)}",
            EffectKind.Level => $"probes the bed; about {Time(seconds)}",
            EffectKind.Units => v > 1 ? "lengths in inches from here" : "lengths in mm from here",
            EffectKind.Absolute => "words are positions from here",
            EffectKind.Relative => "words are distances from here",
            EffectKind.ExtrusionAbsolute => "E words are positions from here",
            EffectKind.ExtrusionRelative => "E words are lengths from here",
            EffectKind.Position => "names this position anew",
            EffectKind.SetNozzle => v > 0 ? $"nozzle starts towards {v:0} °C" : "nozzle heater off",
            EffectKind.WaitNozzle => $"waits for the nozzle at {v:0} °C; {Time(seconds)}",
            EffectKind.SetBed => v > 0 ? $"bed starts towards {v:0} °C" : "bed heater off",
            EffectKind.WaitBed => $"waits for the bed at {v:0} °C; {Time(seconds)}",
            EffectKind.Never => $"waits for {v:0} °C: never ends",
            EffectKind.Returns => $"target {v:0} °C; hotter already, does not wait",
            EffectKind.WaitAll => $"waits for all temperatures; {Time(seconds)}",
            EffectKind.Fan => (effect.First < 0 ? "part fan" : $"fan {effect.First}") + (v > 0 ? $" at {100 * v:0} %" : " off"),
            EffectKind.MotorsOff => "motors off",
            EffectKind.Tool => $"tool {v:0}",
            EffectKind.Finish => "waits until all moves are done",
            EffectKind.SetChamber => v > 0 ? $"housing starts towards {v:0} °C" : "housing heater off",
            EffectKind.WaitChamber => $"waits for the housing at {v:0} °C; {Time(seconds)}",
            EffectKind.HeatersOff => "all heaters off",
            EffectKind.Person => "waits for somebody",
            EffectKind.CarriageMode =>
                v switch { 2 => "both carriages alike: copy", 3 => "both carriages mirrored", _ => "carriages one at a time" },
            EffectKind.Macro => Macro(run, effect.First, seconds),
            EffectKind.Setting or EffectKind.Message =>
                Known(run, text is null ? run.Text.Line(line) : System.Text.Encoding.UTF8.GetBytes(text)),
            EffectKind.Condition => "decides how it goes on",
            EffectKind.Skipped => "is passed over",
            EffectKind.InLoop => $"runs in the loop of line {effect.First + 1}",
            EffectKind.Unfollowed => "only the running printer knows what this writes",
            EffectKind.Unknown => $"{run.Flavour.Name} does not know this",
            _ => "",
        };
    }

    private static string Macro(DryRunReport run, int call, double seconds) =>
        call < 0 ? "runs a macro" : $"runs {run.MacroCalls[call].Macro.Name}, {run.MacroCalls[call].Steps.Count} "
            + $"{(run.MacroCalls[call].Steps.Count == 1 ? "line" : "lines")}; {Time(seconds)}";

    private static string Known(DryRunReport run, ReadOnlySpan<byte> text)
    {
        string? about;
        if (run.Flavour.Extended && ExtendedCommand.Begins(text)) about = run.Flavour.Find(ExtendedCommand.Of(text).Name)?.About;
        else
        {
            var words = new Words();
            words.Read(text);
            about = words.Count > 0 ? run.Flavour.Find(words.Letter(0), words.Value(0))?.About : null;
        }
        return about is null ? "" : char.ToLowerInvariant(about[0]) + about[1..];
    }

    private static string Move(DryRunReport run, int line, int first)
    {
        var moves = run.Moves[first..];
        var count = 0;
        var (length, filament) = (0.0, 0.0);
        while (count < moves.Length && moves[count].Line == line)
        {
            length += Math.Sqrt(Square(moves[count].To.X - moves[count].From.X) + Square(moves[count].To.Y - moves[count].From.Y));
            filament += moves[count++].Filament;
        }
        var (from, to) = (moves[0].From, moves[count - 1].To);
        var flat = length > 0.0005;
        var rise = to.Z - from.Z;
        if (flat && filament > 0) return $"prints {length:0.##} mm to X {to.X:0.##} Y {to.Y:0.##}, {filament:0.###} mm of filament";
        if (flat) return $"travels {length:0.##} mm to X {to.X:0.##} Y "
            + $"{to.Y:0.##}{(Math.Abs(rise) > 0.0005 ? $", Z {to.Z:0.###}" : "")}"
            + $"{(filament < 0 ? $", pulls back {-filament:0.##} mm" : "")}";
        if (Math.Abs(rise) > 0.0005) return $"{(rise > 0 ? "up" : "down")} to Z {to.Z:0.###}";
        return filament switch
        {
            > 0 => $"pushes {filament:0.###} mm of filament",
            < 0 => $"pulls back {-filament:0.###} mm",
            _ => "stays where it is",
        };
    }

    private static double Square(double v) => v * v;

    internal static string Time(double seconds) => seconds switch
    {
        < 60 => Invariant($"{seconds:0.#} s"),
        < 3600 => $"{(int)seconds / 60} min {(int)seconds % 60} s",
        _ => $"{(int)seconds / 3600} h {(int)seconds / 60 % 60} min",
    };
}

using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json;
using MillCard.Core.Documents;

namespace MillCard.Core.Flavours;

/// <summary>What a command means to the simulated machine.</summary>
public enum Meaning
{
    /// <summary>Nothing that the simulated machine shows: a message, a report.</summary>
    None,
    /// <summary>A straight move.</summary>
    Move,
    /// <summary>An arc, clockwise.</summary>
    ArcClockwise,
    /// <summary>An arc, counter-clockwise.</summary>
    ArcCounterClockwise,
    /// <summary>A pause of a given length.</summary>
    Dwell,
    /// <summary>To the end-stops.</summary>
    Home,
    /// <summary>Probing the bed.</summary>
    Level,
    /// <summary>Lengths in inches from here on.</summary>
    Inches,
    /// <summary>Lengths in mm from here on.</summary>
    Millimetres,
    /// <summary>Words are positions.</summary>
    Absolute,
    /// <summary>Words are distances.</summary>
    Relative,
    /// <summary>E words are positions.</summary>
    ExtrusionAbsolute,
    /// <summary>E words are lengths.</summary>
    ExtrusionRelative,
    /// <summary>Names the present position.</summary>
    SetPosition,
    /// <summary>Nozzle towards a temperature.</summary>
    SetNozzle,
    /// <summary>Nozzle towards a temperature, and wait.</summary>
    WaitNozzle,
    /// <summary>Bed towards a temperature.</summary>
    SetBed,
    /// <summary>Bed towards a temperature, and wait.</summary>
    WaitBed,
    /// <summary>Wait for every temperature asked for.</summary>
    WaitAll,
    /// <summary>Part fan on.</summary>
    FanOn,
    /// <summary>Part fan off.</summary>
    FanOff,
    /// <summary>Motors without current.</summary>
    MotorsOff,
    /// <summary>Another tool.</summary>
    Tool,
    /// <summary>Wait until all moves are done.</summary>
    Finish,
    /// <summary>Highest speed by axis.</summary>
    LimitSpeed,
    /// <summary>Highest acceleration by axis.</summary>
    LimitAcceleration,
    /// <summary>Acceleration by kind of move.</summary>
    SetAcceleration,
    /// <summary>Corner speeds.</summary>
    SetCorner,
    /// <summary>Mode of two carriages; S 0 or 1 single, 2 copy, 3 mirror.</summary>
    CarriageMode,
}

/// <summary>One parameter of a command.</summary>
/// <param name="Letter">Its letter.</param>
/// <param name="About">What it is, in words.</param>
/// <param name="Unit">Its unit as that firmware takes it; empty for a plain number.</param>
public sealed record CommandParameter(char Letter, string About, string Unit = "");

/// <summary>One command of a dialect.</summary>
/// <param name="Word">Its spelling: letter and number.</param>
/// <param name="Meaning">What it does to the simulated machine.</param>
/// <param name="About">What it does, in words.</param>
/// <param name="Parameters">What it takes.</param>
public sealed record Command(string Word, Meaning Meaning, string About, IReadOnlyList<CommandParameter> Parameters);

/// <summary>A firmware dialect as data: one table file each, from memory of the firmwares' public documentation.</summary>
public sealed record Flavour
{
    private static readonly ConcurrentDictionary<FlavourId, Flavour> Read = new();
    private readonly Command?[][] _byLetter = new Command?[26][];

    /// <summary>Its name as the trade writes it.</summary>
    public required string Name { get; init; }
    /// <summary>Where the facts come from.</summary>
    public required string Source { get; init; }
    /// <summary>Whether G90 and G91 change how E words count too.</summary>
    public required bool AbsoluteTurnsExtrusion { get; init; }
    /// <summary>Unit of the speed limit command's words: mm/s or mm/min.</summary>
    public required string SpeedLimitUnit { get; init; }
    /// <summary>Corner rule where a card does not say.</summary>
    public required Corner Corner { get; init; }
    /// <summary>The commands.</summary>
    public required IReadOnlyList<Command> Commands { get; init; }

    /// <summary>The table of a dialect.</summary>
    public static Flavour Of(FlavourId id) => Read.GetOrAdd(id, Load);

    /// <summary>The command of a letter and number, or null where the dialect does not know it.</summary>
    public Command? Find(char letter, double number)
    {
        var index = letter - 'A';
        if (index is < 0 or > 25 || _byLetter[index] is not { } row) return null;
        if (letter == 'T') return row[0];
        return number >= 0 && number < row.Length && number == Math.Floor(number) ? row[(int)number] : null;
    }

    private static Flavour Load(FlavourId id)
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream($"flavours/{id.ToString().ToLowerInvariant()}.json")!;
        var flavour = JsonSerializer.Deserialize<Flavour>(stream, DocumentJson.Options)!;
        foreach (var group in flavour.Commands.GroupBy(c => c.Word[0]))
        {
            var row = new Command?[1000];
            foreach (var command in group) row[command.Word.Length > 1 ? int.Parse(command.Word.AsSpan(1), System.Globalization.CultureInfo.InvariantCulture) : 0] = command;
            flavour._byLetter[group.Key - 'A'] = row;
        }
        return flavour;
    }
}

using System.Collections.Concurrent;
using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.RegularExpressions;
using MillCard.Core.Documents;

namespace MillCard.Core.Flavours;

/// <summary>A firmware dialect as data: one table file each, from memory of the firmwares' public documentation.</summary>
public sealed partial record Flavour
{
    private const int MostNumber = 1024;
    private static readonly ConcurrentDictionary<FlavourId, Flavour> Read = new();
    private static readonly JsonSerializerOptions Strict = new(
        DocumentJson.Options)
    { UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow };
    private readonly Command?[][] _byLetter = new Command?[26][];
    private readonly Dictionary<string, Command> _byName = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Its name as the trade writes it.</summary>
    [JsonIgnore] public string Name { get; private set; } = "";
    /// <summary>Where the facts come from.</summary>
    public required string Source { get; init; }
    /// <summary>What decides how E words count.</summary>
    public required ExtrusionCounts Extrusion { get; init; }
    /// <summary>Whether a wait with S waits while the heater is hotter, too.</summary>
    public required bool WaitsWhileHotter { get; init; }
    /// <summary>Whether a wait takes R, which waits both ways.</summary>
    public required bool ReadsWaitR { get; init; }
    /// <summary>Whether a fan's share may be written from 0 to 1.</summary>
    public required bool FanOfOne { get; init; }
    /// <summary>Whether a print stops at a command it does not know.</summary>
    public required bool HaltsOnUnknown { get; init; }
    /// <summary>Whether it takes extended commands and macros: a name with <c>KEY=value</c> pairs.</summary>
    public required bool Extended { get; init; }
    /// <summary>Whether conditions, loops, variables and expressions may stand among the commands.</summary>
    public required bool Conditions { get; init; }
    /// <summary>Whether homing forgets the bed's mesh.</summary>
    public required bool HomeDropsMesh { get; init; }
    /// <summary>Whether T-1 puts the tool away.</summary>
    public required bool CanDropTool { get; init; }
    /// <summary>Whether a line may hold several commands.</summary>
    public required bool SeveralOnLine { get; init; }
    /// <summary>Longest line its buffer takes, bytes; null where it does not matter.</summary>
    public required int? LongestLine { get; init; }
    /// <summary>Unit of the speed limit command's words: mm/s or mm/min.</summary>
    public required string SpeedLimitUnit { get; init; }
    /// <summary>Unit of the corner speed command's words: mm/s or mm/min.</summary>
    public required string CornerUnit { get; init; }
    /// <summary>Corner rule where a card does not say.</summary>
    public required Corner Corner { get; init; }
    /// <summary>How it writes what a program needs, by name, with <c>{value}</c> places; what it cannot do is missing.</summary>
    public required IReadOnlyDictionary<string, string> Spellings { get; init; }
    /// <summary>The commands.</summary>
    public required IReadOnlyList<Command> Commands { get; init; }

    /// <summary>The table of a dialect.</summary>
    public static Flavour Of(FlavourId id) => Read.GetOrAdd(id, Load);

    /// <summary>The dialect as a card's firmware speaks it: a fact of its version may make another of it.</summary>
    /// <remarks>Marlin 1 keeps M83 through G90; from memory of its public documentation.</remarks>
    public static Flavour Of(Firmware firmware)
    {
        var flavour = Of(firmware.Flavour!.Value);
        return firmware.Flavour == FlavourId.Marlin && FirstVersion().IsMatch(firmware.Version ?? "") ? OfFirstVersion.Value : flavour;
    }

    private static readonly Lazy<Flavour> OfFirstVersion = new(() => Load(FlavourId.Marlin) with { Extrusion = ExtrusionCounts.Either });

    [GeneratedRegex(@"(^|[^\d.])1\.\d")]
    private static partial Regex FirstVersion();

    /// <summary>The command of a letter and number, or null where the dialect does not know it.</summary>
    public Command? Find(char letter, double number)
    {
        var index = letter - 'A';
        if (index is < 0 or > 25 || _byLetter[index] is not { } row) return null;
        if (letter == 'T') return row[0];
        if (number != Math.Floor(number)) return Find(Invariant($"{letter}{number:0.##}"));
        return number >= 0 && number < row.Length ? row[(int)number] : null;
    }

    /// <summary>The extended command of a name, or null where the dialect does not know it.</summary>
    public Command? Find(string name) => _byName.GetValueOrDefault(name);

    /// <summary>The first command with a meaning, or null where the dialect has none.</summary>
    public Command? With(Meaning meaning) => Commands.FirstOrDefault(c => c.Meaning == meaning);

    /// <summary>Writes something in this dialect; words whose value is missing are left out.</summary>
    /// <param name="what">Name of the spelling, such as <c>tool</c> or <c>speed-limits</c>.</param>
    /// <param name="values">By place: numbers or texts.</param>
    /// <returns>Null where the dialect cannot, or where no word is left.</returns>
    public string? Spell(string what, params ReadOnlySpan<(string Place, object? Value)> values)
    {
        if (!Spellings.TryGetValue(what, out var spelling)) return null;
        var written = new List<string>();
        foreach (var word in spelling.Split(' '))
        {
            var (filled, known) = (word, true);
            foreach (Match place in Place().Matches(word))
            {
                object? found = null;
                foreach (var (name, value) in values) if (name == place.Groups[1].Value) found = value;
                known &= found is not null;
                filled = filled.Replace(place.Value,
                    Convert.ToString(found is double d ? Math.Round(d, 5) : found, CultureInfo.InvariantCulture));
            }
            if (known) written.Add(filled);
        }
        var bare = spelling.Split(' ').Count(word => !word.Contains('{'));
        return written.Count > bare || bare == spelling.Split(' ').Length ? string.Join(' ', written) : null;
    }

    [GeneratedRegex(@"\{(\w+)\}")]
    private static partial Regex Place();

    private static Flavour Load(FlavourId id)
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream($"flavours/{id.ToString().ToLowerInvariant()}.json")!;
        var flavour = JsonSerializer.Deserialize<Flavour>(stream, Strict)!;
        flavour.Name = ChoiceWords.Of(id);
        foreach (var command in flavour.Commands)
        {
            if (command.Word.Length > 1 && !char.IsAsciiDigit(command.Word[1]) || command.Word.Contains('.'))
            { flavour._byName[command.Word] = command; continue; }
            var row = flavour._byLetter[command.Word[0] - 'A'] ??= new Command?[MostNumber];
            row[command.Word.Length > 1 ? int.Parse(command.Word.AsSpan(1), CultureInfo.InvariantCulture) : 0] = command;
        }
        return flavour;
    }
}

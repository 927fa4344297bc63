using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using MillCard.Core.Documents;
using MillCard.Core.Flavours;

namespace MillCard.Core.SettingsReports;

/// <summary>Reads what a firmware says of its own settings: lines of commands, with or without names in front, in either spelling of their
/// words.</summary>
/// <remarks>The meaning of the commands is from memory of the firmwares' public documentation.</remarks>
public static partial class ReportReader
{
    private const int MostLines = 5000;
    private static readonly string[] Axes = ["x", "y", "z", "e"];

    /// <summary>Reads a report.</summary>
    /// <param name="text">As it came from the machine.</param>
    /// <param name="card">The card whose facts are laid beside; its flavour decides about units.</param>
    public static SettingsReport Read(string text, Card card)
    {
        var reading = new Reading(card);
        foreach (var line in text.Split('\n').Take(MostLines)) reading.Take(line.Trim());
        return new SettingsReport(reading.Facts, reading.Corner, reading.LeftOut);
    }

    /// <summary>A command with its words, wherever in the line it begins: <c>echo:  M92 X80.00</c>, <c>M92: Steps/mm: X: 80.0, Y:
    /// 80.0</c>.</summary>
    [GeneratedRegex(@"^(?:echo:|Recv:|\[.*?\]|>>>|\s)*\s*(?<command>[MG]\d+)\b(?<rest>.*)$", RegexOptions.IgnoreCase)]
    private static partial Regex Command();

    [GeneratedRegex(@"(?<![A-Za-z])(?<letter>[A-Z]):?\s*(?<value>[-+]?\d+(?:\.\d+)?)", RegexOptions.IgnoreCase)]
    private static partial Regex Word();

    private sealed class Reading(Card card)
    {
        private readonly JsonElement _card = JsonSerializer.SerializeToElement(card, DocumentJson.Options);
        private readonly Dictionary<string, ReportedFact> _facts = [];
        private readonly bool _perMinute = card.Firmware.Flavour is { } id && Flavour.Of(id).SpeedLimitUnit == "mm/min";

        public IReadOnlyList<ReportedFact> Facts => [.. _facts.Values];
        public Corner? Corner { get; private set; }
        public List<string> LeftOut { get; } = [];

        public void Take(string line)
        {
            if (Command().Match(line) is not { Success: true } match) return;
            var words = Word().Matches(WithoutComment(match.Groups["rest"].Value))
                .GroupBy(w => char.ToUpperInvariant(w.Groups["letter"].Value[0]))
                .ToDictionary(g => g.Key, g => double.Parse(g.First().Groups["value"].Value, CultureInfo.InvariantCulture));
            if (words.Count == 0) return;
            switch (match.Groups["command"].Value.ToUpperInvariant())
            {
                case "M92": EachAxis(words, "stepsPerMm", "steps per mm", "1/mm", 1, line); break;
                case "M203": EachAxis(words, "maxSpeed", "highest speed", "mm/s", _perMinute ? 1 / 60.0 : 1, line); break;
                case "M201": EachAxis(words, "maxAcceleration", "highest acceleration", "mm/s²", 1, line); break;
                case "M208": Travel(words, line); break;
                case "M205": Corners(words, 1); break;
                case "M566": Corners(words, 1 / 60.0); break;
                case "M851": Probe(words, 1, line); break;
                case "G31": Probe(words, -1, line); break;
                case "M665":
                    Fact(words, 'L', "/motion/delta/arm", "arm length", "mm", line);
                    Fact(words, 'R', "/motion/delta/radius", "tower radius", "mm", line);
                    Fact(words, 'H', "/motion/delta/homeHeight", "home height", "mm", line);
                    Fact(words, 'S', "/motion/delta/segmentsPerSecond", "segments per second", "1/s", line);
                    break;
                case "M666":
                    Fact(words, 'X', "/motion/delta/endStopLeft", "end-stop correction, left front", "mm", line);
                    Fact(words, 'Y', "/motion/delta/endStopRight", "end-stop correction, right front", "mm", line);
                    Fact(words, 'Z', "/motion/delta/endStopBack", "end-stop correction, back", "mm", line);
                    break;
                case "M218": Offset(words, 'T', line); break;
                case "G10": Offset(words, 'P', line); break;
                case "M200" when words.GetValueOrDefault('D') > 0:
                    Fact(words, 'D', "/head/nozzles/0/filamentDiameter",
                    "filament diameter", "mm", line); break;
                case "M301" or "M304" or "M307":
                    LeftOut.Add(
                    $"{line}: control values stay in the firmware; they follow the machine, not the card."); break;
                case "M206":
                    LeftOut.Add(
                    $"{line}: a home offset moves the machine's zero; set the card's origin by hand if you use it."); break;
                case "M906": LeftOut.Add($"{line}: motor currents are no facts of a card."); break;
            }
        }

        private static string WithoutComment(string rest) => rest.IndexOf(';') is var at and >= 0 ? rest[..at] : rest;

        private void EachAxis(Dictionary<char, double> words, string member, string label, string unit, double factor, string line)
        {
            foreach (var axis in Axes) Fact(words, char.ToUpperInvariant(axis[0]), JsonPointer.Axis(axis) / member,
                $"{label} {axis.ToUpperInvariant()}", unit, line, factor);
        }

        private void Travel(Dictionary<char, double> words, string line)
        {
            var member = words.GetValueOrDefault('S') == 1 ? "min" : "max";
            foreach (var axis in Axes.Take(3)) Fact(words, char.ToUpperInvariant(axis[0]), JsonPointer.Axis(axis) / member,
                $"{(member == "min" ? "least" : "greatest")} position {axis.ToUpperInvariant()}", "mm", line);
        }

        private void Corners(Dictionary<char, double> words, double factor)
        {
            if (words.TryGetValue('J', out var deviation) && deviation > 0)
                Corner = new Corner { Kind = CornerKind.JunctionDeviation, Value = deviation };
            else if (words.TryGetValue('X', out var jump))
                Corner = new Corner { Kind = CornerKind.InstantSpeedChange, Value = Math.Round(jump * factor, 4) };
        }

        private void Probe(Dictionary<char, double> words, int sense, string line)
        {
            Fact(words, 'X', "/head/probe/x", "probe's offset X", "mm", line);
            Fact(words, 'Y', "/head/probe/y", "probe's offset Y", "mm", line);
            Fact(words, 'Z', "/head/probe/z", "Z offset", "mm", line, sense);
        }

        private void Offset(Dictionary<char, double> words, char letter, string line)
        {
            if (!words.TryGetValue(letter, out var tool) || tool < 0 || tool >= (card.Head.Nozzles?.Count ?? 0)) return;
            foreach (var axis in Axes.Take(3)) Fact(words, char.ToUpperInvariant(axis[0]), JsonPointer.Nozzle((int)tool) / "offset" / axis,
                $"offset {axis.ToUpperInvariant()} of nozzle {card.Head.Nozzles![(int)tool].Id}", "mm", line);
        }

        private void Fact(Dictionary<char, double> words, char letter, string pointer, string label, string unit, string line,
            double factor = 1)
        {
            if (words.TryGetValue(letter, out var value))
                _facts[pointer] = new ReportedFact(pointer, label, unit, OldAt(pointer), Math.Round(value * factor, 6), line);
        }

        private double? OldAt(string pointer) =>
            JsonPointer.Parse(pointer).In(_card) is { ValueKind: JsonValueKind.Number } at ? at.GetDouble() : null;
    }
}

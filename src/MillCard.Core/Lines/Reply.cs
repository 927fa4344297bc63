using System.Globalization;
using System.Text.RegularExpressions;

namespace MillCard.Core.Lines;

/// <summary>Kinds of answers that a printer gives on its line.</summary>
public enum ReplyKind
{
    /// <summary>The last line was taken.</summary>
    Ok,
    /// <summary>A line is wanted again.</summary>
    Resend,
    /// <summary>It still works on something.</summary>
    Busy,
    /// <summary>Something went wrong, in the printer's words.</summary>
    Error,
    /// <summary>It has just started.</summary>
    Started,
    /// <summary>Temperatures or a position, without being the answer to a line.</summary>
    Report,
    /// <summary>Anything else.</summary>
    Text,
}

/// <summary>An answer on the line.</summary>
/// <param name="Kind">What it is.</param>
/// <param name="Text">As it came.</param>
/// <param name="Number">The line that is wanted again; −1 for none.</param>
/// <param name="Temperatures">What it says of temperatures; null where nothing.</param>
/// <param name="Position">What it says of the position; null where nothing.</param>
public sealed partial record Reply(ReplyKind Kind, string Text, long Number, LineTemperatures? Temperatures, LinePosition? Position)
{
    /// <summary>Whether it works on nothing but waits for somebody to come: for new filament, for a key.</summary>
    public bool AwaitsOwner => Kind == ReplyKind.Busy && Text.Contains("paused", StringComparison.OrdinalIgnoreCase);

    /// <summary>Reads an answer.</summary>
    public static Reply Of(string line)
    {
        var text = line.Trim();
        var (heat, place) = (HeatOf(text), PlaceOf(text));
        if (Again().Match(text) is { Success: true } again
            && long.TryParse(again.Groups[1].ValueSpan, NumberStyles.None, CultureInfo.InvariantCulture,
            out var number)) return new(ReplyKind.Resend, text, number, null, null);
        if (text.StartsWith("ok", StringComparison.Ordinal) && (text.Length == 2 || !char.IsAsciiLetterOrDigit(text[2])))
            return new(ReplyKind.Ok, text, -1, heat, place);
        if (text.StartsWith("echo:busy", StringComparison.OrdinalIgnoreCase)
            || text.StartsWith("busy:", StringComparison.OrdinalIgnoreCase)) return new(ReplyKind.Busy, text, -1, null, null);
        if (text.StartsWith("error", StringComparison.OrdinalIgnoreCase) || text.StartsWith("!!", StringComparison.Ordinal))
            return new(ReplyKind.Error, text, -1, null, null);
        if (text == "start") return new(ReplyKind.Started, text, -1, null, null);
        return new(heat is not null || place is not null ? ReplyKind.Report : ReplyKind.Text, text, -1, heat, place);
    }

    private static LineTemperatures? HeatOf(string text)
    {
        double? One(string name, int group) => Regex.Match(text,
            $@"(?<![A-Za-z]){name}0?:\s*(-?\d+(?:\.\d+)?)\s*(?:/\s*(-?\d+(?:\.\d+)?))?") is { Success: true } m && m.Groups[group].Success
            ? double.Parse(m.Groups[group].ValueSpan, CultureInfo.InvariantCulture) : null;
        if (One("T", 1) is not { } nozzle) return null;
        var targets = Target().Matches(text).Select(m => double.Parse(m.Groups[1].ValueSpan, CultureInfo.InvariantCulture)).ToArray();
        return new(nozzle, One("T", 2), One("B", 1), One("B", 2)) { HottestTarget = targets.Length > 0 ? targets.Max() : null };
    }

    private static LinePosition? PlaceOf(string text) =>
        Place().Match(text) is { Success: true } m
            ? new(double.Parse(m.Groups[1].ValueSpan, CultureInfo.InvariantCulture),
                double.Parse(m.Groups[2].ValueSpan, CultureInfo.InvariantCulture),
                double.Parse(m.Groups[3].ValueSpan, CultureInfo.InvariantCulture))
            : null;

    [GeneratedRegex(@"^(?:Resend:|rs)\s*N?(\d+)\s*$", RegexOptions.IgnoreCase)]
    private static partial Regex Again();

    // every heater's target stands behind a stroke: T0, T1, B, C alike
    [GeneratedRegex(@"(?<![A-Za-z])[A-Z]\d*:\s*-?\d+(?:\.\d+)?\s*/\s*(-?\d+(?:\.\d+)?)")]
    private static partial Regex Target();

    [GeneratedRegex(@"X:\s*(-?\d+(?:\.\d+)?)\s+Y:\s*(-?\d+(?:\.\d+)?)\s+Z:\s*(-?\d+(?:\.\d+)?)")]
    private static partial Regex Place();
}

/// <summary>Temperatures and targets, °C; null where the printer does not say.</summary>
public sealed record LineTemperatures(double Nozzle, double? NozzleTarget, double? Bed, double? BedTarget)
{
    /// <summary>The highest target of all heaters that the printer names; null where it tells no target.</summary>
    public double? HottestTarget { get; init; }
}

/// <summary>A position, mm.</summary>
public sealed record LinePosition(double X, double Y, double Z);

using MillCard.Core.Wording;

namespace MillCard.Core.Flow;

/// <summary>The line of plastic that a nozzle lays.</summary>
public static class ExtrudedLine
{
    /// <summary>Cross-section of a line, mm²: a rectangle with half-round ends, (w − h)·h + π(h/2)². Common practice, no source.</summary>
    /// <param name="width">mm; at least the height.</param>
    /// <param name="height">mm.</param>
    [Formula("Cross-section of a line", "A = (w − h)·h + π·(h/2)²",
        "Common practice, no source.", Where = "w width, h height, mm; w ≥ h")]
    public static double Area(double width, double height) =>
        width >= height ? (width - height) * height + Math.PI * height * height / 4 : Math.PI * width * width / 4;

    /// <summary>Cross-section of filament, mm².</summary>
    /// <param name="diameter">mm.</param>
    [Formula("Cross-section of filament", "A = π·d²/4",
        "Elementary geometry.", Where = "d diameter, mm")]
    public static double FilamentArea(double diameter) => Math.PI * diameter * diameter / 4;

    /// <summary>Filament fed per mm of path, mm/mm.</summary>
    /// <param name="width">Of the line, mm.</param>
    /// <param name="height">Of the line, mm.</param>
    /// <param name="diameter">Of the filament, mm.</param>
    /// <param name="flow">Ratio, 1 for the computed amount.</param>
    [Formula("Filament fed per mm of path", "f = A·k / (π·d²/4)",
        "Volume is kept: what goes in comes out.", Where = "A cross-section of the line, k flow ratio, d diameter of the filament")]
    public static double FeedPerMm(double width, double height, double diameter, double flow = 1) =>
        Area(width, height) * flow / FilamentArea(diameter);

    /// <summary>Distance of neighbouring lines that just fill, mm: w − h(1 − π/4). Common practice, no source.</summary>
    /// <param name="width">mm.</param>
    /// <param name="height">mm.</param>
    [Formula("Distance of neighbouring lines", "s = w − h·(1 − π/4)",
        "Common practice, no source.", Where = "w width, h height, mm")]
    public static double Spacing(double width, double height) => Area(width, height) / height;

    /// <summary>Speed at which a hot end's melting limit is reached, mm/s.</summary>
    /// <param name="limit">mm³/s.</param>
    /// <param name="width">mm.</param>
    /// <param name="height">mm.</param>
    /// <param name="flow">Ratio.</param>
    [Formula("Speed at the melting limit", "v = q / (A·k)",
        "Volume is kept.", Where = "q melting limit, mm³/s; A cross-section of the line; k flow ratio")]
    public static double FastestSpeed(double limit, double width, double height, double flow = 1) => limit / (Area(width, height) * flow);
}

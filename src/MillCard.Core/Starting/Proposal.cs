using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Flow;
using MillCard.Core.Heat;

namespace MillCard.Core.Starting;

/// <summary>A moderate recipe and filament with which a first trial on a new card can be sliced. Common practice, no source.</summary>
public static class Proposal
{
    private const double Share = 0.8;

    /// <summary>Share of the temperature where a bed ends that it reaches in a reasonable time.</summary>
    private const double EasyShare = 0.85;

    /// <summary>Half the nozzle high, a tenth wider than it, and no faster than four fifths of what melts.</summary>
    /// <param name="card">A complete card.</param>
    public static Recipe Recipe(Card card)
    {
        var nozzle = card.Head.Nozzles![0];
        var d = nozzle.Diameter!.Value;
        var (height, width) = (Step(0.5 * d), Math.Round(1.1 * d, 2));
        var fastest = Share * ExtrudedLine.FastestSpeed(nozzle.MaxFlow ?? 8, width, height, 1);
        double Speed(double wanted) => Math.Max(5, Math.Floor(Math.Min(wanted, fastest)));
        return new Recipe
        {
            Name = $"Moderate, for {card.Name ?? "a new machine"}",
            Layers = new() { First = Step(0.6 * d), Others = height },
            LineWidth = width,
            Walls = 3,
            TopLayers = (int)Math.Ceiling(0.8 / height),
            BottomLayers = (int)Math.Ceiling(0.8 / height),
            Infill = new() { Density = 0.2 },
            Skirt = new() { Rounds = 1, Gap = 4 },
            Speeds = new()
            {
                OuterWall = Speed(35),
                InnerWall = Speed(50),
                Solid = Speed(50),
                Infill = Speed(60),
                Travel = Math.Min(120, card.Motion.Axes.X?.MaxSpeed ?? 120),
                FirstLayer = Speed(20)
            },
            Retraction = new() { LeastTravel = 2 },
        };
    }

    /// <summary>PLA of the diameter that the card names, which most machines can print.</summary>
    /// <param name="card">A complete card.</param>
    public static Filament Filament(Card card)
    {
        var nozzle = card.Head.Nozzles![0];
        var hottest = nozzle.MaxTemperature ?? 230;
        // a weak bed takes for ever over its last degrees
        var bed = card.Envelope.Heated == true
            ? Math.Min(60, Math.Floor(Math.Min(card.Heat.Bed?.Max ?? 60, EasyShare * (Heaters.Bed(card)?.Reachable ?? 71)))) : 0;
        return new Filament
        {
            Name = $"PLA {nozzle.FilamentDiameter:0.##}, to begin with",
            Material = "PLA",
            Diameter = nozzle.FilamentDiameter,
            Density = 1.24,
            Nozzle = new() { First = Math.Min(210, hottest), Others = Math.Min(205, hottest), Standby = 150, OozesFrom = 160 },
            Bed = new() { First = bed, Others = bed },
            MaxFlow = nozzle.MaxFlow,
            Fan = new() { Share = 1, FromLayer = 2 },
        };
    }

    /// <summary>A plain start: warm together, home, wait late.</summary>
    /// <param name="card">A card, complete or not.</param>
    public static string Start(Card card)
    {
        var flavour = Spoken(card);
        var level = card.Head.Probe is { Kind: not (null or ProbeKind.None) } ? flavour.Spell("level") ?? "G29" : null;
        var up = $"G1 Z10 F{Rising(card):0}";
        return Lines([.. HeaterLines.Warm(flavour, card.Envelope.Heated == true, "M83", "G28", level, up), "G92 E0"]);
    }

    /// <summary>A plain end: back a little, up, then everything off.</summary>
    /// <param name="card">A card, complete or not.</param>
    public static string End(Card card) => Lines(["; up first, then all off", "G1 E-2 F2100", $"G1 Z{{{{ clear.z }}}} F{Rising(card):0}",
        .. HeaterLines.Off(Spoken(card), card.Head.Nozzles?.Count ?? 1, card.Envelope.Heated == true)]);

    /// <summary>The card's flavour; words that all of them know where it does not say one.</summary>
    private static Flavour Spoken(Card card) => card.Firmware.Flavour is null ? Flavour.Of(FlavourId.Marlin) : Flavour.Of(card.Firmware);

    private static string Lines(IEnumerable<string> lines) => string.Concat(lines.Select(line => $"{line}\n"));

    /// <summary>10 mm/s, or what Z makes, in mm/min.</summary>
    private static double Rising(Card card) => Math.Floor(60 * Math.Min(10, card.Motion.Axes.Z?.MaxSpeed ?? 10));

    /// <summary>Rounded to 0.02 mm, which is a whole or half step on common screws.</summary>
    private static double Step(double height) => Math.Round(Math.Max(0.02, Math.Round(height / 0.02) * 0.02), 2);
}

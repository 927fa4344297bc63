using MillCard.Core.Wording;

namespace MillCard.Core.Flow;

/// <summary>A filament of one diameter in a machine that is fed another.</summary>
public static class FedDiameter
{
    /// <summary>Diameters that differ by less are the same, mm: lots and makers differ by so much. Common practice, no source.</summary>
    public const double Same = 0.15;

    /// <summary>Whether a filament is not what a machine is fed; false where either is not known.</summary>
    /// <param name="fed">What the card says the machine is fed, mm.</param>
    /// <param name="filament">The filament's diameter, mm.</param>
    public static bool Differs(double? fed, double? filament) => fed is { } has && filament is { } asks && Math.Abs(has - asks) > Same;

    /// <summary>What comes out of what is asked for, as a ratio: lengths are computed for the filament, and the machine pushes what it is
    /// fed.</summary>
    /// <param name="fed">What the card says the machine is fed, mm.</param>
    /// <param name="filament">The filament's diameter, mm.</param>
    [Formula("What comes out with another filament", "(d₁/d₂)²",
        "Volume is kept.", Where = "d₁ what is fed, d₂ what it was computed for")]
    public static double Share(double fed, double filament) => ExtrudedLine.FilamentArea(fed) / ExtrudedLine.FilamentArea(filament);
}

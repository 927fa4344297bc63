using MillCard.Core.Documents;

namespace MillCard.Core.Records;

/// <summary>A kept state of a trial.</summary>
public sealed record VariantState : OpenRecord
{
    /// <summary>Parts, zones, events and the documents it names.</summary>
    public required Trial Trial { get; init; }
    /// <summary>The recipe as it was.</summary>
    public required Recipe Recipe { get; init; }
    /// <summary>What came of it.</summary>
    public required VariantFigures Figures { get; init; }
}

/// <summary>What came of a state.</summary>
/// <param name="Seconds">Time on the machine.</param>
/// <param name="Filament">mm.</param>
/// <param name="Grams">Null where the density is not known.</param>
/// <param name="Cost">Null where nothing has a price.</param>
/// <param name="PeakFlow">Most plastic melted, mm³/s; null where it is not known.</param>
/// <param name="Layers">Layers.</param>
/// <param name="Stops">Findings that stop.</param>
/// <param name="Cautions">Findings that warn.</param>
public sealed record VariantFigures(double Seconds, double Filament, double? Grams, double? Cost, double? PeakFlow, int Layers,
    int Stops, int Cautions);

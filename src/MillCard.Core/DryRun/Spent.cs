using MillCard.Core.Documents;
using MillCard.Core.Flow;

namespace MillCard.Core.DryRun;

/// <summary>What one nozzle used.</summary>
/// <param name="Nozzle">Index of the nozzle.</param>
/// <param name="Filament">mm.</param>
/// <param name="Grams">Mass; null where diameter or density is not known.</param>
/// <param name="Cost">In the owner's money; null where mass or price is not known.</param>
public sealed record NozzleSpent(int Nozzle, double Filament, double? Grams, double? Cost);

/// <summary>What a program uses: filament, mass and money, by nozzle and in sum.</summary>
/// <param name="ByNozzle">One a nozzle.</param>
/// <param name="Filament">mm.</param>
/// <param name="Grams">Mass; null where it is not known of a filament that is used.</param>
/// <param name="Cost">In the owner's money: filament by weight, machine by the hour; null where neither has a price.</param>
public sealed record Spent(IReadOnlyList<NozzleSpent> ByNozzle, double Filament, double? Grams, double? Cost)
{
    /// <summary>Of a program that was run.</summary>
    /// <param name="run">Its dry run.</param>
    /// <param name="card">The machine.</param>
    /// <param name="filaments">What is in the nozzles, by tool; the last one stands for those behind it.</param>
    /// <param name="copies">How many parts come of each that is printed.</param>
    public static Spent Of(DryRunReport run, Card card, IReadOnlyList<Filament?> filaments, int copies = 1)
    {
        // a mode that the program itself does not name prints the copies all the same
        var share = run.FilamentOf.Sum() is var all and > 0 ? Math.Max(1, copies * run.Filament / all) : 1;
        NozzleSpent[] each = [.. run.FilamentOf.Select((mm, i) => Of(i, mm * share, filaments[Math.Min(i, filaments.Count - 1)]))];
        var byHour = card.CostPerHour * run.TotalSeconds / 3600;
        var byWeight = each.Select(n => n.Cost ?? (n.Filament == 0 ? 0 : null)).Aggregate((double?)0, (a, b) => a + b);
        return new Spent(each, each.Sum(n => n.Filament), each.Select(n => n.Grams).Aggregate((double?)0, (a, b) => a + b),
            byWeight is null ? byHour : byWeight + (byHour ?? 0));
    }

    private static NozzleSpent Of(int nozzle, double length, Filament? filament)
    {
        var grams = length == 0 ? 0 : filament is { Density: { } density, Diameter: { } diameter }
            ? length * ExtrudedLine.FilamentArea(diameter) * density / 1000 : (double?)null;
        return new NozzleSpent(nozzle, length, grams, grams * filament?.PricePerKg / 1000);
    }
}

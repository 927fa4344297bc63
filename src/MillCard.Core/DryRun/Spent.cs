using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Wording;

namespace MillCard.Core.DryRun;

/// <summary>What one nozzle used.</summary>
/// <param name="Nozzle">Index of the nozzle.</param>
/// <param name="Seconds">How long it was in use, its changes and waits included; in copy and mirror both are in use together.</param>
/// <param name="Filament">mm.</param>
/// <param name="Grams">Mass; null where diameter or density is not known.</param>
/// <param name="Cost">In the owner's money; null where mass or price is not known.</param>
public sealed record NozzleSpent(int Nozzle, double Seconds, double Filament, double? Grams, double? Cost);

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
        var seconds = SecondsOf(run);
        NozzleSpent[] each = [.. run.FilamentOf.Select((mm, i) =>
            Of(i, seconds[i], mm * share, filaments[Math.Min(i, filaments.Count - 1)]))];
        var byHour = card.CostPerHour * run.TotalSeconds / 3600;
        var byWeight = each.Select(n => n.Cost ?? (n.Filament == 0 ? 0 : null)).Aggregate((double?)0, (a, b) => a + b);
        return new Spent(each, each.Sum(n => n.Filament), each.Select(n => n.Grams).Aggregate((double?)0, (a, b) => a + b),
            byWeight is null ? byHour : byWeight + (byHour ?? 0));
    }

    /// <summary>The time up to each move goes to the tool that makes it.</summary>
    private static double[] SecondsOf(DryRunReport run)
    {
        var (seconds, gone, last) = (new double[run.FilamentOf.Length], 0.0, 0);
        foreach (ref readonly var move in run.Moves)
        {
            var end = move.Line + 1 < run.Starts.Length ? run.Starts[move.Line + 1] : run.TotalSeconds;
            seconds[last = move.Tool] += end - gone;
            gone = end;
        }
        if (seconds.Length > 0) seconds[last] += run.TotalSeconds - gone;
        // a second carriage prints along with the first
        for (var i = 1; i < seconds.Length; i++) if (seconds[i] == 0 && run.FilamentOf[i] > 0) seconds[i] = seconds[0];
        return seconds;
    }

    private static NozzleSpent Of(int nozzle, double seconds, double length, Filament? filament)
    {
        var (grams, cost) = WorthOf(length, filament);
        return new NozzleSpent(nozzle, seconds, length, grams, cost);
    }

    /// <summary>Mass and price of a length of filament; null where they are not known.</summary>
    [Formula("Mass of filament", "m = L·(π·d²/4)·ρ",
        "Elementary geometry.",
        Where = "L length, d diameter, ρ density")]
    internal static (double? Grams, double? Cost) WorthOf(double length, Filament? filament)
    {
        double? grams = (length, filament) switch
        {
            (0, _) => 0,
            (_, { Density: { } density, Diameter: { } diameter }) => length * ExtrudedLine.FilamentArea(diameter) * density / 1000,
            _ => null,
        };
        return (grams, grams * filament?.PricePerKg / 1000);
    }
}

using MillCard.Core.Documents;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Pulling back and lifting as a job does it, all lengths in mm.</summary>
/// <param name="Length">Of filament; 0 for none.</param>
/// <param name="Speed">mm/s.</param>
/// <param name="Lift">Of Z while travelling.</param>
/// <param name="Wipe">Way back along the line just laid.</param>
/// <param name="LeastTravel">Shorter travels go without.</param>
public sealed record Pullback(double Length, double Speed, double Lift, double Wipe, double LeastTravel)
{
    /// <summary>Whether a filament is not to be pulled back at all, such as a flexible one: that holds whatever else is said.</summary>
    public static bool IsForbidden(Filament filament) => filament.Retraction?.Length == 0;

    /// <summary>The recipe's where it says so, else the filament's, else the head's, else what the feed proposes; none where the filament
    /// forbids it.</summary>
    public static Pullback Of(Nozzle nozzle, Filament filament, Recipe recipe, double? layers = null)
    {
        var proposed = ProposedFor(nozzle.Feed);
        var (head, departs, own) = (nozzle.Retraction, filament.Retraction, recipe.Retraction);
        var length = IsForbidden(filament) ? 0 : layers ?? own.Length ?? departs?.Length ?? head?.Length ?? proposed.Length!.Value;
        return new Pullback(length, own.Speed ?? departs?.Speed ?? head?.Speed ?? proposed.Speed!.Value,
            own.Lift ?? departs?.Lift ?? head?.Lift ?? proposed.Lift!.Value,
            own.Wipe ?? departs?.Wipe ?? head?.Wipe ?? proposed.Wipe!.Value, own.LeastTravel);
    }

    /// <summary>What suits a feed. A direct one pulls back up to 1 or 2 mm, a long tube 4 to 7 mm at 25 to 60 mm/s; common practice, no
    /// source.</summary>
    /// <param name="feed">The feed; direct where nothing is said.</param>
    public static HeadRetraction ProposedFor(Feed? feed) =>
        feed?.Kind == FeedKind.LongTube
            ? new() { Length = 5, Speed = 40, Lift = 0, Wipe = 0 }
            : new() { Length = 0.8, Speed = 35, Lift = 0, Wipe = 0 };
}

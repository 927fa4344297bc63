using MillCard.Core.Documents;
using MillCard.Core.Motion;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Writing;

namespace MillCard.Core.Settings;

/// <summary>Settings that nozzle, feed and ladder of the machine have their say in.</summary>
internal static class FittedSettings
{
    /// <summary>Heights and widths that the machine decides: rungs of its ladder, shares of its nozzle.</summary>
    public static ResolvedSetting? Fitted(SliceJob job, int nozzle, Recipe used, Leaf leaf)
    {
        var recipe = job.Recipe;
        string Say(double? v) => v is { } number ? Invariant($"{number:0.####}") : "";
        var heights = Ladder.Heights(recipe.Layers, job.Machine.Card, nozzle);
        ResolvedSetting? OfLadder(SettledHeight height, double? said) => height.Why is null ? null
            : new(leaf.Label, leaf.Unit, Say(height.Height), height.From is HeightFrom.LadderTooCoarse or HeightFrom.LadderUnknown
                ? GivenBy.Recipe : GivenBy.Card, job.Machine.Card.Name ?? "card", "/motion/axes/z/drive",
                said is null ? [height.Why.Text] : [height.Why.Text, $"{Say(said)} mm of {recipe.Name}"]);
        return leaf.Pointer switch
        {
            "/layers/others" => OfLadder(heights.Others, recipe.Layers.Others),
            "/layers/first" => OfLadder(heights.First, recipe.Layers.First),
            "/lineWidth" when recipe.LineWidthOfNozzle is { } share =>
                new(leaf.Label, leaf.Unit, Say(used.LineWidth), GivenBy.Nozzle, job.Machine.Nozzles[nozzle].Id,
                JsonPointer.Nozzle(nozzle) / "diameter", [$"{100 * share:0} % of the nozzle, says {recipe.Name}"]),
            _ => null,
        };
    }

    /// <summary>How a filament is pulled back: as the recipe says, the filament, the nozzle, or as is usual for its feed.</summary>
    public static ResolvedSetting Retraction(SliceJob job, int index, Leaf leaf)
    {
        var nozzle = job.Machine.Nozzles[index];
        var proposed = Pullback.ProposedFor(nozzle.Feed);
        double? Of(HeadRetraction? r) =>
            leaf.Pointer switch { "/retraction/length" => r?.Length, "/retraction/speed" => r?.Speed, _ => r?.Lift };
        var own = job.Recipe.Retraction;
        var given = new (double? Value, GivenBy From, string Who, string Pointer)[]
        {
            (leaf.Pointer switch { "/retraction/length" => own.Length, "/retraction/speed" => own.Speed, _ => own.Lift }, GivenBy.Recipe,
                job.Recipe.Name ?? "recipe", leaf.Pointer),
            (Of(job.FilamentOf(index).Retraction), GivenBy.Filament, job.FilamentOf(index).Name ?? "filament", leaf.Pointer),
            (Of(nozzle.Retraction), GivenBy.Nozzle, nozzle.Id, JsonPointer.Nozzle(index) + JsonPointer.Parse(leaf.Pointer)),
            (Of(proposed), GivenBy.Usual, nozzle.Feed?.Kind == FeedKind.LongTube ? "usual for a long tube"
                : "usual for a direct feed", JsonPointer.Nozzle(index) / "feed"),
        }.Where(g => g.Value is not null).ToArray();
        // a filament that is not to be pulled back at all wins over whoever says otherwise
        if (leaf.Pointer == "/retraction/length" && Pullback.IsForbidden(job.FilamentOf(index)))
            given = [.. given.OrderByDescending(g => g.From == GivenBy.Filament)];
        var (value, from, who, pointer) = given[0];
        return new(leaf.Label, leaf.Unit, Invariant($"{value!.Value:0.###}"), from, who, pointer,
            [.. given.Skip(1).Select(g => Invariant($"{g.Value:0.###} {leaf.Unit}, {g.Who}"))]);
    }

    /// <summary>The melting limit: the smaller of nozzle and filament holds.</summary>
    public static IEnumerable<ResolvedSetting> Limits(SliceJob job, int index)
    {
        var (nozzle, filament) = (job.Machine.Nozzles[index], job.FilamentOf(index));
        var limits = new (double? Value, GivenBy From, string Who,
            string Pointer)[] { (nozzle.MaxFlow, GivenBy.Nozzle, nozzle.Id, JsonPointer.Nozzle(index) / "maxFlow"),
            (filament.MaxFlow, GivenBy.Filament, filament.Name ?? "filament", "/maxFlow") }
            .Where(l => l.Value is not null).OrderBy(l => l.Value).ToArray();
        if (limits.Length == 0) yield break;
        yield return new("most plastic melted", "mm³/s", Invariant($"{limits[0].Value!.Value:0.##}"),
            limits[0].From, limits[0].Who, limits[0].Pointer,
            [.. limits.Skip(1).Select(l => Invariant($"{l.Value:0.##} mm³/s, {l.Who}"))]);
    }
}

using MillCard.Core.Documents;

namespace MillCard.Core.Settings;

/// <summary>What a setting of a recipe tends to do. Common practice, no source.</summary>
/// <param name="Pointer">The setting.</param>
/// <param name="Says">In a line.</param>
/// <param name="Tends">Outcomes; for a choice, what the choice bears on, without a direction.</param>
public sealed record Effect(string Pointer, string Says, IReadOnlyList<Tendency> Tends);

/// <summary>What moves what, as the recipe's records say (<see cref="TendsAttribute"/>).</summary>
public static class Effects
{
    /// <summary>One entry a setting of a recipe.</summary>
    public static IReadOnlyList<Effect> All { get; } =
        [.. Leaves.Of<Recipe>().Where(leaf => leaf.Tends is not null)
            .Select(leaf => new Effect(leaf.Pointer, leaf.Tends!.Says, leaf.Tends.Tendencies))];

    /// <summary>Settings that tend to move an outcome, those that move it most first.</summary>
    public static IReadOnlyList<Effect> On(Outcome outcome) =>
        [.. All.Where(e => e.Tends.Any(t => t.Outcome == outcome))
            .OrderByDescending(e => Math.Abs(e.Tends.First(t => t.Outcome == outcome).By))];
}

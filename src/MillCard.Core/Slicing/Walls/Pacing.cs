using MillCard.Core.Documents;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Gives a part's own lines the speeds that its settings ask for.</summary>
internal static class Pacing
{
    /// <summary>The layer with them: small rings and what lies over air are slower.</summary>
    /// <param name="layer">The part's own lines.</param>
    /// <param name="paces">Recipes with the speeds, by the numbers that lines carry; the part's own comes first.</param>
    /// <param name="carried">What lies below; null where it carries all.</param>
    /// <param name="number">The layer, counted from 0.</param>
    public static PartLayer Of(PartLayer layer, IReadOnlyList<Recipe> paces, Shape? carried, int number)
    {
        using var over = carried is null ? null : new OverAir(carried, paces[0].WidthOn(number, PathKind.OuterWall));
        return layer with
        {
            Walls = [.. layer.Walls.Select(Walls)],
            Thin = Walls(layer.Thin),
            Fill = [.. layer.Fill.Select(group => (IReadOnlyList<ToolPath>)[.. group.Select(path => Usual(path))])],
        };

        IReadOnlyList<ToolPath> Walls(IReadOnlyList<ToolPath> paths) => [.. paths.Select(path => path.Climbs ? Usual(path)
            : over?.Marked(Small(Usual(path)), paces[path.PacedBy].Speeds) ?? Small(Usual(path)))];

        ToolPath Usual(ToolPath path) => path with { Speed = paces[path.PacedBy].SpeedOf(path.Kind) };

        ToolPath Small(ToolPath path) => paces[path.PacedBy].Speeds is { Small: { } slow } speeds && path.Closed
            && path.Length < speeds.SmallBelow ? path with { Speed = Math.Min(slow, path.Speed!.Value) } : path;
    }
}

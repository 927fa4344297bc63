using MillCard.Core.Documents;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Gives lines the speeds that their settings ask for.</summary>
/// <param name="paces">Recipes with the speeds, by the numbers that lines carry; the part's own comes first.</param>
internal sealed class Pacing(IReadOnlyList<Recipe> paces)
{
    /// <summary>A layer with them: small rings and what hangs over air are slower.</summary>
    public PartLayer Of(PartLayer layer) => layer with
    {
        Walls = [.. layer.Walls.Select(Walls)],
        Thin = Walls(layer.Thin),
        Fill = [.. layer.Fill.Select(group => (IReadOnlyList<ToolPath>)[.. group.Select(Usual)])],
        Supports = [.. layer.Supports.Select(Usual)],
    };

    private IReadOnlyList<ToolPath> Walls(IReadOnlyList<ToolPath> paths) => [.. paths.Select(path => Hanging(Small(Usual(path))))];

    private Speeds Speeds(ToolPath path) => paces[path.PacedBy].Speeds;

    private ToolPath Usual(ToolPath path) => path with { Speed = paces[path.PacedBy].SpeedOf(path.Kind) };

    private ToolPath Small(ToolPath path) => Speeds(path) is { Small: { } slow } speeds && path is { Closed: true, Climbs: false }
        && path.Length < speeds.SmallBelow ? path with { Speed = Math.Min(slow, path.Speed!.Value) } : path;

    private ToolPath Hanging(ToolPath path) => path.Hanging is { } quarters
        ? path with { Paces = Array.ConvertAll(quarters, q => PaceOf(q, path.Speed!.Value, Speeds(path))) } : path;

    private static Pace PaceOf(byte quarters, double speed, Speeds speeds) => quarters switch
    {
        0 => new(speed, Hangs: false),
        1 => new(speed * speeds.Overhangs.Quarter, Hangs: false),
        2 => new(speed * speeds.Overhangs.Half, Hangs: false),
        3 => new(speed * speeds.Overhangs.ThreeQuarters, Hangs: false),
        _ => new(Math.Min(speed, speeds.Bridge), Hangs: true),
    };
}

using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Order;

/// <summary>The paths of a layer as they are put in order.</summary>
internal sealed class OrderedLayer(Point start)
{
    public List<ToolPath> Paths { get; } = [];
    public Point Here { get; private set; } = start;
    /// <summary>Ways that stay within the part that is being laid; null for straight ways.</summary>
    public InsideTravel? Inside { get; set; }

    public void Add(IEnumerable<ToolPath> paths, int nozzle, int? part = null)
    {
        foreach (var path in paths) Put(path with { Nozzle = nozzle, Part = part });
    }

    /// <summary>Nearest next; rings may begin at any corner unless they keep their seams.</summary>
    public void AddNearest(IReadOnlyList<ToolPath> paths, int nozzle, int part, bool keepSeams = false)
    {
        foreach (var path in TravelOrder.Of(paths, Here, keepSeams)) Put(path with { Nozzle = nozzle, Part = part });
    }

    private void Put(ToolPath path)
    {
        var before = Paths.Count > 0 ? Paths[^1] : null;
        if (Inside is not null && before is not null && before.Part == path.Part && before.Nozzle == path.Nozzle
            && before.Kind.IsPart() && Inside.Between(before.End, path.Points[0]) is { } way)
            path = path with { Approach = way };
        Paths.Add(path);
        Here = path.End;
    }
}

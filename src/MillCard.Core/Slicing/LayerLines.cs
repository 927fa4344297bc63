using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Filling;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Walls;

namespace MillCard.Core.Slicing;

/// <summary>The part's own lines on one layer: walls, thin places and fill, by the settings of every zone it lies in.</summary>
internal sealed class LayerLines
{
    private readonly Shape _region;
    private readonly LayerPlace _place;
    private readonly int _layer;
    private readonly List<IReadOnlyList<ToolPath>> _walls = [], _fill = [];
    private readonly List<ToolPath> _thin = [];

    private LayerLines(Shape region, LayerPlace place, int layer) => (_region, _place, _layer) = (region, place, layer);

    /// <summary>Lays them.</summary>
    /// <param name="region">What is plastic.</param>
    /// <param name="place">The layer's top and height.</param>
    /// <param name="layer">Counted from 0.</param>
    /// <param name="pieces">Zones of the region, each with its settings.</param>
    /// <param name="filler">Fills what walls leave.</param>
    public static PartLayer Of(Shape region, LayerPlace place, int layer, IReadOnlyList<(Recipe Recipe, Shape Area)> pieces,
        LayerFill filler)
    {
        var lines = new LayerLines(region, place, layer);
        var (first, alone) = (pieces[0].Recipe, pieces.Count == 1);
        var sameWalls = pieces.All(p => HasSameWalls(p.Recipe, first));
        for (var k = 0; k < pieces.Count; k++)
        {
            var (recipe, area) = pieces[k];
            var own = WallLines.Of(region, recipe.Walls, lines.Outer(recipe), lines.Inner(recipe), place.Height, recipe.Wall.FillThin);
            if (k == 0 || !sameWalls) lines.Walls(own, recipe, alone || sameWalls ? null : area);
            var groups = filler.Of(layer, recipe, alone ? own.Inside : Plane.Intersection(own.Inside, area));
            lines._fill.AddRange(groups.Select(g => (IReadOnlyList<ToolPath>)[.. Speeded(g, recipe)]));
        }
        return new PartLayer(region, lines._walls, lines._thin, lines._fill, []);
    }

    private static bool HasSameWalls(Recipe a, Recipe b) => a.Walls == b.Walls && a.Widths == b.Widths && a.Speeds == b.Speeds;

    private double Outer(Recipe recipe) => recipe.WidthOn(_layer, PathKind.OuterWall);

    private double Inner(Recipe recipe) => recipe.WidthOn(_layer, PathKind.InnerWall);

    /// <summary>Rings from the outside in and the single lines of thin places and gaps, cut to a zone.</summary>
    private void Walls(WallLines own, Recipe recipe, Shape? within)
    {
        var (outer, inner) = (Outer(recipe), Inner(recipe));
        for (var wall = 0; wall < own.Middles.Count; wall++)
        {
            var rings = wall == 0 ? WallLines.Rings(own.Middles[wall], PathKind.OuterWall, outer)
                : WallLines.Rings(own.Middles[wall], PathKind.InnerWall, inner);
            if (_walls.Count <= wall) _walls.Add([]);
            _walls[wall] = [.. _walls[wall], .. Speeded(within is null ? rings : Cut(rings, within), recipe)];
        }
        IEnumerable<ToolPath> single = [.. ThinLines.Of(own.Thin, 0.4 * outer, 2 * outer, 0),
            .. ThinLines.Of(own.Gaps, 0.3 * inner, 2 * inner, _place.Height * (1 - Math.PI / 4))];
        _thin.AddRange(Speeded(within is null ? single : Cut(single, within), recipe));
    }

    private static IEnumerable<ToolPath> Speeded(IEnumerable<ToolPath> paths, Recipe recipe) =>
        paths.Select(p => p with { Speed = recipe.SpeedOf(p.Kind) });

    /// <summary>Lines cut to a zone; a ring that lies in it whole stays a ring.</summary>
    private static IEnumerable<ToolPath> Cut(IEnumerable<ToolPath> paths, Shape area)
    {
        using var clip = new Clip(area);
        foreach (var path in paths)
        {
            Point[] way = path.Closed ? [.. path.Points, path.Points[0]] : path.Points;
            var pieces = clip.Of(way).ToArray();
            if (pieces.Length == 1 && pieces[0].Length == way.Length && pieces[0].SequenceEqual(way)) yield return path;
            else foreach (var piece in pieces) yield return path with { Points = piece, Closed = false };
        }
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Closing;
using MillCard.Core.Slicing.Filling;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Walls;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing;

/// <summary>The part's own lines on one layer: walls, thin places and fill, by the settings of every zone it lies in. How fast they are
/// laid comes later.</summary>
internal sealed class LayerLines
{
    /// <summary>Lines that may lie between the walls of both sides in place of fill.</summary>
    private const int BetweenWalls = 1;

    /// <summary>The same where the inside is solid: rows across so narrow a place would be short and leave holes along its sides.</summary>
    private const int BetweenWhereSolid = 5;

    /// <summary>As many lines lie across a place where the inside is solid, however few walls are asked for.</summary>
    private const int AcrossWhereSolid = 11;

    /// <summary>Arcs need some play where none is asked for, mm.</summary>
    private const double LeastArcError = 0.002;

    private readonly Shape _region;
    private readonly LayerPlace _place;
    private readonly int _layer;
    private readonly List<IReadOnlyList<ToolPath>> _walls = [], _fill = [];
    private List<ToolPath> _thin = [];
    private readonly List<TooThin> _missing = [];

    private LayerLines(Shape region, LayerPlace place, int layer) => (_region, _place, _layer) = (region, place, layer);

    /// <summary>Lays them.</summary>
    /// <param name="region">What is plastic.</param>
    /// <param name="place">The layer's top and height.</param>
    /// <param name="layer">Counted from 0.</param>
    /// <param name="pieces">Zones of the region, each with its settings.</param>
    /// <param name="filler">Fills what walls leave.</param>
    public static PartLayer Of(Shape region, LayerPlace place, int layer, IReadOnlyList<Piece> pieces, LayerFill filler)
    {
        var lines = new LayerLines(region, place, layer);
        var (first, alone) = (pieces[0].Recipe, pieces.Count == 1);
        var sameWalls = pieces.All(p => HaveSameWalls(p, pieces[0]));
        var (sparse, haveHoles) = (new List<Shape>(), false);
        for (var k = 0; k < pieces.Count; k++)
        {
            var (piece, recipe) = (pieces[k], pieces[k].Recipe);
            var own = WallLines.Of(region, lines.Plan(recipe, filler.Nozzle));
            if (k == 0 || !sameWalls) lines.Walls(own, piece, alone || sameWalls ? null : piece.Area);
            var fill = filler.Of(layer, recipe, alone ? own.Inside : Plane.Intersection(own.Inside, piece.Area));
            lines._fill.AddRange(fill.Groups.Select(g => (IReadOnlyList<ToolPath>)[.. Paced(g, piece)]));
            sparse.Add(fill.Sparse);
            haveHoles |= own.MayLeaveHoles || fill.Groups.Any(group => group.Any(IsFull));
        }
        if (haveHoles && pieces.All(p => p.Recipe.Wall.FillThin))
            lines.Settle(Plane.Union(sparse), areCut: !alone && !sameWalls, first, lines.Plan(first, filler.Nozzle));
        return new PartLayer(region, [.. lines._walls.Select(Thinned)], Thinned(lines._thin), [.. lines._fill.Select(Thinned)], [])
        {
            Missing = lines._missing,
        };

        IReadOnlyList<ToolPath> Thinned(IReadOnlyList<ToolPath> paths) => [.. paths.Select(path =>
            path.Thinned(first.Deviation) with { ArcsWithin = first.Arcs ? Math.Max(first.Deviation, LeastArcError) : null })];
    }

    private static bool HaveSameWalls(Piece one, Piece other) => one.Paces == other.Paces && HaveSameWalls(one.Recipe, other.Recipe);

    private static bool HaveSameWalls(Recipe a, Recipe b) =>
        a.Walls == b.Walls && a.Wall == b.Wall && a.Widths == b.Widths && Between(a) == Between(b);

    private static int Between(Recipe recipe) =>
        recipe.Infill.Density >= 1 ? Math.Max(BetweenWhereSolid, AcrossWhereSolid - 2 * recipe.Walls) : BetweenWalls;

    private WallPlan Plan(Recipe recipe, double nozzle)
    {
        var (outer, inner) = (recipe.WidthOn(_layer, PathKind.OuterWall), recipe.WidthOn(_layer, PathKind.InnerWall));
        var more = recipe.Wall.Alternate && recipe.Walls > 0 && _layer % 2 == 1 ? 1 : 0;
        return new(recipe.Walls + more, outer, inner, _place.Height, Between(recipe),
            Math.Min(recipe.Wall.LeastLine * nozzle, Math.Min(outer, inner)),
            Math.Max(recipe.Wall.GreatestLine * nozzle, Math.Max(outer, inner)), recipe.Wall.FillThin);
    }

    /// <summary>Rings from the outside in and the single lines of thin places and gaps, cut to a zone.</summary>
    private void Walls(WallLines own, Piece piece, Shape? within)
    {
        var wallUse = piece.Recipe.Wall;
        for (var wall = 0; wall < own.Walls.Count; wall++)
        {
            if (_walls.Count <= wall) _walls.Add([]);
            var rings = wall == 0 && _layer > 0 && wallUse.Texture > 0 ? own.Walls[0].Select(r => Texture.On(r, wallUse, _layer))
                : own.Walls[wall];
            _walls[wall] = [.. _walls[wall], .. Paced(within is null ? rings : Cut(rings, within), piece)];
        }
        _thin.AddRange(Paced(within is null ? own.Thin : Cut(own.Thin, within), piece));
        _missing.AddRange(own.Missing.Where(m => within?.Covers(Plane.Factory.CreatePoint(new Coordinate(m.At.X, m.At.Y))) ?? true));
    }

    /// <summary>Leads lines into the holes that they leave between each other, and makes them narrower where together they hold too
    /// much.</summary>
    /// <param name="sparse">Where there is infill or nothing.</param>
    /// <param name="areCut">Whether walls end where a zone does: others go on from there.</param>
    /// <param name="recipe">What holds there.</param>
    /// <param name="plan">How its walls are laid.</param>
    private void Settle(Shape sparse, bool areCut, Recipe recipe, WallPlan plan)
    {
        ToolPath[] full = [.. _walls.Append(_thin).Concat(_fill).SelectMany(group => group).Where(IsFull)];
        var beside = (1 - WallLines.Lap) * ExtrudedLine.Spacing(plan.Inner, plan.Height) / 2;
        var (led, next) = (Holes.Filled(full, _region, sparse, beside, MayLead), 0);
        if (!areCut && recipe.Wall.Texture == 0) led = Balance.Of(led, _region, sparse, plan.Height, plan.Least);
        for (var i = 0; i < _walls.Count; i++) _walls[i] = Led(_walls[i]);
        _thin = [.. Led(_thin)];
        for (var i = 0; i < _fill.Count; i++) _fill[i] = Led(_fill[i]);

        IReadOnlyList<ToolPath> Led(IReadOnlyList<ToolPath> paths) => [.. paths.Select(path => IsFull(path) ? led[next++] : path)];
        bool MayLead(ToolPath path) => path.Kind switch
        {
            PathKind.OuterWall => !areCut && recipe.Wall.Texture == 0,
            PathKind.InnerWall or PathKind.Thin => !areCut,
            PathKind.Top => !recipe.Top.OneDirection,
            PathKind.Bridge => false,
            _ => true,
        };
    }

    private static bool IsFull(ToolPath path) => path.Kind is not (PathKind.Infill or PathKind.Smoothing);

    private static IEnumerable<ToolPath> Paced(IEnumerable<ToolPath> paths, Piece piece) =>
        piece.Paces == 0 ? paths : paths.Select(p => p with { PacedBy = piece.Paces });

    /// <summary>Lines cut to a zone; a ring that lies in it whole stays a ring.</summary>
    private static IEnumerable<ToolPath> Cut(IEnumerable<ToolPath> paths, Shape area)
    {
        using var clip = new Clip(area);
        foreach (var path in paths.SelectMany(p => p.Even()))
        {
            var way = path.Way;
            var pieces = clip.Of(way).ToArray();
            if (pieces.Length == 1 && pieces[0].Length == way.Length && pieces[0].SequenceEqual(way)) yield return path;
            else foreach (var piece in pieces) yield return path with { Points = piece, Closed = false };
        }
    }
}

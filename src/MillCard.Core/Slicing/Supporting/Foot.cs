using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Slicing.Filling;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Walls;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>What is laid on the bed beside the parts: skirt, brim, raft.</summary>
internal static class Foot
{
    private const int MostRounds = 50;

    /// <summary>A foot counts as small where the part is this much higher than the foot's side is long; common practice, no
    /// source.</summary>
    private const double SmallFoot = 5;

    /// <summary>The layers of a raft, from the bed up; none where there is no raft.</summary>
    /// <param name="recipe">Of the job.</param>
    /// <param name="foot">What stands on it.</param>
    /// <param name="ground">Where it may lie.</param>
    public static IEnumerable<LayerPlan> Raft(Recipe recipe, Shape foot, Shape ground)
    {
        var area = Plane.Intersection(Plane.Offset(foot, recipe.Raft.Margin), ground);
        for (var i = 0; i < recipe.Raft.Layers; i++)
        {
            var place = RaftPlace(recipe, i);
            // the first is coarse and wide so that it holds, the last is closed so that the part lies flat
            var width = recipe.LineWidth!.Value * (i == 0 ? 1.5 : 1);
            var inner = i == recipe.Raft.Layers - 1 ? 1 : 0.75;
            var density = i == 0 ? 0.6 : inner;
            yield return new LayerPlan(place, [.. Hatch.Of(Plane.Offset(area, -width / 2), i % 2 == 0 ? 0
                : 90, ExtrudedLine.Spacing(width, place.Height) / density, PathKind.Raft, width, joining: Joining.Far)]);
        }
    }

    /// <summary>Height from the bed to the parts' floor, mm.</summary>
    public static double Lift(Recipe recipe) => recipe.Raft.Layers == 0 ? 0
        : RaftPlace(recipe, recipe.Raft.Layers - 1).Top + recipe.Raft.Gap;

    private static LayerPlace RaftPlace(Recipe recipe, int layer) =>
        LayerHeights.At(layer, recipe.Layers.FirstHeight, recipe.Layers.Others!.Value);

    /// <summary>The brim's area of one part; empty where it has none.</summary>
    /// <param name="recipe">The part's own settings.</param>
    /// <param name="foot">The part's first layer.</param>
    /// <param name="height">Height of the part, mm.</param>
    public static Shape BrimArea(Recipe recipe, Shape foot, double height)
    {
        var brim = recipe.Brim;
        if (brim.Place == BrimPlace.None || brim.Width == 0) return Plane.Empty;
        var feet = brim.Place == BrimPlace.SmallFeet
            ? Plane.Factory.BuildGeometry([.. Plane.Polygons(foot).Where(p => height > SmallFoot * Math.Sqrt(p.Area))]) : foot;
        if (feet.IsEmpty) return Plane.Empty;
        var filled = Plane.Union([.. Plane.Polygons(feet).Select(p => (Shape)Plane.Factory.CreatePolygon((LinearRing)p.ExteriorRing))]);
        var holes = Plane.Difference(filled, feet);
        var area = brim.Place == BrimPlace.Inner ? Plane.Empty
            : Plane.Difference(Plane.Offset(filled, brim.Gap + brim.Width), Plane.Offset(filled, brim.Gap));
        if (brim.Place is BrimPlace.Inner or BrimPlace.Both)
        {
            var outside = Plane.Offset(holes, -brim.Gap);
            area = Plane.Union(area, Plane.Difference(outside, Plane.Offset(holes, -brim.Gap - brim.Width)));
        }
        // never on a foot that stands within reach of it
        return Plane.Difference(area, Plane.Offset(foot, brim.Gap));
    }

    /// <summary>The brim's rings, from the outside in.</summary>
    public static IEnumerable<ToolPath> Brim(Shape area, Recipe recipe)
    {
        var width = recipe.FirstWidthOf(PathKind.Brim);
        var spacing = ExtrudedLine.Spacing(width, recipe.Layers.FirstHeight);
        var middle = Plane.Offset(area, -width / 2, 4);
        for (var round = 0; !middle.IsEmpty && round < 200; round++)
        {
            foreach (var ring in WallLines.Rings(middle, PathKind.Brim, width)) yield return ring;
            middle = Plane.Offset(middle, -spacing, 4);
        }
    }

    /// <summary>The skirt round all that stands on the bed, from the outside in; further rounds until its least length is reached, as far
    /// as there is room.</summary>
    /// <param name="recipe">Of the job.</param>
    /// <param name="foot">All that lies on the first layer.</param>
    /// <param name="ground">Where it may lie.</param>
    public static IReadOnlyList<ToolPath> Skirt(Recipe recipe, Shape foot, Shape ground)
    {
        var (skirt, rounds) = (recipe.Skirt, new List<ToolPath[]>());
        var width = recipe.FirstWidthOf(PathKind.Skirt);
        var spacing = ExtrudedLine.Spacing(width, recipe.Layers.FirstHeight);
        for (var (round, length) = (0, 0.0); round < MostRounds
            && (round < skirt.Rounds || skirt.Rounds > 0 && length < skirt.LeastLength); round++)
        {
            var rings = Plane.Polygons(Plane.Offset(foot, skirt.Gap + width / 2 + round * spacing))
                .Select(p => WallLines.Ring(p.ExteriorRing, PathKind.Skirt, width)).ToArray();
            if (round >= skirt.Rounds && !rings.All(r =>
                ground.Covers(Plane.Factory.CreateLineString([.. r.Points.Select(p => new Coordinate(p.X, p.Y))])))) break;
            rounds.Add(rings);
            length += rings.Sum(r => r.Length);
        }
        rounds.Reverse();
        return [.. rounds.SelectMany(r => r)];
    }
}

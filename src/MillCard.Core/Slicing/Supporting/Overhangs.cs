using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Wording;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Supporting;

/// <summary>Finds what of each layer must be held up.</summary>
internal static class Overhangs
{
    private const int Chords = 2;

    /// <summary>What stands out by less than twice this is rounding, mm.</summary>
    private const double Sliver = 0.002;

    /// <summary>By angle, by zone and by marked face.</summary>
    /// <param name="regions">The part's cross-sections.</param>
    /// <param name="carriers">The same with what else carries what is laid over them.</param>
    /// <param name="places">Its layers.</param>
    /// <param name="supports">The settings.</param>
    /// <param name="zones">Cut at the same layers.</param>
    /// <param name="mesh">The part where it stands; marks number its faces.</param>
    /// <param name="marks">Marked faces.</param>
    /// <param name="width">Line width, mm.</param>
    /// <param name="options">How the loop over layers runs.</param>
    [Formula("What of a layer hangs over", "Lᵢ − (Lᵢ₋₁ ⊕ h·tan α)",
        "Elementary geometry.",
        Where = "L cross-sections, h layer height, α angle from upright that needs no support")]
    public static Shape[] Of(Shape[] regions, Shape[] carriers, LayerPlace[] places, Supports supports, Zones zones, Mesh mesh,
        IReadOnlyList<FaceMark> marks, double width, ParallelOptions options)
    {
        var tan = Math.Tan(supports.Angle * Math.PI / 180);
        var overhangs = new Shape[regions.Length];
        var marked = marks.Select(m => (m.Wanted, Faces: new MarkedFaces(mesh, m.Faces))).ToArray();
        Parallel.For(0, regions.Length, options, i =>
        {
            overhangs[i] = Plane.Empty;
            if (i == 0 || regions[i].IsEmpty) return;
            var over = Plane.Empty;
            if (supports.Pattern != SupportPattern.None)
                over = Leaning(regions[i], carriers[i - 1], Math.Max(0.01, places[i].Height * tan));
            var wanted = Plane.Union([zones.Of(ZoneUse.Support, i), .. marked.Where(m => m.Wanted).Select(m => m.Faces.At(places[i]))]);
            if (!wanted.IsEmpty) over = Plane.Union(over,
                Plane.Opened(Plane.Intersection(Plane.Difference(regions[i], carriers[i - 1]), wanted), width / 8, Chords));
            var unwanted = Plane.Union(
                [zones.Of(ZoneUse.NoSupport, i), .. marked.Where(m => !m.Wanted).Select(m => m.Faces.At(places[i]))]);
            overhangs[i] = unwanted.IsEmpty ? over : Plane.Difference(over, unwanted);
        });
        return overhangs;
    }

    /// <summary>The ledges over the layer below that stand out farther than is allowed, whole: a face that leans by little more than the
    /// angle stands out by little more on every layer.</summary>
    private static Shape Leaning(Shape region, Shape below, double allowed)
    {
        var beyond = Plane.Opened(Plane.Difference(region, Plane.Offset(below, allowed, 4)), Sliver, Chords);
        return beyond.IsEmpty ? beyond
            : Plane.Intersection(Plane.Difference(region, below), Plane.Offset(beyond, allowed + Sliver, Chords));
    }

    /// <summary>Marked faces seen from above, by height.</summary>
    private sealed class MarkedFaces
    {
        private const double Around = 0.3;
        private readonly List<(Shape Triangle, double Low, double High)> _faces = [];

        public MarkedFaces(Mesh mesh, IReadOnlyList<int> faces)
        {
            foreach (var face in faces.Where(f => f >= 0 && f < mesh.FaceCount))
            {
                var at = new int[3];
                for (var k = 0; k < 3; k++) at[k] = 3 * mesh.Faces[3 * face + k];
                Coordinate Corner(int k) => new(mesh.Corners[at[k]], mesh.Corners[at[k] + 1]);
                var seen = Plane.Factory.CreatePolygon([Corner(0), Corner(1), Corner(2), Corner(0)]);
                double Z(int k) => mesh.Corners[at[k] + 2];
                _faces.Add((seen, Math.Min(Z(0), Math.Min(Z(1), Z(2))), Math.Max(Z(0), Math.Max(Z(1), Z(2)))));
            }
        }

        public Shape At(LayerPlace place) =>
            Plane.Union([.. _faces.Where(f => f.High >= place.Top - place.Height - 1e-6 && f.Low <= place.Top + 1e-6)
            .Select(f => Plane.Offset(f.Triangle, Around, 2)).Where(t => !t.IsEmpty)]);
    }
}

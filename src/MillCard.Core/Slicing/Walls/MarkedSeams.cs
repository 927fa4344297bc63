using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Sections;
using NetTopologySuite.Geometries;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Where layers cross faces on which seams are painted, or kept away.</summary>
internal sealed class MarkedSeams
{
    private readonly Dictionary<int, Shape> _wanted, _unwanted;

    private MarkedSeams(Dictionary<int, Shape> wanted, Dictionary<int, Shape> unwanted) => (_wanted, _unwanted) = (wanted, unwanted);

    /// <summary>No face is painted.</summary>
    public static MarkedSeams None { get; } = new([], []);

    /// <summary>The strip along the outline of every layer that crosses a painted face.</summary>
    /// <param name="mesh">The part where it stands; marks number its faces.</param>
    /// <param name="marks">Painted faces.</param>
    /// <param name="places">The layers, from the bottom up.</param>
    /// <param name="width">Of the outer wall, mm.</param>
    /// <param name="walls">How many lie side by side: all of them heed it.</param>
    public static MarkedSeams Of(Mesh mesh, IReadOnlyList<FaceMark> marks, LayerPlace[] places, double width, int walls)
    {
        return new(Strips(wanted: true), Strips(wanted: false));

        Dictionary<int, Shape> Strips(bool wanted) => Crossings(mesh,
            marks.Where(m => m.Wanted == wanted).SelectMany(m => m.Faces), places)
            .ToDictionary(layer => layer.Key,
                layer => (Shape)Plane.Factory.CreateMultiLineString([.. layer.Value]).Buffer(width * walls, 2));
    }

    /// <summary>Where a seam is wanted on a layer.</summary>
    public Shape Wanted(int layer) => _wanted.GetValueOrDefault(layer, Plane.Empty);

    /// <summary>Where none is to lie on a layer.</summary>
    public Shape Unwanted(int layer) => _unwanted.GetValueOrDefault(layer, Plane.Empty);

    /// <summary>Faces cut at the middles of the layers that they reach through.</summary>
    private static Dictionary<int, List<LineString>> Crossings(Mesh mesh, IEnumerable<int> faces, LayerPlace[] places)
    {
        var crossings = new Dictionary<int, List<LineString>>();
        foreach (var face in faces.Where(f => f >= 0 && f < mesh.FaceCount))
        {
            var corners = new (double X, double Y, double Z)[3];
            for (var k = 0; k < 3; k++)
            {
                var at = 3 * mesh.Faces[3 * face + k];
                corners[k] = (mesh.Corners[at], mesh.Corners[at + 1], mesh.Corners[at + 2]);
            }
            var high = corners.Max(c => c.Z);
            for (var i = FirstAbove(places, corners.Min(c => c.Z)); i < places.Length && places[i].Middle < high; i++)
            {
                if (Cut(corners, places[i].Middle) is not { } line) continue;
                if (!crossings.TryGetValue(i, out var lines)) crossings.Add(i, lines = []);
                lines.Add(line);
            }
        }
        return crossings;
    }

    private static int FirstAbove(LayerPlace[] places, double z)
    {
        var (low, high) = (0, places.Length);
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (places[middle].Middle > z) high = middle;
            else low = middle + 1;
        }
        return low;
    }

    private static LineString? Cut((double X, double Y, double Z)[] corners, double z)
    {
        var ends = new List<Coordinate>();
        for (var k = 0; k < 3; k++)
        {
            var (a, b) = (corners[k], corners[(k + 1) % 3]);
            if (a.Z > z == b.Z > z) continue;
            var share = (z - a.Z) / (b.Z - a.Z);
            ends.Add(new(a.X + share * (b.X - a.X), a.Y + share * (b.Y - a.Y)));
        }
        return ends.Count == 2 ? Plane.Factory.CreateLineString([.. ends]) : null;
    }
}

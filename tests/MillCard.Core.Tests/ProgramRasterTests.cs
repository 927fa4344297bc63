using MillCard.Core.Documents;
using MillCard.Core.Meshes;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Programs held against the meshes they were made from: the program is read by itself, its lines laid on a raster, and the mesh
/// cut by a kernel of the tests' own.</summary>
public class ProgramRasterTests
{
    private const double Height = 0.2, Width = 0.45, Cell = 0.06, Round = 1 - Math.PI / 4;
    private const double SmallPlace = 8;
    private const int Shells = 4, Walls = 2;

    private static readonly Recipe Shelled = Plain with
    {
        Layers = new() { First = Height, Others = Height },
        LineWidth = Width,
        LineWidthOfNozzle = null,
        Widths = new(),
        Walls = Walls,
        TopLayers = Shells,
        BottomLayers = Shells,
        Brim = new(),
        Supports = new(),
    };

    public static TheoryData<int> Generated => [.. Enumerable.Range(0, 40)];

    public static TheoryData<string> Demo => [.. DemoParts.Files.Select(f => Path.GetFileNameWithoutExtension(f)!)];

    // full and sparse in turn, each kind of shape both ways
    [Theory, MemberData(nameof(Generated))]
    public void A_generated_part_is_covered_and_hardly_more(int number)
    {
        var full = number / GeneratedParts.Kinds % 2 == 0;
        foreach (var layer in Layers(GeneratedParts.Of(number), full, 0.02, 0.4, 0.95))
            layer.Holds(full, $"{GeneratedParts.KindOf(number)}, layer {layer.Number}");
    }

    [Theory, MemberData(nameof(Demo))]
    public void A_part_of_the_demo_is_covered_and_hardly_more(string part)
    {
        foreach (var layer in Layers(DemoParts.Read(part), full: false, 0.02, 0.5, 0.95)) layer.Holds(full: false, $"layer {layer.Number}");
    }

    /// <summary>What a layer is on the raster.</summary>
    /// <param name="Number">From 0.</param>
    /// <param name="Covered">What should be solid against what is laid.</param>
    /// <param name="Walls">What the walls take up.</param>
    /// <param name="Inside">What they leave.</param>
    /// <param name="Filled">Plastic against the room of the section without what the round sides of its outermost lines leave free.</param>
    private sealed record Layer(int Number, Covered Covered, Place Walls, Place Inside, double Filled)
    {
        public void Holds(bool full, string where)
        {
            Assert.True(Covered.Cover >= 0.98, $"{where}: {Covered.Cover:0.000} of it is covered");
            Assert.True(Covered.Outside <= Width / 2, $"{where}: reaches {Covered.Outside:0.00} mm out");
            Assert.True(Covered.Hole <= 0.3, $"{where}: a hole of {Covered.Hole:0.00} mm");
            // strands of a bridge are round: laid flat they would lie on each other
            foreach (var (name, place) in new[] { ("walls", Walls), ("inside", Inside) })
            {
                Assert.True(place.Twice <= 0.1, $"{where}: of the {name} {place.Twice:0.000} lies twice");
                // the ends of a few rows are much of a small place; the cover counts them
                Assert.True(place.Area < SmallPlace || place.Open <= 0.03,
                    $"{where}: of the {name} {place.Open:0.000} of {place.Area:0.0} mm² is open");
            }
            if (full) Assert.True(Filled is > 0.96 and < 1.045, $"{where}: {Filled:0.000} of its plastic");
        }
    }

    /// <summary>A part of a section.</summary>
    /// <param name="Area">mm².</param>
    /// <param name="Twice">Plastic that lies on other lines, as a share of it.</param>
    /// <param name="Open">What should be solid and no line covers, as a share of it.</param>
    private readonly record struct Place(double Area, double Twice, double Open)
    {
        public static Place Of(bool[] place, bool[] solid, byte[] laid, byte[] square)
        {
            var (area, twice, open) = (0, 0, 0);
            for (var i = 0; i < place.Length; i++)
            {
                if (!place[i]) continue;
                area++;
                twice += Math.Max(0, square[i] - 1);
                if (solid[i] && laid[i] == 0) open++;
            }
            return new(area * Cell * Cell, twice / Math.Max(1.0, area), open / Math.Max(1.0, area));
        }
    }

    private static IEnumerable<Layer> Layers(Mesh mesh, bool full, params double[] shares)
    {
        var result = Slice(mesh, Shelled with { Infill = new() { Density = full ? 1 : 0.15 } });
        var moves = ReadMoves.Of(result.Gcode);
        var box = mesh.Box;
        var (dx, dy) = (150 - (box.MinX + box.MaxX) / 2.0, 100 - (box.MinY + box.MaxY) / 2.0);
        var raster = Raster.Over(box.MinX + dx - 1, box.MinY + dy - 1, box.MaxX + dx + 1, box.MaxY + dy + 1, Cell);
        foreach (var number in shares.Select(share => (int)(share * result.Layers.Count)).Distinct())
        {
            // no corner of a mesh lies just there
            bool[] Section(int layer) => layer < 0 || layer >= result.Layers.Count ? new bool[raster.Count]
                : raster.Of(mesh, box.MinZ + (layer + 0.5) * Height + 1.3e-5, dx, dy);
            var section = Section(number);
            var deposited = new Deposited(moves, (number + 1) * Height, Height, Cards.Petg.Diameter!.Value);
            var (laid, square) = (deposited.On(raster), deposited.On(raster, square: true));
            var room = section.Count(s => s) * Cell * Cell - Border(raster, section) / 2 * Round * Height;
            var solid = full ? section : Shell(raster, section, number, Section);
            var toOutside = raster.Distances([.. section.Select(s => !s)]);
            bool[] walls = [.. section.Select((s, i) => s && toOutside[i] < Walls * Width)];
            yield return new(number, Covered.Of(raster, laid, section, solid), Place.Of(walls, solid, laid, square),
                Place.Of([.. section.Select((s, i) => s && !walls[i])], solid, laid, square), deposited.Plastic / Height / room);
        }
    }

    /// <summary>Length of a section's border, mm, by the area of a band along it.</summary>
    private static double Border(Raster raster, bool[] section)
    {
        const double band = 0.25;
        return raster.Distances(section).Count(d => d is > 0 and <= band) * Cell * Cell / band;
    }

    /// <summary>What must be solid where the inside is sparse: walls, and what is bare within so many layers above or below, where a line
    /// has room.</summary>
    private static bool[] Shell(Raster raster, bool[] section, int number, Func<int, bool[]> sectionOf)
    {
        const double fits = 0.3;
        var toOutside = raster.Distances([.. section.Select(s => !s)]);
        bool[][] beside = [.. Enumerable.Range(1, Shells).SelectMany(i => new[] { sectionOf(number - i), sectionOf(number + i) })];
        var toCovered = raster.Distances([.. section.Select((s, i) => !s || beside.All(other => other[i]))]);
        var toBare = raster.Distances([.. toCovered.Select(d => d > fits)]);
        return [.. section.Select((s, i) => s && (toOutside[i] < Walls * Width - Cell || toBare[i] < fits))];
    }
}

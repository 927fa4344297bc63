using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Filling;
using MillCard.Core.Slicing.Paths;
using NetTopologySuite.Geometries;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

public class InfillTests
{
    public static TheoryData<InfillPattern, double> Densities
    {
        get
        {
            var all = new TheoryData<InfillPattern, double>();
            foreach (var pattern in Enum.GetValues<InfillPattern>())
                foreach (var density in pattern == InfillPattern.Graded ? new[] { 0.2 } : new[] { 0.1, 0.2, 0.5 })
                    all.Add(pattern, density);
            return all;
        }
    }

    // A square on its corner whose corners lie on rows: 19 rows, one piece each, 2(10 − |v|) long, 200 mm in sum.
    [Fact]
    public void A_row_that_passes_a_corner_is_crossed_once()
    {
        var square = Plane.Factory.CreatePolygon([new(0, -10), new(10, 0), new(0, 10), new(-10, 0), new(0, -10)]);
        var rows = Hatch.Of(square, 0, 1, PathKind.Infill, 0.4, joining: Joining.None);
        Assert.Equal(Enumerable.Range(-9, 19).Select(v => (double)v), rows.Select(r => r.Points[0].Y));
        Assert.All(rows, r => Assert.Equal(2 * (10 - Math.Abs(r.Points[0].Y)), r.Length, 1e-9));
        // from the other side, and upside down
        Assert.Equal(200, Hatch.Of(square, 90, 1, PathKind.Infill, 0.4, joining: Joining.None).Sum(r => r.Length), 1e-6);
        Assert.Equal(200, Hatch.Of(square, 180, 1, PathKind.Infill, 0.4, joining: Joining.None).Sum(r => r.Length), 1e-6);
    }

    [Theory, MemberData(nameof(Densities))]
    public void Infill_takes_its_share_of_the_volume(InfillPattern pattern, double density)
    {
        var recipe = Plain with { Walls = 0, TopLayers = 0, BottomLayers = 0, Infill = new() { Density = density, Pattern = pattern } };
        var share = Plastic(Slice(Block.Of(60, 60, 12), recipe).Layers) / (60 * 60 * 12);
        // the graded kind is sparser inside by its nature: more than a quarter of what it is near the skin
        if (pattern == InfillPattern.Graded) Assert.InRange(share, density / 4, density);
        else Assert.Equal(density, share, 0.03);
    }

    [Theory, InlineData(InfillPattern.Lines), InlineData(InfillPattern.Gyroid), InlineData(InfillPattern.Honeycomb),
        InlineData(InfillPattern.Cubic)]
    public void Infill_stays_in_its_area(InfillPattern pattern)
    {
        var mesh = Solids.Torus(20, 6, 48, 96);
        var contour = new Footprints(mesh).Below(double.PositiveInfinity, 150, 100, 0);
        var layers = Slice(mesh, Plain with { Infill = new() { Density = 0.3, Pattern = pattern } }).Layers;
        Assert.Contains(layers, l => l.Paths.Any(p => p.Kind == PathKind.Infill));
        Assert.All(layers.SelectMany(l => l.Paths), p => Assert.True(contour.Buffer(0.02).Covers(Inked(p, 0.05))));
    }

    [Fact]
    public void A_gyroid_moves_with_height_and_never_ends_in_the_open()
    {
        var layers = Slice(Block.Of(40, 40, 8),
            Plain with
            {
                Walls = 0,
                TopLayers = 0,
                BottomLayers = 0,
                Infill = new() { Density = 0.2, Pattern = InfillPattern.Gyroid }
            }).Layers;
        var edge = Shapes.Rectangle(130, 80, 40, 40).Boundary;
        Assert.All(layers.SelectMany(l => l.Paths), p =>
            Assert.All(new[] { p.Points[0], p.Points[^1] },
            e => Assert.True(p.Closed || edge.Distance(Plane.Factory.CreatePoint(new Coordinate(e.X, e.Y))) < 0.3)));
        Assert.NotEqual(layers[3].Paths[0].Points, layers[9].Paths[0].Points);
    }

    [Fact]
    public void A_cubes_program_read_back_fills_every_layer()
    {
        const double pixel = 0.05;
        var result = Slice(Block.Of(20, 20, 20), Plain with { Infill = new() { Density = 1 } });
        foreach (var layer in result.Run!.Moves.ToArray().Where(m => m.Extrudes).GroupBy(m => Math.Round(m.To.Z, 3))
            .Where((g, i) => i > 0 && g.Key > 0.1 && i % 9 == 0))
        {
            var filled = new bool[400, 400];
            foreach (var move in layer)
            {
                // as wide as the plastic that was fed makes it
                var (dx, dy) = (move.To.X - move.From.X, move.To.Y - move.From.Y);
                var length = Math.Sqrt(dx * dx + dy * dy);
                if (length < 1e-6) continue;
                var width = move.Filament * ExtrudedLine.FilamentArea(1.75) / length / 0.2 + 0.2 * (1 - Math.PI / 4);
                Fill(filled, move.From.X - 140, move.From.Y - 90, dx / length, dy / length, length, width / 2, pixel);
            }
            Assert.True(filled.Cast<bool>()
                .Count(f => f) >= 0.98 * 400 * 400, $"at {layer.Key}: {filled.Cast<bool>().Count(f => f) / 160000.0:P1}");
        }
    }

    private static void Fill(bool[,] filled, double x, double y, double dx, double dy, double length, double radius, double pixel)
    {
        var (minX, maxX) = (Math.Min(x, x + dx * length) - radius, Math.Max(x, x + dx * length) + radius);
        var (minY, maxY) = (Math.Min(y, y + dy * length) - radius, Math.Max(y, y + dy * length) + radius);
        for (var i = Math.Max(0, (int)(minX / pixel)); i <= Math.Min(399, (int)(maxX / pixel)); i++)
            for (var j = Math.Max(0, (int)(minY / pixel)); j <= Math.Min(399, (int)(maxY / pixel)); j++)
            {
                var (px, py) = ((i + 0.5) * pixel - x, (j + 0.5) * pixel - y);
                var along = Math.Clamp(px * dx + py * dy, 0, length);
                var (ex, ey) = (px - along * dx, py - along * dy);
                if (ex * ex + ey * ey <= radius * radius) filled[i, j] = true;
            }
    }
}

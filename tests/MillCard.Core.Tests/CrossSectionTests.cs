using System.Globalization;
using CsCheck;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Core.Slicing.Sections;
using Xunit;

namespace MillCard.Core.Tests;

public class CrossSectionTests
{
    private static double[] Areas(Mesh mesh, double[] heights) =>
        [.. new CrossSections(mesh, Neighbours.Of(mesh), heights).All().Select(c => Regions.Of(c).Area)];

    private static double[] Heights(double top, int count) => [.. Enumerable.Range(0, count).Select(i => (i + 0.5) * top / count)];

    // Closed forms of solid geometry (Bronstein, "Taschenbuch der Mathematik", volumes and sections of solids).
    public static TheoryData<string, Mesh, double, double> ClosedForms => new()
    {
        { "cube", Solids.Box(20, 20, 20), 20, 8000 },
        { "cylinder", Solids.Cylinder(10, 20), 20, Math.PI * 100 * 20 },
        { "cone", Solids.Revolved(t => t < 0.5 ? (24 * t, 0) : (24 * (1 - t), 30 * (2 * t - 1)), 2, 720), 30, Math.PI * 144 * 30 / 3 },
        { "torus", Solids.Torus(20, 6, 240, 480), 12, 2 * Math.PI * Math.PI * 20 * 36 },
        { "sphere", Solids.Revolved(t => (15 * Math.Sin(Math.PI * t), 15 - 15 * Math.Cos(Math.PI * t)), 360, 480), 30,
            4.0 / 3 * Math.PI * 3375 },
    };

    [Theory, MemberData(nameof(ClosedForms))]
    public void Areas_times_heights_sum_to_the_volume(string name, Mesh mesh, double top, double volume)
    {
        double Error(int n) => Math.Abs(Areas(mesh, Heights(top, n)).Sum() * top / n - volume) / volume;
        Assert.True(Error(400) < 0.0006, $"{name}: {Error(400)}");
        Assert.True(Error(400) <= Error(8) + 1e-4);
    }

    [Fact]
    public void A_section_through_a_torus_is_two_rings_of_the_right_radii()
    {
        var region = Areas(Solids.Torus(20, 6, 240, 720), [6.0 + 3])[0];
        var half = Math.Sqrt(36 - 9);
        Assert.Equal(Math.PI * ((20 + half) * (20 + half) - (20 - half) * (20 - half)), region, 0.6);
    }

    public static TheoryData<string> Parts => [.. DemoParts.Files.Select(f => Path.GetFileNameWithoutExtension(f))];

    // Independent geometry kernel: manifold-3d from the npm registry, run beside this test on the same file and heights.
    [Theory, MemberData(nameof(Parts))]
    public async Task Areas_of_the_demo_parts_equal_those_of_another_kernel(string part)
    {
        var mesh = DemoParts.Read(part);
        // clear of the faces' own planes, where "at" has no area
        var heights = Heights(mesh.Box.MaxZ, 61).Select(z => z + 0.00731).ToArray();
        Assert.All(Areas(mesh, heights).Zip(await Reference(Path.Combine(DemoParts.Root, "demo", "parts", $"{part}.stl"), heights)),
            pair => Assert.Equal(pair.Second, pair.First, Math.Max(0.05, 0.001 * pair.Second)));
    }

    [Fact]
    public async Task Areas_of_generated_solids_equal_those_of_another_kernel()
    {
        var file = Path.GetTempFileName();
        try
        {
            foreach (var mesh in new[] { Solids.Torus(18, 7, 60, 90),
                Solids.Revolved(t => (10 * Math.Sin(Math.PI * t) + 2 * Math.Sin(6 * Math.PI * t), 40 * t), 80, 64) })
            {
                File.WriteAllBytes(file, Stl.Write(mesh));
                var heights = Heights(mesh.Box.MaxZ, 47);
                Assert.All(Areas(Stl.Read(Stl.Write(mesh)), heights)
                    .Zip(await Reference(file, heights)),
                    pair => Assert.Equal(pair.Second, pair.First, Math.Max(0.05, 0.001 * pair.Second)));
            }
        }
        finally { File.Delete(file); }
    }

    private static Task<double[]> Reference(string file, double[] heights) =>
        Core.Tests.Reference.NumbersAsync("section-areas.mjs",
            [file, .. heights.Select(z => z.ToString("R", CultureInfo.InvariantCulture))]);

    [Fact]
    public void Overlapping_bodies_are_one_region()
    {
        var (a, b) = (Placement.Place(Solids.Box(20, 20, 10), 10, 10, 0), Placement.Place(Solids.Box(20, 20, 10), 20, 10, 0));
        var both = new Mesh([.. a.Corners, .. b.Corners], [.. a.Faces, .. b.Faces.Select(f => f + a.CornerCount)]);
        Assert.Equal(600, Areas(both, [5])[0], 1e-3);
    }

    [Fact]
    public void A_hole_in_the_mesh_is_counted_and_small_gaps_are_closed()
    {
        var cube = Solids.Box(20, 20, 20);
        // one side face off: the section is a chain with a gap of 20 mm
        var open = cube with { Faces = [.. cube.Faces[..3], .. cube.Faces[12..]] };
        Assert.Equal(1, new CrossSections(open, Neighbours.Of(open), [10]).All()[0].Unclosed);
        // one edge torn apart by 0.02 mm
        var corners = cube.Corners.ToList();
        var torn = cube.Faces.ToArray();
        corners.AddRange([cube.Corners[0] + 0.02f, cube.Corners[1], cube.Corners[2], cube.Corners[15] + 0.02f, cube.Corners[16],
            cube.Corners[17]]);
        var count = cube.CornerCount;
        for (var f = 0; f < torn.Length; f += 12)
            for (var k = f; k < f + 12; k++) if (f == 0) torn[k] = torn[k] == 0 ? count : torn[k] == 5 ? count + 1 : torn[k];
        Assert.Equal(400, Areas(new Mesh([.. corners], torn), [10])[0], 0.5);
    }

    [Fact]
    public void Sections_of_prisms_have_the_area_of_the_outline() => Gen.Double[3, 40].Array[5, 30].Sample(radii =>
    {
        var n = radii.Length;
        var mesh = Solids.Prism([.. radii.Select((r, i) => (r * Math.Cos(2 * Math.PI * i / n), r * Math.Sin(2 * Math.PI * i / n)))], 7);
        var exact = Enumerable.Range(0, n).Sum(i => radii[i] * radii[(i + 1) % n]) / 2 * Math.Sin(2 * Math.PI / n);
        Assert.All(Areas(mesh, [0.1, 3.3, 6.9]), area => Assert.Equal(exact, area, 0.001 * exact + 0.05));
    }, iter: 200);
}

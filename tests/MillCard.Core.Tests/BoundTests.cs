using System.Text;
using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Core.Rules.DryRunRules;
using MillCard.Core.Slicing.Paths;
using Xunit;
using static MillCard.Core.Tests.Engine;

namespace MillCard.Core.Tests;

/// <summary>Where rules and geometry turn over: values just at a bound, and just beyond it.</summary>
public class BoundTests
{
    private static int Found(IDryRunRule rule, Card card, string program)
    {
        var machine = card.Machine();
        return rule.Look(SimulatedMachine.Run(machine, Encoding.ASCII.GetBytes(program)), machine).Count();
    }

    // 120 000 mm/s can be no speed, taken as mm/min it is the greatest that any machine makes: 2000 mm/s.
    [Theory, InlineData("X120000", 1), InlineData("X120300", 0), InlineData("Z6000", 1), InlineData("Z6060", 0), InlineData("X2000", 0)]
    public void A_limit_is_in_the_other_unit_up_to_the_greatest_speed_there_is(string word, int found) =>
        Assert.Equal(found, Found(new WrongUnit(), Cards.Bare(), $"G28\nM203 {word}\n"));

    [Theory, InlineData("0.015", 1), InlineData("0.008", 0)]
    public void Moves_as_short_as_rounding_have_no_speed(string x, int found)
    {
        var card = Cards.Bare() with { Motion = Cards.Bare().Motion with { Axes = new() { X = new() { MaxSpeed = 100 } } } };
        Assert.Equal(found, Found(new SpeedOverLimit(), card, $"G28\nG1 X{x} F12000\n"));
    }

    [Theory, InlineData(0.45), InlineData(0.7), InlineData(1.3)]
    public void A_fin_along_y_is_laid_as_one_along_x(double thickness)
    {
        static double[] Lengths(Mesh mesh) => [.. Slice(mesh, Plain).Layers[4].Paths.Select(p => Math.Round(p.Length, 3)).Order()];
        Assert.Equal(Lengths(Block.Of(20, thickness, 2)), Lengths(Block.Of(thickness, 20, 2)));
    }

    [Fact]
    public void A_zone_may_have_more_solid_layers_than_the_part()
    {
        var more = new Dictionary<string, JsonElement> { ["/topLayers"] = JsonSerializer.SerializeToElement(9) };
        var job = Job(Block.Of(30, 30, 6), Plain with { TopLayers = 2, BottomLayers = 2, Walls = 1 }) with
        {
            Zones = [new(new BoxZone { Id = "z", Name = "z", X = 142, Y = 100, Width = 12, Depth = 26, Height = 6, Settings = more })],
        };
        var layers = Engine.Slice(job).Layers;
        bool Solid(int layer, double x) => layers[layer].Paths.Where(p => p.Kind is PathKind.Solid or PathKind.Top)
            .Any(p => Inked(p, -0.1).Covers(Plane.Factory.CreatePoint(new NetTopologySuite.Geometries.Coordinate(x, 100.3))));
        for (var layer = 5; layer < 30; layer++) Assert.Equal((layer >= 21, layer >= 28), (Solid(layer, 142), Solid(layer, 157)));
    }

    [Theory, InlineData(1.0), InlineData(0.01)]
    public void Ways_beside_an_edge_do_not_meet_it_whatever_their_size(double size)
    {
        using var edges = new Edges(Shapes.Rectangle(0, 0, size, size));
        foreach (var (x, y) in new[] { (1.0, 0.0), (-1, 0), (0, 1), (0, -1) })
        {
            Point At(double off, double along) => new(size * (0.5 + x * off + y * along), size * (0.5 + y * off + x * along));
            Assert.False(edges.AreMet(At(0.6, 0), At(0.8, 0)));
            Assert.False(edges.AreMet(At(0.6, -0.4), At(0.6, 0.4)));
            Assert.False(edges.AreMet(At(0.4, -0.4), At(0.4, 0.4)));
            Assert.False(edges.AreMet(At(0.2, 0), At(0.4, 0.3)));
            Assert.True(edges.AreMet(At(0.4, 0), At(0.6, 0)));
            Assert.True(edges.AreMet(At(0.6, 0), At(0.4, 0.3)));
            Assert.True(edges.AreMet(At(0.5, 0), At(0.8, 0)));
        }
    }
}

using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Slicing.Paths;
using MillCard.Core.Slicing.Sections;
using MillCard.Core.Slicing.Writing;
using Xunit;
using Point = MillCard.Core.Geometry.Point;

namespace MillCard.Core.Tests;

/// <summary>How fast a layer is laid, worked out by hand.</summary>
public class LayerPaceTests
{
    private static readonly Speeds Speeds = new()
    {
        OuterWall = 30,
        InnerWall = 60,
        Solid = 50,
        Infill = 80,
        FirstLayer = 20,
        Travel = 100,
        Bridge = 25,
        Least = 10,
        SlowLayers = 1,
        LeastLayerTime = 0,
    };

    /// <summary>100 mm of outer wall at (0, 0), then, 50 mm away, 40 mm of infill.</summary>
    private static readonly LayerPlan Layer = new(new LayerPlace(1, 0.2),
    [
        new ToolPath(PathKind.OuterWall, [new Point(0, 0), new Point(100, 0)], Closed: false, 0.4),
        new ToolPath(PathKind.Infill, [new Point(100, 50), new Point(60, 50)], Closed: false, 0.4),
    ]);

    private static LayerPace Pace(Speeds? speeds = null, double fastest = double.PositiveInfinity, LayerPlan? layer = null, int number = 5,
        double? melts = null, double? flows = null)
    {
        var card = Cards.Bare();
        card = card with { Head = card.Head with { Nozzles = [card.Head.Nozzles![0] with { MaxFlow = melts }] } };
        var job = Engine.Job(Solids.Box(10, 10, 10), Engine.Plain with { Speeds = speeds ?? Speeds }, card);
        return new LayerPace(job with { Filament = Cards.Petg with { MaxFlow = flows, Flow = null } }, fastest, layer ?? Layer, number);
    }

    [Fact]
    public void Lines_have_the_speed_of_their_kind_and_ways_that_of_travels()
    {
        var pace = Pace();
        Assert.Equal((30, 80), (pace.SpeedOf(Layer.Paths[0]), pace.SpeedOf(Layer.Paths[1])));
        Assert.Equal(100 / 30.0 + 40 / 80.0 + 50 / 100.0, pace.Seconds, 1e-9);
    }

    [Fact]
    public void A_path_of_its_own_speed_and_a_mode_that_allows_less()
    {
        Assert.Equal(45, Pace().SpeedOf(Layer.Paths[0] with { Speed = 45 }));
        Assert.Equal(25, Pace(fastest: 25).SpeedOf(Layer.Paths[0]));
    }

    [Fact]
    public void The_hot_end_and_the_filament_hold_it_back_by_what_they_melt()
    {
        var area = ExtrudedLine.Area(0.4, 0.2);
        Assert.Equal(2 / area, Pace(melts: 2).SpeedOf(Layer.Paths[1]), 1e-9);
        Assert.Equal(1.5 / area, Pace(melts: 2, flows: 1.5).SpeedOf(Layer.Paths[1]), 1e-9);
        Assert.Equal(30, Pace(melts: 20, flows: 15).SpeedOf(Layer.Paths[0]));
    }

    [Fact]
    public void The_first_layers_rise_to_their_speed()
    {
        var slow = Speeds with { SlowLayers = 4 };
        Assert.Equal([20, 35, 50, 65, 80], Enumerable.Range(1, 5).Select(n => Pace(slow, number: n).SpeedOf(Layer.Paths[1])));
    }

    [Fact]
    public void What_would_be_too_quick_is_slowed_down_to_the_least_time()
    {
        // 3.833 s of lines and 0.5 s of ways: lines take 5.5 s where the layer is to take 6
        var pace = Pace(Speeds with { LeastLayerTime = 6 });
        var slower = 5.5 / (100 / 30.0 + 40 / 80.0);
        Assert.Equal(30 / slower, pace.SpeedOf(Layer.Paths[0]), 1e-9);
        Assert.Equal(6, pace.Seconds, 1e-9);
    }

    [Fact]
    public void But_not_below_the_least_speed_and_never_above_its_own()
    {
        var pace = Pace(Speeds with { LeastLayerTime = 60 });
        Assert.Equal((10, 10), (pace.SpeedOf(Layer.Paths[0]), pace.SpeedOf(Layer.Paths[1])));
        Assert.Equal(100 / 10.0 + 40 / 10.0 + 0.5, pace.Seconds, 1e-9);
        Assert.Equal(30, Pace(Speeds with { LeastLayerTime = 60, Least = 55 }).SpeedOf(Layer.Paths[0]));
        Assert.Equal(30, Pace(Speeds with { LeastLayerTime = 4 }).SpeedOf(Layer.Paths[0]));
    }

    [Fact]
    public void A_layer_with_a_speed_of_its_own_has_it_throughout()
    {
        var own = Pace(Speeds with { LeastLayerTime = 60 }, layer: Layer with { Speed = 70 }, melts: 1);
        Assert.Equal((70, 70), (own.SpeedOf(Layer.Paths[0]), own.SpeedOf(Layer.Paths[1])));
    }
}

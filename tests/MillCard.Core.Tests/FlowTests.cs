using MillCard.Core.Documents;
using MillCard.Core.Flow;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>What a nozzle can lay, and how fast; the bounds are common practice, no source.</summary>
public class FlowTests
{
    private static readonly Nozzle Bore = new() { Id = "T0", Diameter = 0.4, FilamentDiameter = 1.75 };

    private static Recipe Recipe(double? width = 0.4, double? height = 0.2, double? first = 0.2, double? wider = null) => new()
    {
        LineWidth = width,
        Layers = new() { First = first, Others = height },
        Widths = new() { First = wider },
    };

    public static TheoryData<Recipe, string?, string?, MisfitWeight> Bounds => new()
    {
        { Recipe(), null, null, default },
        // 60 to 200 % of 0.4
        { Recipe(width: 0.24), null, null, default },
        { Recipe(width: 0.23), "width-for-nozzle", "/lineWidth", MisfitWeight.Impossible },
        { Recipe(width: 0.8), null, null, default },
        { Recipe(width: 0.81), "width-for-nozzle", "/lineWidth", MisfitWeight.Impossible },
        // 250 % on the first layer
        { Recipe(wider: 2.5), null, null, default },
        { Recipe(wider: 2.51), "width-for-nozzle", "/widths/first", MisfitWeight.Impossible },
        { Recipe(wider: 0.59), "width-for-nozzle", "/widths/first", MisfitWeight.Impossible },
        // 25 to 75 %, and not above 80 %
        { Recipe(height: 0.1), null, null, default },
        { Recipe(height: 0.099), "low-for-nozzle", "/layers/others", MisfitWeight.Unusual },
        { Recipe(height: 0.3), null, null, default },
        { Recipe(height: 0.301), "high-for-nozzle", "/layers/others", MisfitWeight.Unusual },
        { Recipe(height: 0.32), "high-for-nozzle", "/layers/others", MisfitWeight.Unusual },
        { Recipe(height: 0.321), "coming-apart", "/layers/others", MisfitWeight.Bad },
        { Recipe(first: 0.099), "low-for-nozzle", "/layers/first", MisfitWeight.Unusual },
        { Recipe(first: 0.321), "coming-apart", "/layers/first", MisfitWeight.Bad },
        // what is not said cannot be wrong
        { Recipe(width: null, height: null, first: null), null, null, default },
    };

    [Theory, MemberData(nameof(Bounds))]
    public void Lines_go_with_a_nozzle_within_shares_of_its_bore(Recipe recipe, string? code, string? asks, MisfitWeight weight)
    {
        var misfits = NozzleBounds.Misfits(Bore, recipe);
        if (code is null) Assert.Empty(misfits);
        else Assert.Equal((code, asks, weight), misfits.Select(m => (m.Code, m.Asks, m.Weight)).Single());
        Assert.Empty(NozzleBounds.Misfits(Bore with { Diameter = null }, recipe));
    }

    [Fact]
    public void Every_misfit_is_told_with_its_share()
    {
        var messages = NozzleBounds.Misfits(Bore, Recipe(width: 1, height: 0.36, first: 0.08)).Select(m => m.Said.Text).ToArray();
        Assert.Equal(3, messages.Length);
        Assert.StartsWith("Its lines of 1 mm are 250 % of the nozzle; 60 to 200 %", messages[0], StringComparison.Ordinal);
        Assert.StartsWith("Its first layer of 0.08 mm is 20 % of the nozzle; below 25 %", messages[1], StringComparison.Ordinal);
        Assert.StartsWith("Its layers of 0.36 mm are 90 % of the nozzle; above 80 %", messages[2], StringComparison.Ordinal);
    }

    private static Card Machine(Func<MotionFacts, MotionFacts>? with = null)
    {
        var card = Cards.Bare();
        var motion = new MotionFacts
        {
            Axes = new() { X = new() { MaxSpeed = 400, StepsPerMm = 80 }, Y = new() { MaxSpeed = 300, StepsPerMm = 100 } },
        };
        return card with { Motion = with?.Invoke(motion) ?? motion };
    }

    private static double Area => ExtrudedLine.Area(0.45, 0.2);

    [Fact]
    public void Nothing_known_is_no_ceiling()
    {
        var card = Machine(_ => new MotionFacts());
        Assert.Equal(double.PositiveInfinity, SpeedCeiling.Of(card, Bore, null, 0.45, 0.2).Speed);
    }

    [Fact]
    public void The_slower_axis_is_one() =>
        Assert.Equal(new SpeedCeiling(300, CeilingBy.Axis), SpeedCeiling.Of(Machine(), Bore, null, 0.45, 0.2));

    [Fact]
    public void What_the_hot_end_melts_is_one_and_what_can_be_melted_of_the_filament_another()
    {
        var filament = new Filament { Name = "a", Diameter = 1.75, MaxFlow = 6, Flow = 1.2 };
        var hotEnd = SpeedCeiling.Of(Machine(), Bore with { MaxFlow = 9 }, null, 0.45, 0.2);
        Assert.Equal((9 / Area, CeilingBy.HotEnd), (hotEnd.Speed, hotEnd.By));
        var own = SpeedCeiling.Of(Machine(), Bore with { MaxFlow = 9 }, filament, 0.45, 0.2);
        Assert.Equal((6 / Area / 1.2, CeilingBy.Filament), (own.Speed, own.By));
    }

    [Theory]
    [InlineData(1.75, null)]
    [InlineData(2.85, 2.85)]
    public void The_filament_drive_is_one_by_the_filament_that_is_in_it(double diameter, double? filament)
    {
        var card = Machine(m => m with { Axes = m.Axes with { E = new() { MaxSpeed = 3 } } });
        var own = filament is { } d ? new Filament { Name = "a", Diameter = d } : null;
        var ceiling = SpeedCeiling.Of(card, Bore, own, 0.45, 0.2);
        Assert.Equal(CeilingBy.FilamentDrive, ceiling.By);
        Assert.Equal(3 * Math.PI * diameter * diameter / 4 / Area, ceiling.Speed, 1e-9);
    }

    [Fact]
    public void The_board_is_one_by_the_axis_of_more_steps_and_by_how_the_motors_share_the_way()
    {
        var plain = SpeedCeiling.Of(Machine(m => m with { StepRate = 20_000 }), Bore, null, 0.45, 0.2);
        Assert.Equal((200, CeilingBy.StepRate), (plain.Speed, plain.By));
        var belts = Machine(m => m with { StepRate = 20_000, Layout = MotionLayout.CrossedBelts });
        var crossed = SpeedCeiling.Of(belts, Bore, null, 0.45, 0.2);
        Assert.Equal(200 / Math.Sqrt(2), crossed.Speed, 1e-9);
    }

    [Fact]
    public void Every_known_one_is_listed_once()
    {
        var card = Machine(m => m with { StepRate = 20_000, Axes = m.Axes with { E = new() { MaxSpeed = 3 } } });
        var all = SpeedCeiling.All(card, Bore with { MaxFlow = 9 }, new Filament { Name = "a", Diameter = 1.75, MaxFlow = 6 }, 0.45, 0.2);
        Assert.Equal(Enum.GetValues<CeilingBy>().Order(), all.Select(c => c.By).Order());
    }

    [Fact]
    public void A_filament_of_the_wrong_diameter_is_told_from_one_of_another_lot()
    {
        Assert.False(FedDiameter.Differs(1.75, 1.6));
        Assert.True(FedDiameter.Differs(1.75, 1.59));
        Assert.True(FedDiameter.Differs(1.75, 2.85));
        Assert.False(FedDiameter.Differs(null, 2.85) || FedDiameter.Differs(1.75, null));
        Assert.Equal(Math.Pow(1.75 / 2.85, 2), FedDiameter.Share(1.75, 2.85), 1e-12);
    }

    [Fact]
    public void A_line_higher_than_wide_is_round() => Assert.Equal(Math.PI * 0.01, ExtrudedLine.Area(0.2, 0.3), 1e-12);
}

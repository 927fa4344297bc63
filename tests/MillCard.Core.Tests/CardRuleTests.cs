using MillCard.Core.Documents;
using MillCard.Core.Findings;
using Xunit;

namespace MillCard.Core.Tests;

public class CardRuleTests
{
    private static Card With(params KeepOut[] keepOuts) => Cards.Dunlin with { Envelope = Cards.Dunlin.Envelope with { KeepOuts = keepOuts } };

    private static Card WithFilament(double diameter) => Cards.Dunlin with { Head = Cards.Dunlin.Head with { Nozzles = [Cards.Dunlin.Head.Nozzles![0] with { FilamentDiameter = diameter }] } };

    public static TheoryData<string, string, Card, Card> Pairs => new()
    {
        { "bad-outline", "/envelope/keepOuts/0/outline", With(Polygon([0, 0], [10, 10], [10, 0], [0, 10])), With(Polygon([0, 0], [10, 0], [10, 10])) },
        { "keep-out-off-bed", "/envelope/keepOuts/0/outline", With(Cards.Box("far", KeepOutKind.Reserved, 200, 0, 5, 5)), With(Cards.Box("near", KeepOutKind.Reserved, 179, 0, 5, 5)) },
        { "obstacle-without-top", "/envelope/keepOuts/0/top", With(Cards.Box("clip", KeepOutKind.Obstacle, 0, 0, 5, 5)), With(Cards.Box("clip", KeepOutKind.Obstacle, 0, 0, 5, 5, 4)) },
        { "use-beyond-height", "/envelope/use/height", Cards.Dunlin with { Envelope = Cards.Dunlin.Envelope with { Use = new() { Height = 180 } } }, Cards.Dunlin },
        { "uncommon-filament-diameter", "/head/nozzles/0/filamentDiameter", WithFilament(3), WithFilament(2.85) },
        { "broken-routine", "/routines/start", Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = "{{ bad }}" } }, Cards.Dunlin },
        { "no-routine", "/routines/end", Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { End = " " } }, Cards.Dunlin },
    };

    [Theory, MemberData(nameof(Pairs))]
    public void A_rule_fires_where_it_should_and_not_where_it_should_not(string rule, string pointer, Card bad, Card good)
    {
        Assert.Contains(Rules.Check(bad), f => f.Rule == rule && f.Pointer == pointer);
        Assert.DoesNotContain(Rules.Check(good), f => f.Rule == rule);
    }

    // (1.75/2.85)² = 37.7 %: areas of circles.
    [Fact]
    public void The_wrong_filament_is_told_as_a_share_of_plastic() =>
        Assert.Contains("90.3 %", Rules.Check(WithFilament(3)).Single(f => f.Rule == "uncommon-filament-diameter").Message, StringComparison.Ordinal);

    [Fact]
    public void An_accepted_finding_carries_the_reason_and_comes_last()
    {
        var card = WithFilament(3) with { Accepted = [new() { Rule = "uncommon-filament-diameter", At = "/head/nozzles/0/filamentDiameter", Why = "old stock" }] };
        Assert.Equal("old stock", Rules.Check(card)[^1].AcceptedBecause);
    }

    private static KeepOut Polygon(params double[][] points) => new() { Name = "k", Kind = KeepOutKind.Reserved, Outline = new PolygonOutline { Points = points } };
}

using System.Text.Json;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Records;
using Xunit;

namespace MillCard.Core.Tests;

public class JsonPointerTests
{
    /// <summary>The example document of RFC 6901, section 5, with its pointers.</summary>
    private const string OfTheStandard =
        """{"foo":["bar","baz"],"":0,"a/b":1,"c%d":2,"e^f":3,"g|h":4,"i\\j":5,"k\"l":6," ":7,"m~n":8}""";

    [Theory]
    [InlineData("/foo/0", "\"bar\"")]
    [InlineData("/", "0")]
    [InlineData("/a~1b", "1")]
    [InlineData("/c%d", "2")]
    [InlineData("/i\\j", "5")]
    [InlineData("/k\"l", "6")]
    [InlineData("/ ", "7")]
    [InlineData("/m~0n", "8")]
    public void It_finds_what_the_standard_finds(string pointer, string value) =>
        Assert.Equal(value, JsonPointer.Parse(pointer).In(JsonDocument.Parse(OfTheStandard).RootElement)?.GetRawText());

    [Theory]
    [InlineData("/foo/2")]
    [InlineData("/foo/bar")]
    [InlineData("/foo/-1")]
    [InlineData("/nothing/at/all")]
    public void It_finds_nothing_where_nothing_is(string pointer) =>
        Assert.Null(JsonPointer.Parse(pointer).In(JsonDocument.Parse(OfTheStandard).RootElement));

    [Fact]
    public void Steps_come_back_whatever_is_in_them() => Gen.String[Gen.Char["ab~/01 é"], 0, 6].Array[1, 5].Sample(steps =>
    {
        var pointer = steps.Aggregate(JsonPointer.Root, (at, step) => at / step);
        Assert.Equal(steps, pointer.Steps);
        Assert.Equal(steps[^1], pointer.Last);
        Assert.Equal(pointer, JsonPointer.Parse(pointer));
        Assert.Equal(steps[..^1], pointer.Parent!.Value.Steps);
        Assert.True(pointer.IsWithin(pointer.Parent.Value));
        Assert.True((pointer / 0).IsWithin(pointer));
        Assert.False(pointer.IsWithin(pointer / "x"));
    });

    [Fact]
    public void A_place_is_not_within_one_whose_name_only_begins_alike() =>
        Assert.False(JsonPointer.Parse("/walls").IsWithin("/wall"));

    [Fact]
    public void What_people_send_may_be_no_pointer_and_is_refused_in_a_sentence()
    {
        var one = JsonDocument.Parse("1").RootElement;
        var refused = Departures.Apply(Cards.Standard, new Dictionary<string, JsonElement> { ["walls"] = one }, Departs.Part);
        Assert.Equal("walls cannot differ here; it belongs to the whole print.", Assert.Single(refused.Errors).Message);
        Assert.Equal("A recipe has no setting /infill/thickness.", Assert.Single(Departures.Apply(Cards.Standard,
            new Dictionary<string, JsonElement> { ["/infill/thickness"] = one }, Departs.Part).Errors).Message);
        PrintRecord[] prints = [new() { Outcome = PrintOutcome.Good, Tried = [new() { Pointer = "clearance", Value = 1 },
            new() { Pointer = "clearance", Value = 2 }] }];
        Assert.Equal([2, 1], Assert.Single(OpenValues.Of(prints)).Values.Select(v => v.Value));
    }

    [Fact]
    public void The_whole_document_has_no_parent_and_a_pointer_begins_with_a_slash()
    {
        Assert.Null(JsonPointer.Root.Parent);
        Assert.Equal(JsonPointer.Root, JsonPointer.Parse(""));
        Assert.Equal(JsonPointer.Root, JsonPointer.Parse("/walls").Parent);
        Assert.Equal("", JsonPointer.Root.Last);
        Assert.Throws<FormatException>(() => JsonPointer.Parse("walls"));
        Assert.Equal("/recipe/layers/others", JsonPointer.Root / "recipe" + "/layers/others");
    }
}

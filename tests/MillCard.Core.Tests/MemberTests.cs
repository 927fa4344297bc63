using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using MillCard.Core.Documents;
using MillCard.Core.Records;
using Xunit;

namespace MillCard.Core.Tests;

public class MemberTests
{
    private static Card Read(JsonNode json) => DocumentReader.Read<Card>(Encoding.UTF8.GetBytes(json.ToJsonString())).Document!;

    private static JsonObject Json(Card card) => JsonSerializer.SerializeToNode(card, DocumentJson.Options)!.AsObject();

    private static JsonArray KeepOuts(JsonNode card) => card["envelope"]!["keepOuts"]!.AsArray();

    private static string[] Ids(Card card) => [.. card.Envelope.KeepOuts.Select(k => k.Id!)];

    private static JsonObject Dunlin()
    {
        var card = JsonNode.Parse(Examples.Of("card"))!.AsObject();
        foreach (var keepOut in KeepOuts(card)) keepOut!.AsObject().Remove("id");
        return card;
    }

    [Fact]
    public void An_old_document_gets_the_same_ids_whoever_reads_it()
    {
        var (one, two) = (Read(Dunlin()), Read(Dunlin()));
        Assert.Equal(Ids(one), Ids(two));
        Assert.Equal(Ids(one).Length, Ids(one).Distinct().Count());
        Assert.True(one.Envelope.KeepOuts.Count > 1);
    }

    [Fact]
    public void Ids_stay_where_members_move_and_a_second_of_one_id_gets_another()
    {
        var card = Json(Read(Dunlin()));
        var (first, second) = (KeepOuts(card)[0]!.DeepClone(), KeepOuts(card)[1]!.DeepClone());
        card["envelope"]!["keepOuts"] = new JsonArray(second, first, first.DeepClone(),
            new JsonObject { ["name"] = "m1", ["kind"] = "reserved", ["outline"] = first["outline"]!.DeepClone() });
        var ids = Ids(Read(card));
        Assert.Equal([(string)second["id"]!, (string)first["id"]!], ids[..2]);
        Assert.Equal(4, ids.Distinct().Count());
    }

    [Fact]
    public void A_proof_lapses_for_the_member_that_changed_and_for_no_other()
    {
        var before = Json(Read(Dunlin()));
        var after = before.DeepClone().AsObject();
        var moved = KeepOuts(after)[1]!;
        KeepOuts(after).RemoveAt(1);
        KeepOuts(after).Insert(0, moved);
        moved["top"] = 77;
        Assert.Equal(["/envelope/keepOuts/0/top", "/envelope/keepOuts"], Changed(before, after));
        KeepOuts(after).RemoveAt(0);
        Assert.Equal(["/envelope/keepOuts/1"], Changed(before, after));
        Assert.Equal(["/envelope/keepOuts/1"], Changed(after, before));
    }

    [Fact]
    public void A_proof_from_before_members_had_ids_still_holds()
    {
        var now = Json(Read(Dunlin()));
        Assert.Empty(Changed(Dunlin(), now));
        KeepOuts(now)[1]!["top"] = 77;
        Assert.Equal(["/envelope/keepOuts/1/top"], Changed(Dunlin(), now));
    }

    private static IReadOnlyList<string> Changed(JsonNode before, JsonNode after) => Differences.Of(Only(before), Only(after));

    private static JsonElement Only(JsonNode card) =>
        JsonSerializer.SerializeToElement(new JsonObject { ["envelope"] = card["envelope"]!.DeepClone() });
}

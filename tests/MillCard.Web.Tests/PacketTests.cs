using System.IO.Compression;
using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using MillCard.Core.Records;
using MillCard.Store;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Packets: what is saved comes back the same, what is dropped is reviewed and taken whole or not at all.</summary>
public sealed class PacketTests(Server server) : IClassFixture<Server>
{
    private const string Dunlin = "0b9d3f5e-52f7-4f0f-9d38-4b1b7f6f0a01";

    private static async Task<byte[]> PackAsync(HttpClient client, JsonObject wish)
    {
        var answer = await client.PostAsync("/api/packets", Wire.Json(wish));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadAsByteArrayAsync();
    }

    private static MultipartFormDataContent Form(IEnumerable<string> take, params (string Path, byte[] Bytes)[] files)
    {
        var form = new MultipartFormDataContent();
        foreach (var (path, bytes) in files) form.Add(new ByteArrayContent(bytes), "files", path);
        foreach (var path in take) form.Add(new StringContent(path), "take");
        return form;
    }

    private static async Task<JsonElement> ReviewAsync(HttpClient client, params (string Path, byte[] Bytes)[] files)
    {
        var answer = await client.PostAsync("/api/packets/review", Form([], files));
        var body = await answer.BodyAsync();
        Assert.True(answer.StatusCode == HttpStatusCode.OK, body.GetRawText());
        return body;
    }

    private static async Task<JsonElement[]> TakeAsync(HttpClient client, IEnumerable<string> take,
        params (string Path, byte[] Bytes)[] files)
    {
        var answer = await client.PostAsync("/api/packets/take", Form(take, files));
        var body = await answer.BodyAsync();
        Assert.True(answer.StatusCode == HttpStatusCode.OK, body.GetRawText());
        return [.. body.EnumerateArray()];
    }

    private static IEnumerable<string> Standings(JsonElement review) =>
        review.GetProperty("documents").EnumerateArray().Select(d => d.GetProperty("standing").GetString()!);

    private static IEnumerable<string> Paths(JsonElement review) =>
        review.GetProperty("documents").EnumerateArray().Select(d => d.GetProperty("path").GetString()!);

    [Fact]
    public async Task The_whole_demo_taken_into_an_empty_mill_card_is_equal_document_by_document()
    {
        var packet = await PackAsync(server.Client, new JsonObject { ["history"] = true, ["who"] = "Mara" });
        await using var empty = new Server { Demo = null };
        await empty.InitializeAsync();
        var review = await ReviewAsync(empty.Client, ("all.zip", packet));
        Assert.All(Standings(review), s => Assert.Equal("new", s));
        Assert.All(review.GetProperty("documents").EnumerateArray(), d => Assert.Empty(d.GetProperty("notes").EnumerateArray()));
        await TakeAsync(empty.Client, Paths(review), ("all.zip", packet));

        var (there, here) = (await KeptAsync(server), await KeptAsync(empty));
        Assert.True(there.Documents.Count > 20);
        Assert.Equal(there.Documents.Keys.Order(), here.Documents.Keys.Order());
        foreach (var (id, json) in there.Documents) Assert.Empty(Differences.Of(json, here.Documents[id]));
        Assert.NotEmpty(there.Revisions);
        Assert.Equal(there.Revisions, here.Revisions);
        Assert.NotEmpty(there.Prints);
        Assert.Equal(there.Prints, here.Prints);
        Assert.All(Standings(await ReviewAsync(empty.Client, ("all.zip", packet))), s => Assert.Equal("same", s));
        foreach (var hash in there.Files) Assert.Equal(HttpStatusCode.OK, (await empty.Client.GetAsync($"/api/meshes/{hash}")).StatusCode);
    }

    /// <summary>All that a server keeps but programs and proofs.</summary>
    private static async Task<(Dictionary<Guid, JsonElement> Documents, string[] Revisions, string[] Prints, string[] Files)> KeptAsync(
        Server server)
    {
        await using var scope = server.Services.CreateAsyncScope();
        var context = scope.ServiceProvider.GetRequiredService<MillCardContext>();
        var documents = await context.Documents.ToDictionaryAsync(d => d.Id, d => JsonDocument.Parse(d.Draft).RootElement);
        return (documents,
            [.. (await context.Revisions.ToListAsync()).Select(r =>
                $"{r.DocumentId} {r.Number} {r.Note} {r.Who} {r.At:O} {r.Document}").Order()],
            [.. (await context.Prints.ToListAsync()).Select(p => $"{p.CardId} {p.At:O} {p.Picture} {p.Record}").Order()],
            [.. documents.Values.Where(d => d.TryGetProperty("parts", out _)).SelectMany(d => d.GetProperty("parts").EnumerateArray())
                .Select(p => p.GetProperty("file").GetString()!).Distinct()]);
    }

    [Fact]
    public async Task A_trial_comes_with_what_it_needs_and_a_selection_with_nothing_else()
    {
        var trial = (await (await server.Client.GetAsync("/api/trials")).BodyAsync())[0].GetProperty("id").GetString()!;
        using var zip = new ZipArchive(new MemoryStream(await PackAsync(server.Client,
            new JsonObject { ["documents"] = new JsonArray(trial) })));
        string[] folders = [.. zip.Entries.Select(e => e.FullName.Split('/')[0]).Distinct().Order()];
        Assert.Equal(["cards", "filaments", "files", "packet.json", "recipes", "trials"], folders);
        using var card = new ZipArchive(new MemoryStream(await PackAsync(server.Client,
            new JsonObject { ["documents"] = new JsonArray(Dunlin) })));
        Assert.Equal(["cards/Dunlin.json", "packet.json"], card.Entries.Select(e => e.FullName).Order());
        var nothing = await server.Client.PostAsync("/api/packets",
            Wire.Json(new JsonObject { ["documents"] = new JsonArray(Guid.NewGuid().ToString()) }));
        Assert.Equal(HttpStatusCode.NotFound, nothing.StatusCode);
    }

    [Fact]
    public async Task A_document_that_is_here_in_another_state_is_different_and_is_taken_beside_it_under_a_number()
    {
        var answer = JsonNode.Parse(await server.Client.GetStringAsync($"/api/cards/{Dunlin}"))!.AsObject();
        Assert.Equal(["same"], Standings(await ReviewAsync(server.Client, ("same.json", Bytes(answer)))));
        answer["document"]!["envelope"]!["height"] = 151;
        var review = await ReviewAsync(server.Client, ("other.json", Bytes(answer)));
        var one = review.GetProperty("documents")[0];
        Assert.Equal(("different", Dunlin, "Dunlin"), (one.GetProperty("standing").GetString(), one.GetProperty("against").GetString(),
            one.GetProperty("againstName").GetString()));
        var bare = answer["document"]!.AsObject();
        Assert.Equal(["different", "repeated"],
            Standings(await ReviewAsync(server.Client, ("a.json", Bytes(bare)), ("b/c.json", Bytes(bare)))));
        var names = (await (await server.Client.GetAsync("/api/cards")).BodyAsync()).EnumerateArray()
            .Select(c => c.GetProperty("name").GetString()!).ToArray();
        foreach (var name in Enumerable.Range(2, 50).Select(n => $"Dunlin {n}").Except(names).Take(2))
        {
            var taken = Assert.Single(await TakeAsync(server.Client, ["other.json"], ("other.json", Bytes(answer))));
            Assert.Equal(name, taken.GetProperty("name").GetString());
            Assert.NotEqual(Dunlin, taken.GetProperty("id").GetString());
        }
        Assert.NotEqual(151, (await (await server.Client.GetAsync($"/api/cards/{Dunlin}")).BodyAsync()).GetProperty("document")
            .GetProperty("envelope").GetProperty("height").GetDouble());
    }

    [Fact]
    public async Task A_trial_that_is_taken_beside_refers_to_the_card_that_came_with_it()
    {
        var client = server.Client;
        var trial = Guid.NewGuid().ToString();
        var card = JsonNode.Parse(await client.GetStringAsync($"/api/cards/{Dunlin}"))!.AsObject();
        card["document"]!["notes"] = "lent out";
        JsonObject Trial(string of) => new()
        {
            ["id"] = trial,
            ["document"] = new JsonObject { ["schema"] = "mill-card/trial/1", ["name"] = "Lent clamps", ["card"] = of },
        };
        (string, byte[])[] files = [("t.json", Bytes(Trial(Dunlin))), ("c.json", Bytes(card))];
        var taken = await TakeAsync(client, ["t.json", "c.json"], files);
        var ids = taken.ToDictionary(t => t.GetProperty("kind").GetString()!, t => t.GetProperty("id").GetString()!);
        Assert.Equal(trial, ids["trial"]);
        Assert.Equal(ids["card"], (await (await client.GetAsync($"/api/trials/{trial}")).BodyAsync()).GetProperty("document")
            .GetProperty("card").GetString());

        var stray = Trial(Guid.NewGuid().ToString());
        Assert.Equal(["damaged"], Standings(await ReviewAsync(client, ("t.json", Bytes(stray)))));
        var before = (await (await client.GetAsync("/api/cards")).BodyAsync()).GetArrayLength();
        var refused = await client.PostAsync("/api/packets/take", Form(["c.json", "t.json"], ("c.json", Bytes(card)),
            ("t.json", Bytes(stray))));
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Equal(before, (await (await client.GetAsync("/api/cards")).BodyAsync()).GetArrayLength());
    }

    [Fact]
    public async Task What_else_was_dropped_is_told_and_comes_out_of_its_zip_when_it_is_asked_for()
    {
        using var whole = new MemoryStream();
        using (var zip = new ZipArchive(whole, ZipArchiveMode.Create, leaveOpen: true))
        {
            void Put(string path, byte[] bytes)
            {
                using var stream = zip.CreateEntry(path).Open();
                stream.Write(bytes);
            }
            Put("in/box.stl", Wire.Box(10, 20, 30));
            Put("in/cut.stl", Wire.Box(10, 20, 30)[..300]);
            Put("in/says.txt", Encoding.UTF8.GetBytes("M92 X80 Y80\nM203 X100 Y100\n"));
        }
        (string, byte[]) file = ("mixed.zip", whole.ToArray());
        var loose = (await ReviewAsync(server.Client, file)).GetProperty("loose").EnumerateArray()
            .ToDictionary(l => l.GetProperty("path").GetString()!, l =>
                (l.GetProperty("kind").GetString(), l.GetProperty("says").GetString()));
        Assert.Equal(("mesh", "12 faces"), loose["mixed.zip/in/box.stl"]);
        Assert.Equal("damaged", loose["mixed.zip/in/cut.stl"].Item1);
        Assert.Equal("settings-report", loose["mixed.zip/in/says.txt"].Item1);
        var answer = await server.Client.PostAsync("/api/packets/file", Form(["mixed.zip/in/box.stl"], file));
        Assert.Equal(Wire.Box(10, 20, 30), await answer.Content.ReadAsByteArrayAsync());
        Assert.Equal(HttpStatusCode.NotFound, (await server.Client.PostAsync("/api/packets/file",
            Form(["mixed.zip/no"], file))).StatusCode);
        Assert.Equal(HttpStatusCode.UnsupportedMediaType, (await server.Client.PostAsync("/api/packets/review",
            Wire.Json(new JsonObject())))
            .StatusCode);
    }

    private static byte[] Bytes(JsonObject json) => Encoding.UTF8.GetBytes(json.ToJsonString());
}

using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Mvc.Testing;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using Npgsql;
using Xunit;

[assembly: AssemblyFixture(typeof(MillCard.Web.Tests.Server))]

namespace MillCard.Web.Tests;

/// <summary>The server on a database of its own in the cluster that <c>test.sh</c> starts, with the demo data.</summary>
public sealed class Server : IAsyncLifetime
{
    private readonly string _name = $"test_{Guid.NewGuid():N}";
    private WebApplicationFactory<Program>? _factory;

    public static string Root { get; } = FindRoot();

    private static string Cluster => Environment.GetEnvironmentVariable("CONNECTION") is { Length: > 0 } given
        ? given
        : throw new InvalidOperationException(
            "These tests need a PostgreSQL cluster: run ./test.sh, or set CONNECTION to one's connection string.");

    /// <summary>Folder of the data that the database is filled with; null for none.</summary>
    public string? Demo { get; init; } = Path.Combine(Root, "demo");

    /// <summary>Further settings, by name.</summary>
    public IReadOnlyDictionary<string, string> Settings { get; init; } = new Dictionary<string, string>();

    public HttpClient Client => _factory!.CreateClient();

    public async ValueTask InitializeAsync()
    {
        await ExecuteAsync($"create database {_name}");
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
        {
            host.UseSetting("ConnectionStrings:MillCard", new NpgsqlConnectionStringBuilder(Cluster) { Database = _name }.ToString());
            if (Demo is { } folder) host.UseSetting("Demo", folder);
            // the tests have enough to do beside it
            host.UseSetting("WarmUp", "false");
            foreach (var (name, value) in Settings) host.UseSetting(name, value);
        });
        _ = _factory.Server;
    }

    public async ValueTask DisposeAsync()
    {
        if (_factory is not null) await _factory.DisposeAsync();
        NpgsqlConnection.ClearAllPools();
        await ExecuteAsync($"drop database {_name} with (force)");
    }

    public IServiceProvider Services => _factory!.Services;

    private static async Task ExecuteAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(Cluster);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }

    private static string FindRoot()
    {
        var at = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(at, "MillCard.slnx")))
            at = Path.GetDirectoryName(at) ?? throw new InvalidOperationException("not in a checkout");
        return at;
    }
}

/// <summary>What requests and answers are made of.</summary>
internal static class Wire
{
    /// <summary>The example of a kind, to be changed.</summary>
    public static JsonObject Example(string kind) => JsonNode.Parse(Examples.Of(kind))!.AsObject();

    public static StringContent Json(JsonNode json) => new(json.ToJsonString(), Encoding.UTF8, "application/json");

    public static async Task<JsonElement> BodyAsync(this HttpResponseMessage answer) =>
        (await answer.Content.ReadFromJsonAsync<JsonElement>())!;

    /// <summary>Sends a file of meshes; the hash of the first.</summary>
    public static async Task<string> PutMeshAsync(this HttpClient client, byte[] file)
    {
        var answer = await client.PostAsync("/api/meshes", new ByteArrayContent(file));
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return (await answer.BodyAsync())[0].GetProperty("hash").GetString()!;
    }

    /// <summary>Pointers of the fields that are refused.</summary>
    public static IEnumerable<string> Pointers(this JsonElement problem) => problem.GetProperty("errors").EnumerateArray()
        .Select(e => e.GetProperty("pointer").GetString()!);

    /// <summary>Ids of the rules that found something.</summary>
    public static IEnumerable<string> RulesFound(this JsonElement answer) => answer.GetProperty("findings").EnumerateArray()
        .Select(f => f.GetProperty("rule").GetString()!);

    public static byte[] DemoPart(string name) => File.ReadAllBytes(Path.Combine(Server.Root, "demo", "parts", $"{name}.stl"));

    /// <summary>A box w × d × h as binary STL.</summary>
    public static byte[] Box(float w, float d, float h) => Boxes((w, d, h, 0));

    /// <summary>Boxes over the same corner, each at a height.</summary>
    public static byte[] Boxes(params (float W, float D, float H, float Z)[] boxes)
    {
        int[] faces = [0, 2, 1, 0, 3, 2, 4, 5, 6, 4, 6, 7, 0, 1, 5, 0, 5, 4, 1, 2, 6, 1, 6, 5, 2, 3, 7, 2, 7, 6, 3, 0, 4, 3, 4, 7];
        return Stl.Write(new Mesh(
            [.. boxes.SelectMany(b => new[] { b.Z, b.Z + b.H }.SelectMany(z => new[] { 0, 0, z, b.W, 0, z, b.W, b.D, z, 0, b.D, z }))],
            [.. boxes.SelectMany((_, i) => faces.Select(corner => corner + 8 * i))]));
    }

    /// <summary>A job with one part.</summary>
    public static MultipartFormDataContent Job(byte[] file, double x, double y, double turn = 0, JsonObject? card = null,
        bool settings = true)
    {
        var job = new JsonObject
        {
            ["card"] = card
            ?? Example("card"),
            ["parts"] = new JsonArray(
            new JsonObject { ["file"] = "part.stl", ["name"] = "part", ["x"] = x, ["y"] = y, ["turn"] = turn })
        };
        if (settings) (job["filament"], job["recipe"]) = (Example("filament"), Example("recipe"));
        var content = new ByteArrayContent(file);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/octet-stream");
        return new MultipartFormDataContent { { new StringContent(job.ToJsonString()), "job" }, { content, "files", "part.stl" } };
    }
}

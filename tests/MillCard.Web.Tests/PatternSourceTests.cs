using System.IO.Compression;
using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.FileProviders;
using Microsoft.Extensions.Logging;
using MillCard.Web.Hosting;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Pattern sources: looked at, taken with a pinned key, looked at again, forgotten; and the tool that makes them.</summary>
public sealed class PatternSourceTests : IAsyncLifetime
{
    private const string Reed = "saltmarsh-works:reed";
    private readonly string _folder = Directory.CreateTempSubdirectory("mill-card-patterns").FullName;
    private Server _server = null!;

    private static string Source(string state) => Path.Combine(Server.Root, "tests", "pattern-source", state);

    public async ValueTask InitializeAsync()
    {
        _server = new Server
        {
            Demo = null,
            Settings = new Dictionary<string, string> { ["Patterns:Folders:0"] = _folder, ["Patterns:Hosts:0"] = "127.0.0.1" },
        };
        await _server.InitializeAsync();
    }

    public async ValueTask DisposeAsync()
    {
        await _server.DisposeAsync();
        Directory.Delete(_folder, recursive: true);
    }

    private void Lay(string state, string name)
    {
        var to = Path.Combine(_folder, name);
        if (Directory.Exists(to)) Directory.Delete(to, recursive: true);
        foreach (var file in Directory.EnumerateFiles(Source(state), "*", SearchOption.AllDirectories))
        {
            var path = Path.Combine(to, Path.GetRelativePath(Source(state), file));
            Directory.CreateDirectory(Path.GetDirectoryName(path)!);
            File.Copy(file, path);
        }
    }

    private Task<HttpResponseMessage> AskAsync(string what, string place, string? key = null) => _server.Client.PostAsync(
        $"/api/pattern-sources/{what}", Wire.Json(new JsonObject { ["place"] = place, ["key"] = key }));

    private async Task<JsonElement> LookAsync(string place)
    {
        var answer = await AskAsync("look", place);
        var body = await answer.BodyAsync();
        Assert.True(answer.StatusCode == HttpStatusCode.OK, body.GetRawText());
        return body;
    }

    private async Task TakeAsync(string place)
    {
        var answer = await AskAsync("take", place, (await LookAsync(place)).GetProperty("key").GetString());
        Assert.True(answer.StatusCode == HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync());
    }

    private async Task<string> RefusedAsync(string what, string place, string? key = null)
    {
        var answer = await AskAsync(what, place, key);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        return (await answer.BodyAsync()).GetProperty("detail").GetString()!;
    }

    private async Task<JsonElement> SourceOfAsync(string id) => (await (await _server.Client.GetAsync("/api/pattern-sources")).BodyAsync())
        .GetProperty("sources").EnumerateArray().SingleOrDefault(s => s.GetProperty("id").GetString() == id);

    private async Task<JsonElement> PatternAsync(string id) => (await (await _server.Client.GetAsync("/api/patterns")).BodyAsync())
        .EnumerateArray().SingleOrDefault(p => p.GetProperty("id").GetString() == id);

    [Fact]
    public async Task A_source_in_a_folder_is_looked_at_taken_and_brings_its_newer_version_later()
    {
        Lay("first", "works");
        var review = await LookAsync("works");
        Assert.Equal("new", review.GetProperty("standing").GetString());
        Assert.Equal(JsonValueKind.Undefined, (await PatternAsync(Reed)).ValueKind);
        Assert.Contains("another than the one that was looked at", await RefusedAsync("take", "works", "0000"), StringComparison.Ordinal);
        await TakeAsync("works");

        Assert.Equal(1, (await PatternAsync(Reed)).GetProperty("version").GetInt32());
        var card = await (await _server.Client.GetAsync($"/api/patterns/{Reed}/card")).BodyAsync();
        Assert.Equal(Reed, card.GetProperty("pattern").GetProperty("id").GetString());
        var made = await (await _server.Client.PostAsync("/api/cards", Wire.Json(JsonNode.Parse(card.GetRawText())!))).BodyAsync();
        var head = (await (await _server.Client.GetAsync("/api/cards")).BodyAsync()).EnumerateArray().Single();
        Assert.Equal(made.GetProperty("id").GetString(), head.GetProperty("id").GetString());
        Assert.Equal(1, head.GetProperty("card").GetProperty("pattern").GetProperty("version").GetInt32());

        Lay("second", "works");
        Assert.Equal("newer", (await LookAsync("works")).GetProperty("standing").GetString());
        await _server.Client.PostAsync("/api/pattern-sources/saltmarsh-works/look-again", null);
        var pattern = await PatternAsync(Reed);
        Assert.Equal(2, pattern.GetProperty("version").GetInt32());
        Assert.Equal([2, 1], pattern.GetProperty("versions").EnumerateArray().Select(v => v.GetProperty("version").GetInt32()));
        async Task<double> HeightAsync(string query) =>
            (await (await _server.Client.GetAsync($"/api/patterns/{Reed}/card{query}")).BodyAsync())
            .GetProperty("envelope").GetProperty("height").GetDouble();
        Assert.Equal((130, 120, 120), (await HeightAsync("?version=1"), await HeightAsync("?version=2"), await HeightAsync("")));
        Assert.Equal(HttpStatusCode.NotFound, (await _server.Client.GetAsync($"/api/patterns/{Reed}/card?version=3")).StatusCode);

        using var told = new StringWriter();
        Assert.Equal(0, await _server.Services.CheckDataAsync(told));
        Assert.Equal(2, (await SourceOfAsync("saltmarsh-works")).GetProperty("patterns").GetInt32());
        Assert.Contains("3 patterns of sources", told.ToString(), StringComparison.Ordinal);

        // what is there gives way to nothing older, and says so with the source
        Lay("first", "works");
        await _server.Client.PostAsync("/api/pattern-sources/saltmarsh-works/look-again", null);
        Assert.Contains("older", (await SourceOfAsync("saltmarsh-works")).GetProperty("trouble").GetString()!, StringComparison.Ordinal);
        Assert.Equal(2, (await PatternAsync(Reed)).GetProperty("version").GetInt32());

        Assert.Equal(HttpStatusCode.NoContent, (await _server.Client.DeleteAsync("/api/pattern-sources/saltmarsh-works")).StatusCode);
        Assert.Equal(JsonValueKind.Undefined, (await PatternAsync(Reed)).ValueKind);
        Assert.Equal(HttpStatusCode.OK, (await _server.Client.GetAsync($"/api/cards/{made.GetProperty("id").GetString()}")).StatusCode);
    }

    [Fact]
    public async Task Another_key_is_refused_until_the_source_is_forgotten()
    {
        Lay("first", "works");
        await TakeAsync("works");
        var key = Path.Combine(_folder, "key.pem");
        Assert.Equal(0, Tool("key", key));
        Assert.Equal(0, Tool("sign", Path.Combine(_folder, "works"), "--key", key));
        Assert.Equal("other-key", (await LookAsync("works")).GetProperty("standing").GetString());
        Assert.Contains("another key", await RefusedAsync("take", "works",
            (await LookAsync("works")).GetProperty("key").GetString()), StringComparison.Ordinal);
        await _server.Client.PostAsync("/api/pattern-sources/saltmarsh-works/look-again", null);
        Assert.Contains("another key", (await SourceOfAsync("saltmarsh-works")).GetProperty("trouble").GetString()!,
            StringComparison.Ordinal);
        await _server.Client.DeleteAsync("/api/pattern-sources/saltmarsh-works");
        await TakeAsync("works");
        Assert.Equal("", (await SourceOfAsync("saltmarsh-works")).GetProperty("trouble").GetString());
    }

    [Theory]
    [InlineData("..")]
    [InlineData("../other")]
    [InlineData("/etc")]
    public async Task Folders_are_read_only_where_the_configuration_says(string place) =>
        Assert.Contains("only below", await RefusedAsync("look", place), StringComparison.Ordinal);

    [Theory]
    [InlineData("https://example.com/patterns", "not allowed")]
    [InlineData("http://localhost/patterns", "not allowed")]
    [InlineData("ftp://127.0.0.1/patterns", "no address")]
    [InlineData("http://someone@127.0.0.1/patterns", "no address")]
    [InlineData("nothing-there", "not there")]
    public async Task Nobody_is_asked_who_is_not_listed(string place, string why) =>
        Assert.Contains(why, await RefusedAsync("look", place), StringComparison.Ordinal);

    [Fact]
    public async Task A_source_at_an_address_is_read_file_by_file_or_as_a_zip_and_no_redirect_is_followed()
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        await using var maker = builder.Build();
        using var files = new PhysicalFileProvider(Source("second"));
        maker.UseStaticFiles(new StaticFileOptions { FileProvider = files, RequestPath = "/works", ServeUnknownFileTypes = true });
        maker.MapGet("/led/{**path}", (string path) => Results.Redirect($"/works/{path}"));
        maker.MapGet("/works.zip", () => Results.Bytes(ZipOf("second"), "application/zip"));
        maker.MapGet("/flood/patterns.json", () => Results.Bytes(new byte[2 << 20]));
        await maker.StartAsync(TestContext.Current.CancellationToken);
        var home = maker.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.Single();
        Assert.Equal("new", (await LookAsync($"{home}/works")).GetProperty("standing").GetString());
        Assert.Equal("new", (await LookAsync($"{home}/works.zip")).GetProperty("standing").GetString());
        Assert.Contains("answered with 302", await RefusedAsync("look", $"{home}/led"), StringComparison.Ordinal);
        Assert.Contains("answered with 404", await RefusedAsync("look", $"{home}/elsewhere"), StringComparison.Ordinal);
        Assert.Contains("larger than the 1 MB", await RefusedAsync("look", $"{home}/flood"), StringComparison.Ordinal);
        await TakeAsync($"{home}/works/");
        Assert.Equal($"{home}/works/", (await SourceOfAsync("saltmarsh-works")).GetProperty("place").GetString());
        await maker.StopAsync(TestContext.Current.CancellationToken);
        Assert.Contains("could not be read", await RefusedAsync("look", $"{home}/works"), StringComparison.Ordinal);
    }

    private static byte[] ZipOf(string state)
    {
        using var whole = new MemoryStream();
        ZipFile.CreateFromDirectory(Source(state), whole, CompressionLevel.Fastest, includeBaseDirectory: true);
        return whole.ToArray();
    }

    private static MultipartFormDataContent Dropped(string state, string? key = null)
    {
        var form = new MultipartFormDataContent { { new ByteArrayContent(ZipOf(state)), "files", "works.zip" } };
        form.Add(new StringContent($"works.zip/{state}/patterns.json"), "list");
        if (key is not null) form.Add(new StringContent(key), "key");
        return form;
    }

    [Fact]
    public async Task A_source_that_was_dropped_is_reviewed_with_what_else_was_and_taken_by_itself()
    {
        var dropped = new MultipartFormDataContent { { new ByteArrayContent(ZipOf("first")), "files", "works.zip" } };
        var packet = await (await _server.Client.PostAsync("/api/packets/review", dropped)).BodyAsync();
        Assert.Equal("patterns", packet.GetProperty("loose").EnumerateArray().Single().GetProperty("kind").GetString());
        Assert.Empty(packet.GetProperty("documents").EnumerateArray());
        var review = await (await _server.Client.PostAsync("/api/pattern-sources/look-dropped", Dropped("first"))).BodyAsync();
        Assert.Equal("saltmarsh-works", review.GetProperty("id").GetString());
        var key = review.GetProperty("key").GetString();
        Assert.Equal(HttpStatusCode.NoContent,
            (await _server.Client.PostAsync("/api/pattern-sources/take-dropped", Dropped("first", key))).StatusCode);
        Assert.Equal("", (await SourceOfAsync("saltmarsh-works")).GetProperty("place").GetString());
        Assert.Equal(HttpStatusCode.NotFound,
            (await _server.Client.PostAsync("/api/pattern-sources/saltmarsh-works/look-again", null)).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent,
            (await _server.Client.PostAsync("/api/pattern-sources/take-dropped", Dropped("second", key))).StatusCode);
        Assert.Equal(2, (await PatternAsync(Reed)).GetProperty("version").GetInt32());
    }

    private static int Tool(params string[] words) => Told(words).Code;

    private static (int Code, string Said, string Complained) Told(params string[] words)
    {
        using var said = new StringWriter();
        using var complained = new StringWriter();
        var code = PatternTool.Run(words, said, complained, DateTimeOffset.UtcNow);
        return (code, said.ToString(), complained.ToString());
    }

    [Fact]
    public async Task The_tool_makes_versions_and_signs_a_source_that_the_server_takes()
    {
        string At(string name) => Path.Combine(_folder, name);
        File.WriteAllText(At("card.json"), Wire.Example("card").ToJsonString());
        Assert.Equal(0, Tool("key", At("key.pem")));
        Assert.Equal(1, Tool("key", At("key.pem")));
        if (!OperatingSystem.IsWindows())
            Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(At("key.pem")));
        Assert.Equal(0, Tool("new", At("own"), "--id", "own-works", "--name", "Own Works"));
        Assert.Equal(0, Tool("add", At("own"), At("card.json"), "--id", "one", "--name", "One", "--about", "The first."));
        Assert.Contains("not signed", Told("check", At("own")).Complained, StringComparison.Ordinal);
        Assert.Equal(0, Tool("sign", At("own"), "--key", At("key.pem")));
        Assert.Contains("1 patterns in 1 versions", Told("check", At("own")).Said, StringComparison.Ordinal);
        await TakeAsync("own");
        // a card that is added leaves the source unsigned, and that is told
        var higher = Wire.Example("card");
        higher["envelope"]!["height"] = 77;
        File.WriteAllText(At("card.json"), higher.ToJsonString());
        Assert.Equal(0, Tool("add", At("own"), At("card.json"), "--id", "one", "--note", "lower"));
        Assert.Contains("not signed", await RefusedAsync("look", "own"), StringComparison.Ordinal);
        Assert.Equal(0, Tool("sign", At("own"), "--key", At("key.pem")));
        Assert.Equal("newer", (await LookAsync("own")).GetProperty("standing").GetString());
        ZipFile.CreateFromDirectory(At("own"), At("own.zip"));
        Assert.Contains("2 versions", Told("check", At("own.zip")).Said, StringComparison.Ordinal);
        await TakeAsync("own.zip");
        Assert.Equal(2, (await PatternAsync("own-works:one")).GetProperty("version").GetInt32());

        File.AppendAllText(Path.Combine(At("own"), "one", "1.json"), " ");
        Assert.Contains("not what was signed", Told("check", At("own")).Complained, StringComparison.Ordinal);
        Assert.Equal(1, Tool("sign", At("own"), "--key", At("key.pem")));
        Assert.Equal(1, Tool("sign", At("own"), "--key", At("card.json")));
        Assert.Equal(1, Tool("add", At("own"), At("key.pem"), "--id", "one"));
        Assert.Equal(2, Tool("add", At("own")));
        Assert.Equal(2, Tool());
    }
}

using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>Every address of the API description is asked with whatever comes to mind. Nothing but an answer or problem details may come
/// back.</summary>
public sealed class FuzzTests : IAsyncLifetime
{
    private static readonly int Requests = int.TryParse(Environment.GetEnvironmentVariable("FUZZ_REQUESTS"), out var wished) ? wished
        : 2500;
    private static readonly int Seed = int.TryParse(Environment.GetEnvironmentVariable("FUZZ_SEED"), out var wished) ? wished : 20261127;
    private readonly Server _server = new();
    private readonly Random _random = new(Seed);
    private readonly Dictionary<string, string[]> _ids = [];
    private string _mesh = "";

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private static readonly string[] Hostile =
    [
        "null", "true", "[]", "{}", "\"\"", "0", "-1", "1e308", "-1e308", "1e-320", "9007199254740993", "2147483648",
            "99999999999999999999999999", "0.1", "[[[[]]]]", "[null]", "{\"\":null}",
        "\"\\u0000\"", "\"\\ud800\"", "\"\\udfff x\"", "\"{{ 1 | divided_by: 0 }}\"",
            "\"{% for i in (1..9999) %}{% for j in (1..9999) %}x{% endfor %}{% endfor %}\"", "\"{{\"", "\"G1 X1e400\"",
        "\"\\u0001\\u001b[31m\\u200f<script>'\\\"; drop table document; --\"", "\"../../../etc/passwd\"",
            "\"" + new string('9', 400) + "\"", "\"" + new string('x', 5000) + "\"",
        "[[0,0],[10,10],[10,0],[0,10]]", "[[0],[1],[2]]", "[[1e300,0],[0,1e300],[-1e300,0]]", "\"NaN\"",
            "{\"shape\":\"polygon\",\"points\":[[0,0],[1,1],[1,0],[0,1]]}", "{\"id\":\"\\ud800\"}",
    ];

    private static readonly string[] Words = ["", "x", "0", "-1", "NaN", "Infinity", "1e308", "-1e308", "1e-320", "99999999999999999999",
        "true", "null", "\u0001", "Z", "AAAA", "%00", "3mf", "stl", "0.5", "n1", "walls", "/walls", "time"];

    [Fact]
    public async Task Whatever_is_sent_is_answered_or_refused_in_a_sentence()
    {
        using var client = _server.Client;
        client.Timeout = TimeSpan.FromMinutes(2);
        var description = await (await client.GetAsync("/openapi/v1.json")).BodyAsync();
        foreach (var kind in new[] { "cards", "filaments", "recipes", "trials" })
            _ids[kind] = [.. (await (await client.GetAsync($"/api/{kind}")).BodyAsync()).EnumerateArray()
                .Select(d => d.GetProperty("id").GetString()!)];
        _mesh = (await (await client.PostAsync("/api/meshes", new ByteArrayContent(Wire.Box(20, 20, 20)))).BodyAsync())[0]
            .GetProperty("hash").GetString()!;
        var operations = description.GetProperty("paths").EnumerateObject()
            .SelectMany(path => path.Value.EnumerateObject().Where(m => m.Value.TryGetProperty("responses", out _))
            .Select(m => (path.Name, Method: m.Name, m.Value))).ToArray();
        Assert.True(operations.Length > 90, $"only {operations.Length} operations are described");
        var (bad, seen) = (new List<string>(), new Dictionary<int, int>());
        for (var i = 0; i < Requests && bad.Count < 20; i++)
        {
            var (path, method, operation) = operations[i % operations.Length];
            using var request = Ask(path, method, operation);
            var said = request.Content is null ? "" : await request.Content.ReadAsStringAsync();
            using var answer = await client.SendAsync(request);
            var text = await answer.Content.ReadAsStringAsync();
            seen[(int)answer.StatusCode] = seen.GetValueOrDefault((int)answer.StatusCode) + 1;
            if (Complaint((int)answer.StatusCode, answer.Content.Headers.ContentType, text) is { } why)
                bad.Add($"{why}: {method} {request.RequestUri} {(said.Length > 1500 ? said[..1500] : said)}\n    → "
                    + $"{(int)answer.StatusCode} {(text.Length > 300 ? text[..300] : text)}");
        }
        Assert.True(bad.Count == 0, string.Join("\n", bad));
        Assert.True(seen.GetValueOrDefault(200) > Requests / 10, $"too few came through to test anything: {string.Join(", ", seen)}");
        TestContext.Current.TestOutputHelper?.WriteLine(
            $"seed {Seed}: {string.Join(", ", seen.OrderBy(s => s.Key).Select(s => $"{s.Value} × {s.Key}"))}");
    }

    /// <summary>What is wrong with an answer; null where nothing is.</summary>
    private static string? Complaint(int status, MediaTypeHeaderValue? type, string text)
    {
        if (status is >= 200 and < 300)
        {
            // a stream has sent its status before the work begins: it must not end with what nobody expected
            return type?.MediaType == "application/x-ndjson" && text.Contains("\"status\":500", StringComparison.Ordinal)
                ? "a stream that ends unexpectedly" : null;
        }
        if (status == 500) return "a failure";
        if (status == 412) return null;
        if (type?.MediaType != "application/problem+json") return "no problem details";
        var problem = JsonDocument.Parse(text).RootElement;
        if (problem.GetProperty("detail").GetString() is not { Length: > 10 } detail) return "no sentence";
        if (status == 422 && detail.Length > 4000) return "a sentence that nobody reads";
        return null;
    }

    private HttpRequestMessage Ask(string path, string method, JsonElement operation)
    {
        var query = new List<string>();
        foreach (var parameter in operation.TryGetProperty("parameters", out var listed) ? listed.EnumerateArray() : default)
        {
            var name = parameter.GetProperty("name").GetString()!;
            if (parameter.GetProperty("in").GetString() == "path")
                path = path.Replace($"{{{name}}}", Uri.EscapeDataString(PathValue(path, name)), StringComparison.Ordinal);
            else if (name == "draft" || _random.Next(2) == 0) query.Add($"{name}={Uri.EscapeDataString(QueryValue(name))}");
        }
        var request = new HttpRequestMessage(new HttpMethod(method.ToUpperInvariant()), query.Count > 0
            ? $"{path}?{string.Join('&', query)}" : path);
        if (method == "put") request.Headers.TryAddWithoutValidation("If-Match", $"\"{_random.Next(3000)}\"");
        if (method is "post" or "put") request.Content = Body(path, operation);
        return request;
    }

    private string PathValue(string path, string name) => name switch
    {
        "id" when _random.Next(8) > 0 && _ids.TryGetValue(path.Split('/')[2], out var known)
            && known.Length > 0 => known[_random.Next(known.Length)],
        "id" when path.StartsWith("/api/gauges", StringComparison.Ordinal)
            && _random.Next(4) > 0 => Pick("flow", "temperature", "vernier", "cube", "retraction", "overhang"),
        "id" when path.StartsWith("/api/patterns", StringComparison.Ordinal) && _random.Next(4) > 0 => "small-delta",
        "hash" when _random.Next(4) > 0 => _mesh,
        "kind" => Pick("card", "filament", "recipe", "trial", "x"),
        "letter" => Pick("A", "B", "ZZZZ", "0", "é"),
        _ => Pick(Words) is { Length: > 0 } word ? word : "x",
    };

    private string QueryValue(string name) => name switch
    {
        "draft" or "archived" or "lines" when _random.Next(4) > 0 => Pick("true", "false"),
        "card" when _random.Next(4) > 0 => Pick(_ids["cards"]),
        _ => Pick(Words),
    };

    private HttpContent? Body(string path, JsonElement operation)
    {
        if (!operation.TryGetProperty("requestBody", out var body)) return Raw(path);
        var (type, media) = body.GetProperty("content").EnumerateObject().Select(c => (c.Name, c.Value)).First();
        if (type == "text/plain") return new StringContent(
            Pick("[gcode_macro A]\ngcode:\n  G1 X{{", "[", "\0", new string('[', 5000), "[gcode_macro A]\ngcode:\n  A\n"));
        if (type == "multipart/form-data")
        {
            var job = new JsonObject
            {
                ["card"] = Wire.Example("card"),
                ["filament"] = Wire.Example("filament"),
                ["recipe"] = Wire.Example("recipe"),
                ["parts"] = JsonNode.Parse("""[{ "file": "part.stl", "name": "part", "x": 90, "y": 80 }]"""),
            };
            return new MultipartFormDataContent { { new StringContent(Spoilt(job)), "job" },
                { new ByteArrayContent(Wire.Box(10, 10, 4)), "files", Pick("part.stl", "part.stl", "x") } };
        }
        return new StringContent(Spoilt(Whole(media.GetProperty("schema").GetProperty("$ref").GetString()!.Split('/')[^1])), Encoding.UTF8,
            "application/json");
    }

    private HttpContent? Raw(string path) => path switch
    {
        "/api/meshes" => new ByteArrayContent(Noise(Wire.Box(10, 10, 10))),
        "/api/outlines" => new ByteArrayContent(
            Noise(Encoding.UTF8.GetBytes("<svg viewBox=\"0 0 10 10\"><path d=\"M0 0 L10 0 A5 5 0 0 1 10 10 C1 2 3 4 0 10 z\"/></svg>"))),
        "/api/pictures" => new ByteArrayContent(Noise([0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A, 0, 0])),
        _ when path.EndsWith("/program", StringComparison.Ordinal) =>
            new ByteArrayContent(Noise(Encoding.UTF8.GetBytes(
            $"G28\nM109 S200\nG1 X{new string('9', 400)}\nG2 X1 Y1 I5 J5\nG1 X10 E1 F1e99\nT1\nM605 S2\n"))),
        _ => null,
    };

    private byte[] Noise(byte[] bytes)
    {
        for (var i = _random.Next(3); i > 0; i--) bytes[_random.Next(bytes.Length)] = (byte)_random.Next(256);
        return _random.Next(6) == 0 ? bytes[.._random.Next(bytes.Length)] : bytes;
    }

    /// <summary>A good question of a kind, as far as one is known here.</summary>
    private JsonObject Whole(string schema)
    {
        var part = new JsonObject { ["name"] = "part", ["file"] = _mesh, ["x"] = 60, ["y"] = 60 };
        JsonObject With(params (string Name, JsonNode? Value)[] more)
        {
            var question = new JsonObject { ["card"] = Wire.Example("card") };
            foreach (var (name, value) in more) question[name] = value;
            return question;
        }
        return schema switch
        {
            "Card" or "Filament" or "Recipe" or "Trial" => Wire.Example(schema.ToLowerInvariant()),
            "DryRunQuestion" => With(("gcode", "G28\nM109 S200\nG1 X10 Y10 Z0.2 E1 F1200\nM104 S0\n")),
            "TrialFitQuestion" or "TrialOrderQuestion" => With(("recipe", Wire.Example("recipe")), ("parts", new JsonArray(part))),
            "PackingQuestion" => With(("recipe", Wire.Example("recipe")), ("part", part)),
            "MatchQuestion" or "GaugeQuestion" => With(("filament", Wire.Example("filament")), ("recipe", Wire.Example("recipe"))),
            "FlowQuestion" => With(("widths", new JsonArray(0.4)), ("heights", new JsonArray(0.2))),
            "SettingsReportQuestion" => With(("text", "echo: M92 X80 Y80 Z400 E93\nM203 X500")),
            "CarryQuestion" => With(("to", "klipper")),
            "LearnQuestion" => With(("gcode", "G28\nM109 S200\nG1 X10 Y10 Z0.2 F1200\nG1 X50 E2\nG1 Z0.4\nG1 X10 E2\nM104 S0\n")),
            "PreviewQuestion" => With(("layer", 1)),
            "RevisionQuestion" => new JsonObject { ["note"] = "as measured" },
            "ProofQuestion" => new JsonObject { ["trial"] = Pick(_ids["trials"]) },
            "PrintRecord" => new JsonObject { ["outcome"] = "good", ["line"] = "well" },
            "LineCommand" => new JsonObject { ["command"] = "M105" },
            _ => With(),
        };
    }

    /// <summary>The question with some members replaced by what does not belong there.</summary>
    private string Spoilt(JsonNode question)
    {
        var text = question.ToJsonString();
        for (var i = _random.Next(4); i > 0; i--)
        {
            var node = JsonNode.Parse(text);
            var place = Places(node, "").ElementAtOrDefault(_random.Next(Places(node, "").Count()));
            if (place is null) break;
            var (parent, last) = place.Value;
            var marker = $"\"@{i}@\"";
            if (parent is JsonArray list)
                list[int.Parse(last)] = JsonValue.Create($"@{i}@");
            else parent[last] = JsonValue.Create($"@{i}@");
            // put in as text: not all of it can be held by a parsed node
            text = node!.ToJsonString().Replace(marker, Pick(Hostile), StringComparison.Ordinal);
            try { JsonDocument.Parse(text); _ = JsonNode.Parse(text)!.ToJsonString(); }
            catch (Exception unfit) when (unfit is JsonException or InvalidOperationException) { break; }
        }
        return _random.Next(40) == 0 ? text[.._random.Next(text.Length)] : text;
    }

    private static IEnumerable<(JsonNode Parent, string Name)?> Places(JsonNode? node, string at) => node switch
    {
        JsonObject members => members.SelectMany(m => Places(m.Value, $"{at}/{m.Key}").Prepend((node, m.Key))),
        JsonArray items => items.SelectMany((item, i) => Places(item, $"{at}/{i}").Prepend((node, i.ToString()))),
        _ => [],
    };

    private string Pick(params string[] of) => of[_random.Next(of.Length)];
}

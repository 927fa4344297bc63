using System.Net;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>What is answered to whom.</summary>
public class SafetyTests(Server server)
{
    private Task<HttpResponseMessage> PostAsync(string? origin, string? host)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, "/api/check") { Content = Wire.Json(Wire.Example("card")) };
        if (origin is not null) request.Headers.Add("Origin", origin);
        if (host is not null) request.Headers.Host = host;
        return server.Client.SendAsync(request);
    }

    [Theory]
    [InlineData(null, null, HttpStatusCode.OK)]
    [InlineData("http://localhost", "localhost", HttpStatusCode.OK)]
    [InlineData("http://127.0.0.1:7420", "127.0.0.1:7420", HttpStatusCode.OK)]
    [InlineData("http://elsewhere.example", "localhost", HttpStatusCode.Forbidden)]
    [InlineData("null", "localhost", HttpStatusCode.Forbidden)]
    [InlineData("http://localhost:81", "localhost", HttpStatusCode.Forbidden)]
    [InlineData(null, "rebound.example", HttpStatusCode.BadRequest)]
    public async Task Only_its_own_pages_may_ask(string? origin, string? host, HttpStatusCode expected) =>
        Assert.Equal(expected, (await PostAsync(origin, host)).StatusCode);

    [Fact]
    public async Task Browsers_are_told_what_a_page_may_do()
    {
        var answer = await server.Client.GetAsync("/api/cards");
        Assert.Contains("default-src 'self'", answer.Headers.GetValues("Content-Security-Policy").Single());
        Assert.Equal("nosniff", answer.Headers.GetValues("X-Content-Type-Options").Single());
    }

    [Theory]
    [InlineData("GET", "/api/teapots", null, HttpStatusCode.NotFound)]
    [InlineData("DELETE", "/api/check", null, HttpStatusCode.MethodNotAllowed)]
    [InlineData("POST", "/api/check", "text/plain", HttpStatusCode.UnsupportedMediaType)]
    public async Task What_cannot_be_asked_is_refused_in_a_sentence(string method, string address, string? type, HttpStatusCode expected)
    {
        var request = new HttpRequestMessage(new HttpMethod(method), address)
        {
            Content = type is null ? null
            : new StringContent("{}", System.Text.Encoding.UTF8, type)
        };
        var answer = await server.Client.SendAsync(request);
        Assert.Equal(expected, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
        Assert.NotEmpty((await answer.BodyAsync()).GetProperty("detail").GetString()!);
    }
}

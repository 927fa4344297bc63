namespace MillCard.Web.Http;

/// <summary>Answers only to the names that this server is known by: a page of another name that points here gets nothing.</summary>
internal static class KnownHost
{
    private static readonly string[] Own = ["localhost", "127.0.0.1", "[::1]"];

    /// <summary>The names: those of this machine itself, and those that the configuration lists under Hosts.</summary>
    public static IReadOnlyList<string> Names(IConfiguration configuration) =>
        [.. Own, .. configuration.GetSection("Hosts").Get<string[]>() ?? []];

    public static Task Check(HttpContext context, RequestDelegate next, IReadOnlyList<string> names)
    {
        var host = context.Request.Host.Host;
        if (names.Any(name => name == "*" || string.Equals(name, host, StringComparison.OrdinalIgnoreCase))) return next(context);
        var called = host.Length > 60 ? $"{host[..60]}…" : host;
        return Refusal.Sentence(400, "Another name.",
            $"Mill Card does not answer to the name {called}; its configuration lists under Hosts to which it does.").ExecuteAsync(context);
    }
}

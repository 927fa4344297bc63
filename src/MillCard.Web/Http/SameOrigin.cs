namespace MillCard.Web.Http;

/// <summary>Refuses requests that a page of another origin makes, and sets what browsers must hold to.</summary>
internal static class SameOrigin
{
    private const string Policy =
        "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; worker-src 'self' blob:; connect-src 'self'; "
        + "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'";

    /// <summary>Seconds after which what is not possible now is worth trying again.</summary>
    private const string RetryAfter = "5";

    public static async Task Check(HttpContext context, RequestDelegate next)
    {
        var origin = context.Request.Headers.Origin.ToString();
        if (origin.Length > 0 && Acts(context.Request)
            && !(Uri.TryCreate(origin, UriKind.Absolute, out var from) && from.Authority == context.Request.Host.Value))
        {
            await Refusal.Sentence(403, "Another page asked.",
                "This request came from a page of another address; Mill Card answers its own pages only.").ExecuteAsync(context);
            return;
        }
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        context.Response.OnStarting(() =>
        {
            // an answer is true for the moment; only what is named by its own hash says otherwise
            if (context.Request.Path.StartsWithSegments("/api") && headers.CacheControl.Count == 0) headers.CacheControl = "no-store";
            if (context.Response.StatusCode is 503 or 429 && headers.RetryAfter.Count == 0) headers.RetryAfter = RetryAfter;
            return Task.CompletedTask;
        });
        await next(context);
    }

    /// <summary>Whether a request does more than read: anything but GET and HEAD, and every talk that begins with a GET.</summary>
    private static bool Acts(HttpRequest request) =>
        !HttpMethods.IsGet(request.Method) && !HttpMethods.IsHead(request.Method)
        || request.HttpContext.WebSockets.IsWebSocketRequest || request.Headers.Upgrade.Count > 0
            || request.Path.StartsWithSegments("/hubs");
}

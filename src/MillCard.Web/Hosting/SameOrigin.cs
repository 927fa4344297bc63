namespace MillCard.Web.Hosting;

/// <summary>Refuses requests that a page of another origin makes, and sets what browsers must hold to.</summary>
internal static class SameOrigin
{
    private const string Policy =
        "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; worker-src 'self' blob:; connect-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'";

    public static async Task Check(HttpContext context, RequestDelegate next)
    {
        var origin = context.Request.Headers.Origin.ToString();
        if (origin.Length > 0 && !HttpMethods.IsGet(context.Request.Method) && !HttpMethods.IsHead(context.Request.Method)
            && !(Uri.TryCreate(origin, UriKind.Absolute, out var from) && from.Authority == context.Request.Host.Value))
        {
            await Refusal.Sentence(403, "Another page asked.", "This request came from a page of another address; Mill Card answers its own pages only.").ExecuteAsync(context);
            return;
        }
        var headers = context.Response.Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        await next(context);
    }
}

using Microsoft.AspNetCore.Http.Features;
using MillCard.Core.Documents;

namespace MillCard.Web.Http;

/// <summary>Reads bodies within their bounds.</summary>
internal static class Bodies
{
    /// <summary>The whole body, bounded.</summary>
    /// <exception cref="BadHttpRequestException">It is larger.</exception>
    public static async Task<byte[]> ReadAsync(this HttpRequest request, long most, CancellationToken stop)
    {
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = most;
        if (request.ContentLength > most) throw new BadHttpRequestException("too large", StatusCodes.Status413PayloadTooLarge);
        using var whole = new MemoryStream((int)(request.ContentLength ?? 0));
        var piece = new byte[81920];
        for (int read; (read = await request.Body.ReadAsync(piece, stop)) > 0;)
        {
            if (whole.Length + read > most) throw new BadHttpRequestException("too large", StatusCodes.Status413PayloadTooLarge);
            whole.Write(piece, 0, read);
        }
        return whole.Length == whole.Capacity ? whole.GetBuffer() : whole.ToArray();
    }

    /// <summary>A document from the body.</summary>
    public static async Task<Reading<T>> ReadDocumentAsync<T>(this HttpRequest request, long most, bool draft, CancellationToken stop)
        where T : class
    {
        if (typeof(T) == typeof(Card)) request.HttpContext.Items[CardKey] = "";
        return DocumentReader.Read<T>(await request.ReadAsync(most, stop), draft);
    }

    /// <summary>Where the card stands in what was asked, so that a refusal can name a place in it.</summary>
    public static string CardAt(this HttpContext context) => context.Items[CardKey] as string ?? "/card";

    private static readonly object CardKey = new();
}

using Microsoft.AspNetCore.Http.Features;

namespace MillCard.Web.Http;

/// <summary>Reads forms with files within their bounds.</summary>
internal static class Forms
{
    /// <summary>The form of a multipart request.</summary>
    /// <param name="request">The request.</param>
    /// <param name="most">Bytes of the whole body.</param>
    /// <param name="file">Bytes of one file.</param>
    /// <param name="fields">Fields that are no files.</param>
    /// <param name="stop">Ends the wait.</param>
    /// <exception cref="FormRefusedException">It is broken or larger.</exception>
    public static async Task<IFormCollection> ReadBoundedFormAsync(this HttpRequest request, long most, long file, int fields,
        CancellationToken stop)
    {
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = most;
        request.HttpContext.Features.Set<IFormFeature>(new FormFeature(request, new FormOptions
        {
            MultipartBodyLengthLimit = file,
            ValueLengthLimit = (int)Bounds.Document,
            ValueCountLimit = fields,
            KeyLengthLimit = FormRefusedException.LongestName,
        }));
        try
        {
            return await request.ReadFormAsync(stop);
        }
        catch (InvalidDataException broken)
        {
            throw new FormRefusedException(fields, file, broken);
        }
    }

    /// <summary>The bytes of a file of a form.</summary>
    public static async Task<byte[]> BytesAsync(this IFormFile file, CancellationToken stop)
    {
        var bytes = new byte[file.Length];
        await using var content = file.OpenReadStream();
        await content.ReadExactlyAsync(bytes, stop);
        return bytes;
    }
}

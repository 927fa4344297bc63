using Microsoft.AspNetCore.Diagnostics;
using MillCard.Core.Meshes;
using MillCard.Store;
using Npgsql;

namespace MillCard.Web.Hosting;

/// <summary>Turns what goes wrong into problem details with a sentence.</summary>
internal sealed partial class Failures(ILogger<Failures> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken stop)
    {
        if (context.RequestAborted.IsCancellationRequested || context.Response.HasStarted) return true;
        var answer = exception switch
        {
            MeshRefusedException mesh => Refusal.Sentence(422, "The file is refused.", mesh.Message),
            MissingReferenceException missing => Refusal.Sentence(422, "The document is refused.", missing.Message, "/card"),
            BadHttpRequestException { StatusCode: 413 } => Refusal.Sentence(413, "Too large.", TooLarge(context)),
            BadHttpRequestException broken => Refusal.Sentence(broken.StatusCode, "The request is broken.", "The request could not be read; it was cut short or is not what this address takes."),
            InvalidDataException broken when broken.Message.Contains("limit", StringComparison.Ordinal) => Refusal.Sentence(413, "Too large.", TooLarge(context)),
            InvalidDataException broken => Refusal.Sentence(422, "The request is refused.", broken.Message),
            NpgsqlException => Refusal.Sentence(503, "The database does not answer.", "The database does not answer at the moment. What you typed is kept on this page and saved as soon as it does."),
            _ => null,
        };
        if (answer is null)
        {
            Unexpected(exception, context.Request.Path);
            answer = Refusal.Sentence(500, "Something went wrong here.", "Something went wrong in Mill Card itself. The server's log says more.");
        }
        context.Response.StatusCode = answer.StatusCode ?? 500;
        await answer.ExecuteAsync(context);
        return true;
    }

    private static string TooLarge(HttpContext context) =>
        context.Features.Get<Microsoft.AspNetCore.Http.Features.IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize is { } most
            ? $"This is larger than the {most >> 20} MB that are taken here."
            : "This is larger than what is taken here.";

    [LoggerMessage(LogLevel.Error, "Unexpected failure at {Path}")]
    private partial void Unexpected(Exception exception, PathString path);
}

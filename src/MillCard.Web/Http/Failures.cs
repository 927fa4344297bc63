using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Geometry;
using MillCard.Core.Meshes;
using MillCard.Store;
using MillCard.Web.Work;
using Npgsql;

namespace MillCard.Web.Http;

/// <summary>Turns what goes wrong into problem details with a sentence.</summary>
internal sealed partial class Failures(ILogger<Failures> log) : IExceptionHandler
{
    public async ValueTask<bool> TryHandleAsync(HttpContext context, Exception exception, CancellationToken stop)
    {
        if (context.RequestAborted.IsCancellationRequested || context.Response.HasStarted) return true;
        var answer = Tell(exception, context);
        context.Response.StatusCode = answer.StatusCode ?? 500;
        await answer.ExecuteAsync(context);
        return true;
    }

    /// <summary>What to answer to a failure; what nobody expected is logged whole, the rest in a line where it is worth one.</summary>
    public JsonHttpResult<Refusal> Tell(Exception exception, HttpContext context)
    {
        if (Known(exception, context) is { } known)
        {
            if (known.StatusCode == 503) Unavailable(context.Request.Path, Cause(exception).Message);
            return known;
        }
        Unexpected(exception, context.Request.Path);
        return Refusal.Sentence(500, "Something went wrong here.", "Something went wrong in Mill Card itself. The server's log says more.");
    }

    private static JsonHttpResult<Refusal>? Known(Exception exception, HttpContext context) => exception switch
    {
        MeshRefusedException mesh => Refusal.Sentence(422, "The file is refused.", mesh.Message),
        MemoryShortException shortage => Refusal.Sentence(422, "Too much for this machine.", shortage.Message),
        BusyException busy => Refusal.Sentence(429, "Too much at once.", busy.Message),
        OutlineException outline => Refusal.Sentence(422, "An outline is refused.", outline.Message, outline.Pointer is { } at
            ? $"{context.CardAt()}{at}" : ""),
        MissingReferenceException missing => Refusal.Sentence(422, "The document is refused.", missing.Message, "/card"),
        BadHttpRequestException { StatusCode: 413 } => Refusal.Sentence(413, "Too large.", TooLarge(context)),
        BadHttpRequestException broken => Refusal.Sentence(broken.StatusCode, "The request is broken.",
            "The request could not be read; it was cut short or is not what this address takes."),
        FormRefusedException large => Refusal.Sentence(413, "The form is refused.", large.Message),
        GoneException gone => Refusal.Sentence(422, "The request is refused.", gone.Message),
        _ => OfDatabase(exception),
    };

    /// <summary>Any failure of the database, however deep the mapper has wrapped it.</summary>
    private static JsonHttpResult<Refusal>? OfDatabase(Exception exception)
    {
        const string Kept = "What you typed is kept on this page and saved as soon as it can be.";
        return Chain(exception).OfType<NpgsqlException>().LastOrDefault() switch
        {
            PostgresException { SqlState: PostgresErrorCodes.DiskFull } =>
                Refusal.Sentence(503, "The disk is full.", $"The disk on which the database stands is full; free some room there. {Kept}"),
            // class 22: a value that no text of the database can hold
            PostgresException { SqlState: ['2', '2', ..] } =>
                Refusal.Sentence(422, "The request is refused.", "A text holds a character that cannot be stored."),
            NpgsqlException => Refusal.Sentence(503, "The database does not answer.",
                $"The database does not answer at the moment. {Kept}"),
            null => null,
        };
    }

    private static Exception Cause(Exception exception) => Chain(exception).Last();

    private static IEnumerable<Exception> Chain(Exception? exception)
    {
        for (; exception is not null; exception = exception.InnerException) yield return exception;
    }

    private static string TooLarge(HttpContext context) =>
        context.Features.Get<IHttpMaxRequestBodySizeFeature>()?.MaxRequestBodySize is { } most
            ? $"This is larger than the {most >> 20} MB that are taken here."
            : "This is larger than what is taken here.";

    [LoggerMessage(LogLevel.Error, "Unexpected failure at {Path}")]
    private partial void Unexpected(Exception exception, PathString path);

    [LoggerMessage(LogLevel.Warning, "Not available at {Path}: {Why}")]
    private partial void Unavailable(PathString path, string why);
}

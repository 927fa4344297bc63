using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using MillCard.Core.Documents;
using MillCard.Core.Findings;

namespace MillCard.Web.Http;

/// <summary>Problem details (RFC 9457): why a request is refused, in a sentence, with the fields or findings that say where.</summary>
public sealed class Refusal : ProblemDetails
{
    /// <summary>The fields that are wrong.</summary>
    public IReadOnlyList<FieldError> Errors { get; init; } = [];

    /// <summary>What forbids it.</summary>
    public IReadOnlyList<Finding> Findings { get; init; } = [];

    /// <summary>Media type of problem details.</summary>
    public const string MediaType = "application/problem+json";

    /// <summary>With fields.</summary>
    internal static JsonHttpResult<Refusal> Fields(params IReadOnlyList<FieldError> errors) =>
        Answer(new Refusal
        {
            Status = 422,
            Title = "The document is refused.",
            Detail = string.Join(' ', errors.Take(3).Select(e => e.Message)),
            Errors = errors
        });

    /// <summary>With findings.</summary>
    internal static JsonHttpResult<Refusal> Because(IReadOnlyList<Finding> findings) =>
        Answer(new Refusal { Status = 422, Title = "It cannot be sliced.", Detail = findings[0].Message, Findings = findings });

    /// <summary>With one sentence.</summary>
    internal static JsonHttpResult<Refusal> Sentence(int status, string title, string detail, string pointer = "") =>
        Answer(new Refusal
        {
            Status = status,
            Title = title,
            Detail = detail,
            Errors = pointer.Length > 0
            ? [new FieldError(pointer, FieldProblem.NotTaken, detail)] : []
        });

    /// <summary>Nothing is there.</summary>
    internal static JsonHttpResult<Refusal> Missing(string what) =>
        Sentence(404, "Not there.", $"{what} is not there; it may have been deleted.");

    /// <summary>The body is no form with files.</summary>
    internal static JsonHttpResult<Refusal> NoForm() => Sentence(422, "The request is refused.",
        "The body must be multipart/form-data with the files that were dropped.");

    /// <summary>What a bare status means here.</summary>
    internal static JsonHttpResult<Refusal> OfStatus(int status) => status switch
    {
        404 => Sentence(404, "Not there.", "There is nothing at this address."),
        405 => Sentence(405, "Not so.", "This address is not asked in this way; /openapi/v1.json says how."),
        415 => Sentence(415, "Another kind of body is needed.",
            "The content type of the body is not one that this address takes; /openapi/v1.json says which."),
        _ => Sentence(status, "Refused.", $"The request was refused with status {status}."),
    };

    /// <summary>A refusal as an answer, whatever made it.</summary>
    internal static JsonHttpResult<Refusal> Answer(Refusal refusal) =>
        TypedResults.Json(refusal, DocumentJson.Options, MediaType, refusal.Status);
}

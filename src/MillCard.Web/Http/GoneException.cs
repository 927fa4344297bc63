namespace MillCard.Web.Http;

/// <summary>Something that an answer needs is not there any more.</summary>
/// <param name="message">The sentence to show.</param>
internal sealed class GoneException(string message) : Exception(message);

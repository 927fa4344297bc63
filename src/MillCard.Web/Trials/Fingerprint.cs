using System.Security.Cryptography;
using System.Text.Json;
using MillCard.Core.Documents;

namespace MillCard.Web.Trials;

/// <summary>Keys of what is kept in memory: the values that a computation is made from, all of them.</summary>
internal static class Fingerprint
{
    /// <summary>The key of a question; anything else in it makes another key.</summary>
    public static string Of(object question) =>
        Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(question, DocumentJson.Options)));

    /// <summary>A card without what its owner writes beside the facts: that bears on no computation.</summary>
    public static Card Bare(this Card card) => card with
    {
        Notes = null,
        MeasureUp = null,
        Sources = new Dictionary<string, FactSource>(),
        Accepted = [],
        Line = null,
    };
}

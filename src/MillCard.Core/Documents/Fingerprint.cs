using System.Security.Cryptography;
using System.Text.Json;

namespace MillCard.Core.Documents;

/// <summary>Keys of what is kept in memory: the values that a computation is made from, all of them.</summary>
public static class Fingerprint
{
    /// <summary>The key of a question; anything else in it makes another key.</summary>
    public static string Of(object question) =>
        Convert.ToHexString(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(question, DocumentJson.Options)));
}

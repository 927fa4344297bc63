using System.Security.Cryptography;
using MillCard.Core.Documents;
using MillCard.Core.Packets;

namespace MillCard.Core.Patterns;

/// <summary>The signature of a source's list, kept beside it as <c>patterns.sig</c>.</summary>
/// <remarks>ECDSA on the curve P-256 with SHA-256 (FIPS 186-5), the signature in DER (RFC 3279, 2.2.3).</remarks>
public sealed record SourceSignature : OpenRecord
{
    /// <summary>Name and version of its schema.</summary>
    public const string SchemaName = "mill-card/signature/1";
    /// <summary>Its name in the source.</summary>
    public const string FileName = PacketContents.PatternSignature;

    private const DSASignatureFormat Form = DSASignatureFormat.Rfc3279DerSequence;

    /// <summary>Always <see cref="SchemaName"/> once read.</summary>
    public string Schema { get; init; } = SchemaName;
    /// <summary>The public key, as <see cref="SourceKey.Base64"/>.</summary>
    [Field("key", Needed = true, Fewest = 1, Most = 400)] public string Key { get; init; } = "";
    /// <summary>The signature over the bytes of the list, base64.</summary>
    [Field("signature", Needed = true, Fewest = 1, Most = 400)] public string Signature { get; init; } = "";

    /// <summary>Signs a list.</summary>
    /// <param name="index">Its bytes.</param>
    /// <param name="key">The key with its private half.</param>
    public static SourceSignature Of(ReadOnlySpan<byte> index, ECDsa key) => new()
    {
        Key = SourceKey.Of(key).Base64,
        Signature = Convert.ToBase64String(key.SignData(index, HashAlgorithmName.SHA256, Form)),
    };

    /// <summary>The key with which a list was signed; null where the signature is none, or not of these bytes.</summary>
    /// <param name="index">Bytes of the list.</param>
    public SourceKey? KeyOf(ReadOnlySpan<byte> index)
    {
        var known = new SourceKey(Key);
        using var key = known.Opened();
        if (key is null) return null;
        var signature = new byte[Signature.Length];
        return Convert.TryFromBase64String(Signature, signature, out var length)
            && key.VerifyData(index, signature.AsSpan(0, length), HashAlgorithmName.SHA256, Form) ? known : null;
    }
}

using System.Security.Cryptography;

namespace MillCard.Core.Patterns;

/// <summary>The public key of whoever signs a source.</summary>
/// <param name="Base64">SubjectPublicKeyInfo (RFC 5480), base64.</param>
public sealed record SourceKey(string Base64)
{
    private const string P256 = "1.2.840.10045.3.1.7";
    private const int PointLength = 64;

    // what stands before the two coordinates of every key on the curve P-256 (RFC 5480, 2.1.1, 2.2)
    private static readonly byte[] Before = Convert.FromHexString("3059301306072A8648CE3D020106082A8648CE3D03010703420004");

    /// <summary>By what people compare keys: SHA-256 of its bytes, hexadecimal, in groups of eight.</summary>
    public string Fingerprint => string.Join(' ', Convert.ToHexStringLower(SHA256.HashData(Convert.FromBase64String(Base64)))
        .Chunk(8).Select(group => new string(group)));

    /// <summary>The public half of a key.</summary>
    public static SourceKey Of(ECDsa key) => new(Convert.ToBase64String(key.ExportSubjectPublicKeyInfo()));

    /// <summary>The key as the system takes it; null where it is no key on the curve P-256 (FIPS 186-5, SP 800-186).</summary>
    public ECDsa? Opened()
    {
        var bytes = new byte[Base64.Length];
        if (!Convert.TryFromBase64String(Base64, bytes, out var length) || length != Before.Length + PointLength
            || !bytes.AsSpan().StartsWith(Before) || Convert.ToBase64String(bytes, 0, length) != Base64) return null;
        var key = ECDsa.Create();
        try
        {
            key.ImportSubjectPublicKeyInfo(bytes.AsSpan(0, length), out _);
            return key;
        }
        catch (CryptographicException)
        {
            // the point is not on the curve
            key.Dispose();
            return null;
        }
    }

    /// <summary>Whether a key is on the curve that sources are signed with.</summary>
    public static bool IsOnCurve(ECDsa key) => key.ExportParameters(includePrivateParameters: false).Curve.Oid.Value == P256;
}

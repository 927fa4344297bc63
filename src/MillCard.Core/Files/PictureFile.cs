namespace MillCard.Core.Files;

/// <summary>Pictures, told apart by content.</summary>
public static class PictureFile
{
    /// <summary>Media type of a picture; null where it is none that is taken.</summary>
    public static string? TypeOf(ReadOnlySpan<byte> file)
    {
        if (file.StartsWith((ReadOnlySpan<byte>)[0x89, 0x50, 0x4E, 0x47])) return "image/png";
        if (file.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF])) return "image/jpeg";
        return file.Length > 12 && file.StartsWith("RIFF"u8) && file[8..12].SequenceEqual("WEBP"u8) ? "image/webp" : null;
    }
}

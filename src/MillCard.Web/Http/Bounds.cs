namespace MillCard.Web.Http;

/// <summary>How much is read of anything that comes in.</summary>
internal static class Bounds
{
    private const long Mebibyte = 1L << 20;

    /// <summary>A document, bytes.</summary>
    public const long Document = Core.Packets.Exchange.MostBytes;
    /// <summary>A picture, bytes.</summary>
    public const long Picture = 12 * Mebibyte;
    /// <summary>A mesh file, bytes.</summary>
    public const long Mesh = 256 * Mebibyte;
    /// <summary>A program, bytes.</summary>
    public const long Gcode = 64 * Mebibyte;
    /// <summary>A job with its files, bytes.</summary>
    public const long Job = 512 * Mebibyte;
    /// <summary>Packets and other files that are dropped together, bytes.</summary>
    public const long Packet = 256 * Mebibyte;
    /// <summary>Files that are dropped together.</summary>
    public const int DroppedFiles = 3000;
    /// <summary>Files in a job.</summary>
    public const int JobFiles = 200;
    /// <summary>Lines of a program given at once.</summary>
    public const int Lines = 1000;
}

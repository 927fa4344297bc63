using System.Globalization;
using System.Xml;
using MillCard.Core.Meshes;

namespace MillCard.Core.Files;

/// <summary>Reading XML mesh files safely: no DTD, nothing fetched.</summary>
internal static class MeshXml
{
    public static readonly XmlReaderSettings Settings = new()
    {
        DtdProcessing = DtdProcessing.Prohibit,
        XmlResolver = null,
        IgnoreComments = true,
        IgnoreWhitespace = true,
        IgnoreProcessingInstructions = true,
        MaxCharactersInDocument = Packed.MostBytes,
    };

    /// <summary>Reads with a reader; what is broken about the XML becomes a sentence.</summary>
    public static T Reading<T>(string format, Stream stream, Func<XmlReader, T> read)
    {
        try
        {
            using var reader = XmlReader.Create(stream, Settings);
            return read(reader);
        }
        catch (XmlException broken)
        {
            throw new MeshRefusedException($"This {format} is broken at line {broken.LineNumber}: it is cut short or not well-formed.",
                broken);
        }
    }

    /// <summary>Millimetres to a unit.</summary>
    public static double Millimetres(string format, string? unit) => unit switch
    {
        null or "millimeter" => 1,
        "micron" => 0.001,
        "centimeter" => 10,
        "inch" => 25.4,
        "foot" or "feet" => 304.8,
        "meter" => 1000,
        _ => throw new MeshRefusedException($"This {format} measures in {unit}, which is no unit of its standard."),
    };

    public static double Number(string format, string? text) =>
        double.TryParse(text, NumberStyles.Float, CultureInfo.InvariantCulture, out var value) && double.IsFinite(value) ? value
            : throw new MeshRefusedException($"This {format} has “{text}” where a number belongs.");

    public static int Index(string format, string? text, int count) =>
        int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var value) && value < count ? value
            : throw new MeshRefusedException($"A face of this {format} names corner {text}; there are {count}.");
}

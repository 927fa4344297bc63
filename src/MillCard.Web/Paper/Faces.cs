using System.Reflection;
using PdfSharp.Drawing;
using PdfSharp.Fonts;
using PdfSharp.Pdf;

namespace MillCard.Web.Paper;

/// <summary>What a text on a sheet is set in.</summary>
internal enum Face
{
    /// <summary>Running text.</summary>
    Text,
    /// <summary>Names and headings.</summary>
    Strong,
    /// <summary>Letters of dimensions and of the frame, narrow.</summary>
    Letters,
    /// <summary>G-code.</summary>
    Code,
}

/// <summary>The faces that sheets are set in; all of them are embedded. A text in several scripts is set in several faces.</summary>
internal sealed class Faces : IFontResolver
{
    private const char Unknown = '?';
    private static readonly Lazy<bool> Known = new(() =>
    {
        GlobalFontSettings.FontResolver ??= new Faces();
        return true;
    });

    /// <inheritdoc/>
    public byte[]? GetFont(string faceName)
    {
        using var stream = Assembly.GetExecutingAssembly().GetManifestResourceStream($"faces/{faceName}");
        if (stream is null) return null;
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        return bytes.ToArray();
    }

    /// <inheritdoc/>
    public FontResolverInfo? ResolveTypeface(string familyName, bool isBold, bool isItalic) => new(familyName);

    /// <summary>A text in pieces, each with the font that has its characters; characters that no face has become question marks.</summary>
    /// <param name="text">The text, one line.</param>
    /// <param name="face">What it is set in.</param>
    /// <param name="size">Height of the type, points.</param>
    public static IEnumerable<(string Piece, XFont Font)> Set(string text, Face face, double size)
    {
        _ = Known.Value;
        var from = 0;
        var shown = string.Concat(text.Select(c => FamilyOf(c, face) is null ? Unknown : c));
        for (var i = 1; i <= shown.Length; i++)
        {
            var family = FamilyOf(shown[from], face)!;
            if (i < shown.Length && FamilyOf(shown[i], face) == family) continue;
            yield return (shown[from..i], new XFont(family, size, XFontStyleEx.Regular,
                new XPdfFontOptions(PdfFontEncoding.Unicode, PdfFontEmbedding.EmbedCompleteFontFile)));
            from = i;
        }
    }

    // the ranges that the files' character maps hold
    private static string? FamilyOf(char c, Face face) => c switch
    {
        >= ' ' and <= '~' or >= '\u00A0' and <= '\u00FF' or '\u2013' or '\u2014' or '\u2018' or '\u2019' or '\u201C' or '\u201D' or '\u2022'
            or '\u2026' or '\u20AC' or '\u2212' => face switch
            {
                Face.Strong => "strong-latin",
                Face.Letters => "letters-latin",
                Face.Code => "code-latin",
                _ => "text-latin",
            },
        >= '\u0100' and <= '\u017F' => "text-latin-ext",
        >= '\u0391' and <= '\u03C9' => "text-greek",
        >= '\u0410' and <= '\u044F' => "text-cyrillic",
        _ => null,
    };
}

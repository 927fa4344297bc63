using System.Text;
using System.Text.RegularExpressions;
using System.Text.Unicode;
using MillCard.Core.Files;

namespace MillCard.Core.Packets;

/// <summary>What a file is that is no document.</summary>
public enum LooseKind
{
    /// <summary>A mesh: it can be laid on a bed.</summary>
    Mesh,
    /// <summary>A picture.</summary>
    Picture,
    /// <summary>A G-code program: what prints well can be learned from it.</summary>
    Program,
    /// <summary>What a firmware says of itself.</summary>
    SettingsReport,
    /// <summary>A firmware's configuration with macros.</summary>
    Macros,
    /// <summary>The list of a packet.</summary>
    Manifest,
    /// <summary>The list of a pattern source.</summary>
    Patterns,
    /// <summary>A packet or one of its files that is not as it was packed.</summary>
    Damaged,
    /// <summary>Nothing that is taken here.</summary>
    NotOurs,
}

/// <summary>Tells files apart by what is in them.</summary>
public static partial class Recognition
{
    private const int Looked = 200_000;
    private const int MostWords = 400;

    private static readonly string[] MeshNames = [".stl", ".3mf", ".obj", ".amf"];

    /// <summary>What a file is; JSON is told apart before. What goes by a mesh's name and is none will say so when it is read.</summary>
    /// <param name="name">Its name.</param>
    /// <param name="file">Its bytes.</param>
    public static LooseKind Of(string name, ReadOnlySpan<byte> file) => Of(file) switch
    {
        LooseKind.NotOurs when MeshNames.Any(end => name.EndsWith(end, StringComparison.OrdinalIgnoreCase)) => LooseKind.Mesh,
        var kind => kind,
    };

    private static LooseKind Of(ReadOnlySpan<byte> file)
    {
        if (file.Length == 0) return LooseKind.NotOurs;
        if (PictureFile.TypeOf(file) is not null) return LooseKind.Picture;
        if (file is [(byte)'P', (byte)'K', ..] || Stl.Is(file) || MeshFile.StartsWith(file, "<amf"u8) || IsXmlOf(file, "<amf"u8))
            return LooseKind.Mesh;
        var head = file[..Math.Min(file.Length, Looked)];
        // a piece may end within a character
        for (var cut = 0; cut < 4 && head.Length > 0 && file.Length > Looked && !Utf8.IsValid(head); cut++) head = head[..^1];
        if (!Utf8.IsValid(head) || head.Contains((byte)0)) return LooseKind.NotOurs;
        var text = Encoding.UTF8.GetString(head);
        if (MacroSection().IsMatch(text)) return LooseKind.Macros;
        var moves = Move().Count(text);
        if (moves < 3 && Reported().Count(text) >= 2) return LooseKind.SettingsReport;
        if (Obj.Is(file)) return LooseKind.Mesh;
        return moves >= 3 || moves > 0 && Word().Matches(text).Take(MostWords).Count() == moves ? LooseKind.Program : LooseKind.NotOurs;
    }

    private static bool IsXmlOf(ReadOnlySpan<byte> file, ReadOnlySpan<byte> root) =>
        MeshFile.StartsWith(file, "<?xml"u8) && file[..Math.Min(file.Length, 2000)].IndexOf(root) >= 0;

    [GeneratedRegex(@"^\s*\[(?:gcode_macro\s+\S+|printer|extruder|stepper_[a-z]\d*)\]", RegexOptions.Multiline | RegexOptions.IgnoreCase)]
    private static partial Regex MacroSection();

    [GeneratedRegex(@"^\s*(?:N\d+\s+)?G0?[0123]\s+[XYZEF]", RegexOptions.Multiline | RegexOptions.IgnoreCase)]
    private static partial Regex Move();

    [GeneratedRegex(@"\bM(?:92|201|203|204|205|206|208|301|304|566|851|906)\b", RegexOptions.IgnoreCase)]
    private static partial Regex Reported();

    [GeneratedRegex(@"^\s*[A-Z]", RegexOptions.Multiline | RegexOptions.IgnoreCase)]
    private static partial Regex Word();
}

namespace MillCard.Core.Gcode;

/// <summary>Remarks between which the layers of a program stand: it is written with them, and a dry run looks for them.</summary>
public static class LayerMarks
{
    /// <summary>Before the first layer.</summary>
    public const string Begin = "; layers begin";
    /// <summary>After the last layer.</summary>
    public const string End = "; layers end";

    /// <summary>Whether a line is one of them.</summary>
    /// <param name="line">Without its line end.</param>
    /// <param name="mark">Which.</param>
    internal static bool Is(ReadOnlySpan<byte> line, string mark) => System.Text.Ascii.Equals(line, mark);
}

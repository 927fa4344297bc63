using MillCard.Core.Documents;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Walls;

/// <summary>Roughens outer walls: at every grain the line stands off its curve by another amount, inwards or outwards.</summary>
internal static class Texture
{
    /// <summary>The wall with its texture.</summary>
    /// <param name="wall">As it follows the contour.</param>
    /// <param name="use">Depth, from trough to crest, and grain.</param>
    /// <param name="layer">Layers differ from each other; the same one comes out the same every time.</param>
    public static ToolPath On(ToolPath wall, WallUse use, int layer)
    {
        var count = (int)(wall.Length / use.TextureGrain);
        if (count < 3) return wall;
        var (points, widths) = (new Point[count], new double[count]);
        var (place, along) = (0, 0.0);
        for (var k = 0; k < count; k++)
        {
            var wanted = wall.Length * k / count;
            while (place + 1 < Segments(wall) && along + Step(wall, place) < wanted) along += Step(wall, place++);
            var step = Step(wall, place);
            var (at, width) = wall.At(place + (step > 0 ? Math.Clamp((wanted - along) / step, 0, 1) : 0));
            var (a, b) = (wall.Points[place], wall.Points[(place + 1) % wall.Points.Length]);
            var off = use.Texture * (Noise(layer, k) - 0.5);
            points[k] = step > 0 ? new(at.X - (b.Y - a.Y) / step * off, at.Y + (b.X - a.X) / step * off) : at;
            widths[k] = width;
        }
        return wall with { Points = points, Widths = wall.Widths is null ? null : widths };
    }

    private static int Segments(ToolPath wall) => wall.Closed ? wall.Points.Length : wall.Points.Length - 1;

    private static double Step(ToolPath wall, int i) => wall.Points[i].To(wall.Points[(i + 1) % wall.Points.Length]);

    /// <summary>Evenly spread over 0 to 1, the same for the same place (the finaliser of MurmurHash3, A. Appleby).</summary>
    private static double Noise(int layer, int k)
    {
        var h = unchecked((uint)layer * 0x9E3779B9u + (uint)k * 0x85EBCA6Bu + 1);
        h = unchecked((h ^ (h >> 16)) * 0x85EBCA6Bu);
        h = unchecked((h ^ (h >> 13)) * 0xC2B2AE35u);
        return (h ^ (h >> 16)) / (double)uint.MaxValue;
    }
}

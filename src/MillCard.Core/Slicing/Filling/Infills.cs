using MillCard.Core.Documents;
using MillCard.Core.Slicing.Paths;

namespace MillCard.Core.Slicing.Filling;

/// <summary>Lays one pattern of sparse infill on one layer.</summary>
internal delegate IEnumerable<ToolPath> FillWith(FillPlace place);

/// <summary>The patterns of sparse infill.</summary>
internal static class Infills
{
    private static readonly Dictionary<InfillPattern, FillWith> All = new()
    {
        [InfillPattern.Lines] = Straight.Lines,
        [InfillPattern.Grid] = Straight.Grid,
        [InfillPattern.Triangles] = Straight.Triangles,
        [InfillPattern.Cubic] = Straight.Cubic,
        [InfillPattern.Graded] = Straight.Graded,
        [InfillPattern.Concentric] = Concentric.Fill,
        [InfillPattern.Honeycomb] = Honeycomb.Fill,
        [InfillPattern.Gyroid] = Gyroid.Fill,
    };

    /// <summary>The lines of a pattern.</summary>
    public static IEnumerable<ToolPath> Of(InfillPattern pattern, FillPlace place) => All[pattern](place);
}

using MillCard.Core.Documents;

namespace MillCard.Core.Slicing.Sections;

/// <summary>What holds in a part and in the zones it may lie in.</summary>
internal sealed class ZoneSettings
{
    private readonly Recipe[] _laid;
    private readonly int[] _pacedBy;

    /// <param name="zones">In their order.</param>
    /// <param name="recipe">The part's own settings, complete.</param>
    public ZoneSettings(IReadOnlyList<ZoneToSlice> zones, Recipe recipe)
    {
        Recipe[] all = [recipe, .. zones.Select(z => z.Zone.Use != ZoneUse.Settings ? recipe
            : Departures.Apply(recipe, z.Zone.Settings, Departs.Zone).Document ?? recipe)];
        Paces = [.. all.DistinctBy(r => r.Speeds)];
        _laid = [.. all.Select(r => r.ForLines())];
        _pacedBy = [.. all.Select(r => Paces.ToList().FindIndex(p => p.Speeds == r.Speeds))];
    }

    /// <summary>Recipes whose speeds hold somewhere, each once; the part's own comes first.</summary>
    public IReadOnlyList<Recipe> Paces { get; }

    /// <summary>What lines are laid by: of the part, then of every zone.</summary>
    public IReadOnlyList<Recipe> Laid => _laid;

    /// <summary>Which of the paces holds for each of them.</summary>
    public IReadOnlyList<int> PacedBy => _pacedBy;

    /// <summary>What holds where no zone lies.</summary>
    public Piece Own => new(_laid[0], _pacedBy[0], Geometry.Plane.Empty);

    /// <summary>What holds in a zone.</summary>
    public Piece Of(int zone) => new(_laid[zone + 1], _pacedBy[zone + 1], Geometry.Plane.Empty);
}

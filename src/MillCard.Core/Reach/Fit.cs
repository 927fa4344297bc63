using MillCard.Core.Documents;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;

namespace MillCard.Core.Reach;

/// <summary>Whether moves are looked for that cure what is wrong.</summary>
public enum Cures
{
    /// <summary>They are.</summary>
    Sought,
    /// <summary>They are not; a verdict under a moving pointer goes without.</summary>
    LeftOut,
}

/// <summary>Whether parts fit a machine, by how much they do not, and which move cures it.</summary>
public sealed class Fit
{
    private const double DefaultFirstLayer = 0.2;

    /// <summary>Outlines of more corners are not moved about to see what cures them: every try takes seconds.</summary>
    private const int MostCorners = 20_000;

    private readonly Machine _machine;
    private readonly Recipe? _recipe;
    private readonly Surroundings _around;
    private readonly Violations _violations;
    private readonly CuringMoves _curing;
    private Fit? _bare;

    /// <summary>Prepares what does not depend on the parts.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="recipe">What is grown on the first layer; null for nothing.</param>
    public Fit(Machine machine, Recipe? recipe = null) : this(machine, recipe, ApronOf(recipe, machine.Card))
    {
    }

    private Fit(Machine machine, Recipe? recipe, Apron apron)
    {
        (_machine, _recipe, _around) = (machine, recipe, new Surroundings(machine, apron));
        var overlaps = new Overlaps();
        (_violations, _curing) = (new Violations(_around, overlaps), new CuringMoves(machine, overlaps));
    }

    /// <summary>The regions a part of the first nozzle must stay out of, as drawn on the plan.</summary>
    public IReadOnlyList<Forbidden> Regions => _around.ForbiddenTo(0);

    /// <summary>What a recipe grows round a part's lowest layers: skirt with its gap. Brim and raft end where the bed does; the skirt goes
    /// round them.</summary>
    /// <param name="recipe">Any recipe; null for nothing.</param>
    /// <param name="card">The machine, which decides what rungs and shares of its nozzle come to.</param>
    public static Apron ApronOf(Recipe? recipe, Card card)
    {
        if (recipe is null) return new Apron(DefaultFirstLayer, 0);
        recipe = Motion.Ladder.Resolved(recipe, card);
        var first = recipe.Layers.First ?? recipe.Layers.Others ?? DefaultFirstLayer;
        return recipe.Skirt.Rounds == 0 ? new Apron(first, 0)
            : new Apron(first,
                FootOf(recipe) + recipe.Skirt.Gap + recipe.Skirt.Rounds * (recipe.LineWidth ?? 0) * (recipe.Widths.First ?? 1),
                recipe.Skirt.Height(first, recipe.Layers.Others ?? first));
    }

    /// <summary>How far a recipe's brim or raft reaches out round a part, mm.</summary>
    internal static double FootOf(Recipe recipe)
    {
        if (recipe.Raft.Layers > 0) return recipe.Raft.Margin;
        return recipe.Brim.Place is BrimPlace.None or BrimPlace.Inner ? 0 : recipe.Brim.Gap + recipe.Brim.Width;
    }

    /// <summary>The verdict on every part.</summary>
    /// <param name="parts">All that lie on the bed.</param>
    /// <param name="mode">The mode of two carriages; null on a machine with one.</param>
    /// <param name="cures">Whether curing moves are computed too.</param>
    /// <param name="stop">Ends the computation.</param>
    public IReadOnlyList<PartFit> Of(IReadOnlyList<StandingPart> parts, ModeUse? mode = null, Cures cures = Cures.Sought,
        CancellationToken stop = default)
    {
        var plan = PlanOf(parts, mode, stop);
        var placed = parts.Select(p => new PlacedPart(p, _around, plan, stop)).ToArray();
        return [.. placed.Select(p => Look(p, placed, plan, cures, stop))];
    }

    /// <summary>The plan of a mode for what lies on the bed; null where there is none.</summary>
    /// <param name="parts">All that lie on the bed.</param>
    /// <param name="mode">The mode; null on a machine with one carriage.</param>
    /// <param name="stop">Ends the computation.</param>
    public ModePlan? PlanOf(IReadOnlyList<StandingPart> parts, ModeUse? mode, CancellationToken stop = default)
    {
        if (ModePlan.InUse(_machine, mode) is not { } use || !_machine.HasTwoCarriages) return null;
        var box = new NetTopologySuite.Geometries.Envelope();
        foreach (var part in parts) box.ExpandToInclude(
            part.Footprints.Below(double.PositiveInfinity, part.X, part.Y, part.Turn, _around.Apron, stop).EnvelopeInternal);
        return ModePlan.Of(_machine, use, box.Width);
    }

    /// <summary>Where the middle of a part may be so that it fits, other parts left out.</summary>
    /// <param name="part">The part; its own place plays no role.</param>
    /// <param name="stop">Ends the computation.</param>
    public Shape FreePlaces(StandingPart part, CancellationToken stop = default) => FreePlaces(part, null, stop);

    /// <summary>Where the middle of a part may be so that it and its copy fit, other parts left out.</summary>
    /// <param name="part">The part; its own place plays no role.</param>
    /// <param name="plan">Of a mode of two carriages; null where there is none.</param>
    /// <param name="stop">Ends the computation.</param>
    public Shape FreePlaces(StandingPart part, ModePlan? plan, CancellationToken stop) =>
        part.Footprints.Height > _machine.Height + Plane.Touch ? Plane.Empty
            : _curing.FreeWithCopy(new PlacedPart(part with { X = 0, Y = 0 }, _around, plan, stop), stop);

    /// <summary>The plan of a mode for as much as can lie on the bed; null where there is none.</summary>
    public ModePlan? WidestPlan(ModeUse? mode) => ModePlan.InUse(_machine, mode) is { } use && _machine.HasTwoCarriages
        ? ModePlan.Of(_machine, use, _machine.Usable.EnvelopeInternal.Width / 2) : null;

    private PartFit Look(PlacedPart part, PlacedPart[] all, ModePlan? plan, Cures cures, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        var found = _violations.Of(part, all, plan);
        if (found.Count == 0) return Verdict(part, found);
        if (HasManyCorners(part)) cures = Cures.LeftOut;
        if (_around.Apron.Width > 0) found = new SkirtAlone(this, part.Part, all, plan, cures, stop).Told(found);
        if (found.Any(v => v.Kind is ViolationKind.Height or ViolationKind.Copy or ViolationKind.Size)) return Verdict(part, found);
        if (cures == Cures.LeftOut) return Verdict(part, found) with { Searched = false };
        var move = _curing.Least(part, [.. all.Where(other => !part.Part.IsFellowOf(other.Part) || other == part)], stop);
        return Verdict(part, [.. found.Select(v => v with { Move = move })]);
    }

    private static bool HasManyCorners(PlacedPart part) =>
        part.Forbidden.Select(f => f.Below).Append(double.PositiveInfinity).Distinct()
            .Any(height => part.Part.Footprints.Below(height, stop: part.Stop).NumPoints > MostCorners);

    private static PartFit Verdict(PlacedPart part, IReadOnlyList<Violation> found) =>
        new(part.Part.Name, Fits: found.Count == 0, found, Searched: true) { OutlineBeyond = part.Part.Footprints.Beyond };

    /// <summary>The same without what is grown round parts.</summary>
    internal Fit Bare => _bare ??= new Fit(_machine, _recipe, _around.Apron with { Width = 0 });

    /// <summary>The same with another gap between parts and their skirt, mm.</summary>
    internal Fit WithGap(double gap) => new(_machine, _recipe! with { Skirt = _recipe.Skirt with { Gap = gap } });

    /// <summary>Gap between parts and their skirt, mm.</summary>
    internal double Gap => _recipe!.Skirt.Gap;

    /// <summary>What one of several parts violates.</summary>
    /// <param name="index">Which of them.</param>
    /// <param name="parts">All that lie on the bed.</param>
    /// <param name="plan">The plan of a mode; null where there is none.</param>
    /// <param name="told">What violations are told of.</param>
    /// <param name="stop">Ends the computation.</param>
    internal IReadOnlyList<Violation> ViolationsOf(int index, IEnumerable<StandingPart> parts, ModePlan? plan, FootprintPart told,
        CancellationToken stop)
    {
        PlacedPart[] placed = [.. parts.Select(p => new PlacedPart(p, _around, plan, stop))];
        return _violations.Of(placed[index], placed, plan, told);
    }
}

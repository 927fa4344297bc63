using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Motion;
using MillCard.Core.Slicing.Walls;
using MillCard.Web.Http;

namespace MillCard.Web.Endpoints;

/// <summary>What follows from the drives of a card: steps per mm, the ladder of layer heights, a delta's reach, how fast lines may
/// be.</summary>
internal static class MotionEndpoint
{
    /// <summary>One axis.</summary>
    /// <param name="Axis">Its name.</param>
    /// <param name="WayPerTurn">Way of one turn of the motor, mm; null where a part is not known.</param>
    /// <param name="FullStep">Way of one full step, mm.</param>
    /// <param name="StepsPerMm">What the parts give.</param>
    /// <param name="HeldTorque">Share of the holding torque that holds one microstep.</param>
    /// <param name="Corrected">Steps per mm that the newest measurement asks for.</param>
    /// <param name="Explains">The microsteps that explain it; null where none do.</param>
    /// <param name="StepRate">Steps a second at the highest speed.</param>
    /// <param name="Readings">The two usual readings of a screw whose starts nobody has said; empty otherwise.</param>
    internal sealed record AxisAnswer(string Axis, double? WayPerTurn, double? FullStep, double? StepsPerMm, double? HeldTorque,
        double? Corrected, Candidate? Explains, double? StepRate, IReadOnlyList<ScrewReading> Readings);

    /// <summary>The ladder beside a nozzle.</summary>
    /// <param name="FullStep">mm.</param>
    /// <param name="Rungs">Whole and half steps up to the nozzle's bore.</param>
    /// <param name="Nozzle">Bore of the first nozzle, mm.</param>
    internal sealed record LadderAnswer(double FullStep, IReadOnlyList<Rung> Rungs, double? Nozzle);

    /// <summary>A delta's reach.</summary>
    /// <param name="ReachRadius">mm.</param>
    /// <param name="CarriagesAtCentre">Height of the carriages above the effector in the middle, mm; null where the arms do not
    /// reach.</param>
    /// <param name="CarriagesAtFront">Heights of the three carriages (back, left front, right front) above the effector at the front edge
    /// of the reach, mm.</param>
    /// <param name="CeilingAtCentre">How high the effector goes in the middle, mm; null where the home height is not known.</param>
    /// <param name="CeilingAtEdge">How high at the edge of the reach, at its lowest, mm.</param>
    internal sealed record DeltaAnswer(double ReachRadius, double? CarriagesAtCentre, IReadOnlyList<double> CarriagesAtFront,
        double? CeilingAtCentre, double? CeilingAtEdge);

    /// <summary>What follows from the drives.</summary>
    internal sealed record MotionAnswer(IReadOnlyList<AxisAnswer> Axes, LadderAnswer? Ladder, DeltaAnswer? Delta);

    /// <summary>How fast lines may be.</summary>
    internal sealed record FlowQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The material; null for none in particular.</summary>
        public Filament? Filament { get; init; }
        /// <summary>Widths to look at, mm.</summary>
        [Field("widths", Fewest = 1, Most = 60)] public IReadOnlyList<double> Widths { get; init; } = [];
        /// <summary>Heights to look at, mm.</summary>
        [Field("heights", Fewest = 1, Most = 60)] public IReadOnlyList<double> Heights { get; init; } = [];
    }

    /// <summary>One line.</summary>
    /// <param name="Width">mm.</param>
    /// <param name="Height">mm.</param>
    /// <param name="Area">Cross-section, mm².</param>
    /// <param name="Spacing">Distance of neighbours that just fill, mm.</param>
    /// <param name="Feed">Filament per mm of path, mm; null where its diameter is not known.</param>
    /// <param name="Fastest">mm/s; null where nothing limits it.</param>
    /// <param name="By">What sets it.</param>
    /// <param name="Place">Where its height falls on the ladder of Z; null where the ladder is not known.</param>
    /// <param name="Nearest">The whole-step rung nearest to its height; null where the ladder is not known.</param>
    internal sealed record ExtrudedLineAnswer(double Width, double Height, double Area, double Spacing, double? Feed, double? Fastest,
        CeilingBy By, LadderPlace? Place, Rung? Nearest);

    /// <summary>A recipe on a machine.</summary>
    internal sealed record RecipeHereQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The recipe, complete or not.</summary>
        [Field("recipe", Needed = true)] public Recipe? Recipe { get; init; }
        /// <summary>The material; null for none in particular.</summary>
        public Filament? Filament { get; init; }
    }

    /// <summary>A layer's height as it is printed, and the line that is laid in it.</summary>
    /// <param name="Height">mm.</param>
    /// <param name="From">What decides the height.</param>
    /// <param name="Why">A sentence with the numbers; null where the recipe's mm hold as they are.</param>
    /// <param name="Line">null where the recipe's lines are no wider than that.</param>
    internal sealed record LayerHere(double Height, HeightFrom From, string? Why, ExtrudedLineAnswer? Line);

    /// <summary>Heights and width of a recipe as the slicer takes them on a machine.</summary>
    /// <param name="Width">Width of its lines, mm; null where it is not said.</param>
    /// <param name="Others">Every layer after the first; null where nothing says its height.</param>
    /// <param name="First">The first layer; null where it is as the others.</param>
    /// <param name="Walls">How thick all walls together are, mm; null where width or height is not said.</param>
    internal sealed record RecipeHere(double? Width, LayerHere? Others, LayerHere? First, double? Walls);

    public static void MapMotion(this IEndpointRouteBuilder api)
    {
        api.MapPost("/motion", async Task<Results<Ok<MotionAnswer>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { } card) return Refusal.Fields(reading.Errors);
            var axes = card.Motion.Axes;
            return TypedResults.Ok(new MotionAnswer([Of("x", axes.X), Of("y", axes.Y), Of("z", axes.Z), Of("e", axes.E)], LadderOf(card),
                DeltaOf(card)));
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("What follows from the drives of a card: steps per mm, the ladder of layer heights, a delta's reach")
                .WithTags("Computation");

        api.MapPost("/flow", async Task<Results<Ok<ExtrudedLineAnswer[]>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<FlowQuestion>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { Card: { } card } question)
                return Refusal.Fields(reading.Errors is [] ? [FieldError.Missing("/card", "Card is missing.")] : reading.Errors);
            if (card.Head.Nozzles is not [{ } nozzle, ..])
                return Refusal.Fields([new FieldError("/card/head/nozzles", FieldProblem.TooFew, "The card has no nozzle.", "at least 1")]);
            var lines = from height in question.Heights
                        from width in question.Widths
                        where width > 0 && height > 0 && height <= width
                        select Line(card, nozzle, question.Filament, width, height);
            return TypedResults.Ok(lines.ToArray());
        })
            .Accepts<FlowQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("How fast lines of some widths and heights may be, and what sets it; heights above the width are left out")
                .WithTags("Computation");

        api.MapPost("/recipe-here", async Task<Results<Ok<RecipeHere>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<RecipeHereQuestion>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { Card: { } card, Recipe: { } recipe } question)
                return Refusal.Fields(reading.Errors is [] ? [FieldError.Missing("/recipe", "Card or recipe is missing.")]
                    : reading.Errors);
            var resolved = Ladder.Resolved(recipe, card);
            var width = resolved.LineWidth;
            var (others, first) = Ladder.Heights(recipe.Layers, card);
            LayerHere? Here(SettledHeight settled) => settled.Height is not { } height ? null
                : new(height, settled.From, settled.Why?.Text, width >= height && card.Head.Nozzles is [{ } nozzle, ..]
                    ? Line(card, nozzle, question.Filament, width.Value, height) : null);
            return TypedResults.Ok(new RecipeHere(width, Here(others), Here(first),
                width >= others.Height ? WallThickness.Of(resolved, others.Height.Value) : null));
        })
            .Accepts<RecipeHereQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Heights and width of a recipe as the slicer takes them on a machine").WithTags("Computation");
    }

    private static AxisAnswer Of(string name, Axis? axis)
    {
        var newest = axis?.Measurements is [.., { } last] ? last : null;
        var corrected = newest is not null && (newest.StepsPerMm ?? axis!.StepsPerMm) is { } old
            ? Drives.Corrected(old, newest.Commanded, newest.Measured) : (double?)null;
        return new AxisAnswer(name, Drives.WayPerTurn(axis?.Drive), Drives.FullStep(axis?.Drive), Drives.StepsPerMm(axis?.Drive),
            axis?.Drive?.Microsteps is { } m ? Drives.HeldTorque(m) : null,
            corrected, corrected is { } c ? Candidate.That(axis!.Drive, c) : null, axis?.MaxSpeed * axis?.StepsPerMm,
            axis?.Drive is ScrewDrive { Starts: null } screw ? ScrewStarts.Usual(screw) : []);
    }

    private static LadderAnswer? LadderOf(Card card)
    {
        if (Ladder.Of(card) is not { } ladder) return null;
        var nozzle = card.Head.Nozzles is [{ Diameter: { } d }, ..] ? d : (double?)null;
        return new LadderAnswer(ladder.FullStep, ladder.Between(ladder.FullStep / 2, nozzle ?? 0.4, halves: true, most: 120), nozzle);
    }

    private static DeltaAnswer? DeltaOf(Card card)
    {
        if (DeltaGeometry.Of(card) is not { } delta) return null;
        double? At(double r) => card.Motion.Delta!.HomeHeight is { } home && delta.Ceiling(0, -r, home) is var height
            && !double.IsNaN(height) ? height : null;
        double? Edge() => card.Motion.Delta!.HomeHeight is { } home && Enumerable.Range(0, 72)
            .Min(i => delta.Ceiling(delta.ReachRadius * Math.Cos(i * Math.PI / 36), delta.ReachRadius * Math.Sin(i * Math.PI / 36),
            home)) is var height && !double.IsNaN(height) ? height : null;
        var (centre, _, _) = delta.Carriages(0, 0, 0);
        var (back, left, right) = delta.Carriages(0, -delta.ReachRadius, 0);
        return new DeltaAnswer(delta.ReachRadius, double.IsNaN(centre) ? null : centre, double.IsNaN(back + left + right) ? []
            : [back, left, right], At(0), Edge());
    }

    private static ExtrudedLineAnswer Line(Card card, Nozzle nozzle, Filament? filament, double width, double height)
    {
        var ceiling = SpeedCeiling.Of(card, nozzle, filament, width, height);
        var diameter = filament?.Diameter ?? nozzle.FilamentDiameter;
        return new ExtrudedLineAnswer(width, height, ExtrudedLine.Area(width, height), ExtrudedLine.Spacing(width, height),
            diameter is { } d ? ExtrudedLine.FeedPerMm(width, height, d, filament?.Flow ?? 1) : null,
            double.IsFinite(ceiling.Speed) ? ceiling.Speed
                : null, ceiling.By, Ladder.Of(card)?.PlaceOf(height), Ladder.Of(card)?.Nearest(height));
    }
}

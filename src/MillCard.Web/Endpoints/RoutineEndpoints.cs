using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Flavours;
using MillCard.Core.Machines;
using MillCard.Core.Macros;
using MillCard.Core.Routines;
using MillCard.Core.Routines.Carrying;
using MillCard.Core.Routines.Learning;
using MillCard.Core.Routines.Previews;
using MillCard.Web.Http;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Routines: what they do, what can be inserted, how they read in another dialect, what a program tells.</summary>
internal static class RoutineEndpoints
{
    internal sealed record PreviewQuestion : OpenRecord
    {
        /// <summary>The machine.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The filament; a moderate one where none is given.</summary>
        public Filament? Filament { get; init; }
        /// <summary>The recipe; a moderate one where none is given.</summary>
        public Recipe? Recipe { get; init; }
        /// <summary>The mode of two carriages.</summary>
        public ModeKind? Mode { get; init; }
        /// <summary>The layer for which those of layers are shown, counted from 1.</summary>
        [Field("layer", AtLeast = 1, AtMost = 100000)] public int? Layer { get; init; }
    }

    internal sealed record CarryQuestion : OpenRecord
    {
        /// <summary>The machine with the routines.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The dialect they are to be in.</summary>
        [Field("flavour", Needed = true)] public FlavourId? To { get; init; }
    }

    /// <summary>A routine carried to another dialect.</summary>
    /// <param name="Pointer">Where it stands in the card.</param>
    /// <param name="Title">Its name.</param>
    /// <param name="Lines">Line by line.</param>
    internal sealed record CarriedRoutine(string Pointer, string Title, IReadOnlyList<CarriedLine> Lines);

    internal sealed record LearnQuestion : OpenRecord
    {
        /// <summary>The machine that printed it.</summary>
        [Field("card", Needed = true)] public Card? Card { get; init; }
        /// <summary>The program.</summary>
        [Field("gcode", Needed = true)] public string? Gcode { get; init; }
    }

    /// <summary>A dialect in short: its commands with what they do.</summary>
    /// <param name="Id">Which.</param>
    /// <param name="Name">As the trade writes it.</param>
    /// <param name="Source">Where the facts come from.</param>
    /// <param name="Extended">Whether its owner writes macros.</param>
    /// <param name="Files">Whether the machine runs files of commands that a card can hold.</param>
    /// <param name="Commands">Its commands.</param>
    internal sealed record FlavourAnswer(FlavourId Id, string Name, string Source, bool Extended, bool Files,
        IReadOnlyList<Command> Commands);

    /// <summary>A macro in short.</summary>
    internal sealed record MacroAnswer(string Name, string? About, IReadOnlyList<string> Parameters, string Text);

    private static List<FieldError> Missing(CarryQuestion question)
    {
        var missing = new List<FieldError>();
        if (question.Card is null) missing.Add(FieldError.Missing("/card", "Card is missing."));
        if (question.To is null) missing.Add(FieldError.Missing("/to", "The flavour to carry to is missing."));
        return missing;
    }

    public static void MapRoutines(this IEndpointRouteBuilder api)
    {
        var routines = api.MapGroup("/routines").WithTags("Routines");

        routines.MapPost("/preview", async Task<Results<Ok<RoutinePreview>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<PreviewQuestion>(Bounds.Document, draft: false, stop);
            return reading.Document is { } q
                ? TypedResults.Ok(RoutinePreview.Of(Machine.Of(q.Card!), q.Filament, q.Recipe, q.Mode, q.Layer ?? 1, stop))
                : Refusal.Fields(reading.Errors);
        })
            .Accepts<PreviewQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Runs a card's routines with an imagined part: what every line writes, does, and how long it takes");

        routines.MapPost("/passages", async Task<Results<Ok<IReadOnlyList<Passage>>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<Card>(Bounds.Document, draft: false, stop);
            return reading.Document is { } card ? TypedResults.Ok(Passages.For(Machine.Of(card))) : Refusal.Fields(reading.Errors);
        })
            .Accepts<Card>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Ready-made lines for a machine's routines, made from its facts");

        routines.MapPost("/carry", async Task<Results<Ok<IReadOnlyList<CarriedRoutine>>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<CarryQuestion>(Bounds.Document, draft: true, stop);
            if (reading.Document is not { } q) return Refusal.Fields(reading.Errors);
            if (Missing(q) is { Count: > 0 } missing) return Refusal.Fields(missing);
            var (card, to) = (q.Card!, q.To!.Value);
            if (card.Firmware.Flavour is null) return Refusal.Fields(
                [FieldError.Missing("/card/firmware/flavour", "The card does not say which flavour its routines are written in.")]);
            return TypedResults.Ok<IReadOnlyList<CarriedRoutine>>(
                [.. OwnRoutine.Of(card).Select(r => new CarriedRoutine(r.Pointer, r.Title, Carry.Of(r.Text, card.Firmware, to)))]);
        })
            .Accepts<CarryQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("A card's routines in another dialect, line by line");

        routines.MapPost("/learn", async Task<Results<Ok<Learned>,
            JsonHttpResult<Refusal>>> (HttpRequest request, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<LearnQuestion>(Bounds.Gcode + Bounds.Gcode / 4 + Bounds.Document, draft: false,
                stop);
            return reading.Document is { } q
                ? TypedResults.Ok(await queue.BySizeAsync(q.Gcode!.Length,
                    left => Learned.Of(Machine.Of(q.Card!), System.Text.Encoding.UTF8.GetBytes(q.Gcode!), left), stop))
                : Refusal.Fields(reading.Errors);
        })
            .Accepts<LearnQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType).Produces<Refusal>(413, Refusal.MediaType)
            .WithSummary("What a program that prints well tells: routines, temperatures, heights, speeds, fan, retraction");

        routines.MapPost("/macros", async Task<Results<Ok<MacroAnswer[]>,
            JsonHttpResult<Refusal>>> (HttpRequest request, CancellationToken stop, bool files = false) =>
        {
            var bytes = await request.ReadAsync(2 * MacroFile.Longest, stop);
            var text = System.Text.Encoding.UTF8.GetString(bytes);
            if (files)
            {
                var held = CommandFiles.Of(text);
                return TypedResults.Ok(held.Names.Order(StringComparer.Ordinal)
                    .Select(n => new MacroAnswer(n, null, [], string.Join('\n', held.Find(n)!))).ToArray());
            }
            return TypedResults.Ok(MacroFile.Of(text).Macros.OrderBy(m => m.Name, StringComparer.Ordinal)
                .Select(m => new MacroAnswer(m.Name, m.About, m.Parameters, m.Text)).ToArray());
        })
            .Accepts<string>("text/plain").Produces<Refusal>(413, Refusal.MediaType)
            .WithSummary("The macros of a macro file, or the files that a text of command files holds; the body is the text");

        api.MapGet("/flavours", () => Enum.GetValues<FlavourId>()
            .Select(id => Flavour.Of(id) is var f ? new FlavourAnswer(id, f.Name, f.Source, f.Extended, f.Conditions, f.Commands) : null!)
            .ToArray())
            .WithSummary("The dialects with their commands").WithTags("Routines");
    }
}

using System.Text.Json;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Geometry;
using MillCard.Core.Machines;
using MillCard.Core.Rules.CardRules;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Writing;
using MillCard.Core.Starting;

namespace MillCard.Core.Routines.Previews;

/// <summary>The imagined part's program with every routine that can be written out, and why the others cannot.</summary>
/// <param name="Job">What is printed, its card without the routines that failed.</param>
/// <param name="Imagined">The part.</param>
/// <param name="Writer">Knows which lines a routine wrote.</param>
/// <param name="Layers">Number of layers.</param>
/// <param name="Program">The program.</param>
/// <param name="Failed">A stop for each routine that failed, at its line.</param>
internal sealed record WrittenOut(
    SliceJob Job, ImaginedPart Imagined, ProgramWriter Writer, int Layers, ReadOnlyMemory<byte> Program, IReadOnlyList<Finding> Failed)
{
    private static readonly RoutineMoment[] FromOutside = [RoutineMoment.Pause, RoutineMoment.Resume, RoutineMoment.Cancel];

    /// <summary>Writes it. A routine that fails is left out and the rest is written without it.</summary>
    public static WrittenOut Of(Machine machine, Filament filament, Recipe recipe, ModeUse? mode, CancellationToken stop)
    {
        var failed = new List<Finding>();
        while (true)
        {
            var imagined = ImaginedPart.Moderate(machine);
            var (job, layers) = imagined.Planned(machine, filament, recipe, mode);
            var writer = new ProgramWriter(job, layers) { KeepsSpans = true };
            try
            {
                var program = writer.Write(stop);
                Call(job, writer.Spans.Count > 0 ? writer.Spans[^1].Values : ProgramValues.Of(job, layers));
                return new WrittenOut(job, imagined, writer, layers.Count, program, failed);
            }
            catch (RoutineException broken) when (broken.Pointer is not null)
            {
                failed.Add(BrokenRoutine.Of(broken));
                (machine, filament) = (Machine.Of(Without(machine.Card, broken.Pointer)), Without(filament, broken.Pointer));
            }
        }
    }

    /// <summary>Every routine of a card that fails while it is written out, in any of its modes; none where the card is not
    /// complete.</summary>
    public static IReadOnlyList<Finding> FailuresOf(Card card, CancellationToken stop)
    {
        if (!HasTemplates(card) || SchemaCheck.Of(DocumentSchema.Of(typeof(Card)),
            JsonSerializer.SerializeToElement(card, DocumentJson.Options)).Count > 0) return [];
        var whole = WithoutBroken(card);
        var (filament, recipe) = (Proposal.Filament(whole), Proposal.Recipe(whole));
        var modes = whole.Modes.Select(m => (ModeUse?)new ModeUse { Kind = m.Kind }).DefaultIfEmpty();
        try
        {
            return [.. modes.SelectMany(mode => Of(Machine.Of(whole), filament, recipe, mode, stop).Failed)
            .DistinctBy(f => (f.Pointer, f.Line))];
        }
        // a rule of its own says which outline it is; there is no machine to write for
        catch (OutlineException) { return []; }
    }

    /// <summary>A card without the routines that cannot even be read: a rule of its own says why, the others run.</summary>
    public static Card WithoutBroken(Card card) =>
        OwnRoutine.Of(card).Where(r => RoutineTemplate.Problems(r.Text).Count > 0).Aggregate(card, (left, r) => Without(left, r.Pointer));

    /// <summary>Writes out what only a call from outside runs.</summary>
    private static void Call(SliceJob job, IReadOnlyDictionary<string, object> values)
    {
        foreach (var moment in FromOutside.Append(RoutineMoment.ToolChange))
        {
            var (pointer, text) = job.TextOf(moment);
            if (string.IsNullOrWhiteSpace(text)) continue;
            try { RoutineTemplate.Render(moment, text, values); }
            catch (RoutineException broken) { throw broken.In(pointer); }
        }
    }

    private static bool HasTemplates(Card card) => OwnRoutine.Of(card).Any(r => r.Text.Contains('{', StringComparison.Ordinal));

    private static Card Without(Card card, string pointer) => pointer.StartsWith("/modes/", StringComparison.Ordinal)
        ? card with { Modes = [.. card.Modes.Select((m, i) => pointer == JsonPointer.Mode(i) / "start" ? m with { Start = "" } : m)] }
        : card with { Routines = Without(card.Routines, pointer) };

    private static Documents.Routines Without(Documents.Routines routines, string pointer)
    {
        var json = JsonSerializer.SerializeToNode(routines, DocumentJson.Options)!.AsObject();
        json.Remove(JsonPointer.Parse(pointer).Last);
        return json.Deserialize<Documents.Routines>(DocumentJson.Options)!;
    }

    private static Filament Without(Filament filament, string pointer) => pointer switch
    {
        "/filament/start" => filament with { Start = null },
        "/filament/end" => filament with { End = null },
        _ => filament,
    };
}

using System.Runtime.CompilerServices;
using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Meshes;
using MillCard.Core.Settings;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.WhatIf;
using MillCard.Web.Http;
using MillCard.Web.Trials;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>What a trial's settings are and where they come from, what they tend to move, and what a change really does.</summary>
internal static class WhatIfEndpoints
{
    /// <summary>One variant with what it comes to.</summary>
    /// <param name="Label">What is changed to what.</param>
    /// <param name="Pointer">The recipe's setting; null where it is none.</param>
    /// <param name="Value">Its value.</param>
    /// <param name="Figures">What it comes to; null where it cannot be sliced.</param>
    /// <param name="Refusal">Why it cannot be sliced.</param>
    /// <param name="Overhang">Area that hangs over, mm²; null where it is the same for all.</param>
    /// <param name="Tilt">The part's tilt in this variant.</param>
    internal sealed record WhatIfVariant(string Label, string? Pointer, JsonElement? Value, Figures? Figures, string? Refusal,
        double? Overhang, Tilt? Tilt);

    /// <summary>One message of a comparison in progress: first the trial as it is, then a variant each.</summary>
    /// <param name="Of">How many variants there are; known from the first message on.</param>
    /// <param name="Now">The trial as it is.</param>
    /// <param name="Variant">A variant.</param>
    /// <param name="Problem">Why nothing can be compared.</param>
    internal sealed record WhatIfMessage(int Of, Figures? Now = null, WhatIfVariant? Variant = null, Refusal? Problem = null);

    /// <summary>What is to be compared: one of the three.</summary>
    private sealed record Wish(string? Setting, string? Outcome, int? Part)
    {
        public IEnumerable<Variant> Of(SliceJob job) => this switch
        {
            { Setting: { } setting } => Variants.Of(job, setting),
            _ when Enum.TryParse<Outcome>(Outcome, ignoreCase: true, out var wanted) => Variants.Better(job, wanted),
            { Part: { } part } when part >= 0 && part < job.Parts.Count => Variants.Orientations(job, part),
            _ => [],
        };
    }

    private static async IAsyncEnumerable<WhatIfMessage> MessagesAsync(Guid id, Wish wish, TrialDesk desk, FiguresShelf shelf,
        [EnumeratorCancellation] CancellationToken stop)
    {
        var (laidOut, refusal) = await desk.LayOutAsync(id, toSlice: true, stop);
        if (laidOut is null)
        {
            yield return new WhatIfMessage(0, Problem: refusal);
            yield break;
        }
        var job = await desk.JobAsync(laidOut, stop);
        Variant[] variants = [.. wish.Of(job)];
        if (wish.Part is null)
        {
            var (now, why) = await shelf.TakeAsync(job, stop);
            yield return new WhatIfMessage(variants.Length, now, Problem: why is null ? null
                : Refusal.Sentence(422, "It cannot be sliced.", why).Value);
            if (now is null) yield break;
        }
        foreach (var variant in variants)
        {
            var (figures, why) = await shelf.TakeAsync(variant.Job, stop);
            yield return new WhatIfMessage(variants.Length,
                Variant: new WhatIfVariant(variant.Label, variant.Pointer, variant.Value, figures, why, variant.Overhang, variant.Tilt));
        }
    }

    public static void MapWhatIf(this IEndpointRouteBuilder api)
    {
        api.MapGet("/effects", () => Effects.All).WithSummary("What each setting of a recipe tends to move; common practice")
            .WithTags("Recipes");

        var trial = api.MapGroup("/trials/{id:guid}").WithTags("Trials");

        trial.MapGet("/settings", async Task<Results<Ok<IReadOnlyList<ResolvedSetting>>,
            JsonHttpResult<Refusal>>> (Guid id, TrialDesk desk, CancellationToken stop) =>
        {
            var (laidOut, refusal) = await desk.LayOutAsync(id, toSlice: true, stop);
            return laidOut is null ? Refusal.Answer(refusal!) : TypedResults.Ok(ResolvedSettings.Of(await desk.JobAsync(laidOut, stop)));
        })
            .Produces<Refusal>(422, Refusal.MediaType).WithSummary("Every setting of a trial, its value and where it comes from");

        trial.MapGet("/what-if", (Guid id, TrialDesk desk, FiguresShelf shelf, WorkQueue queue, HttpResponse response,
            CancellationToken stop, string? setting = null, string? outcome = null, int? part = null) =>
        {
            queue.EnsureRoom();
            return MessageStream.WriteAllAsync(response, MessagesAsync(id, new Wish(setting, outcome, part), desk, shelf, stop),
                refusal => new WhatIfMessage(0, Problem: refusal), stop);
        })
            .Produces<WhatIfMessage>(200, MessageStream.MediaType)
            .WithSummary(
                "Slices a trial with one thing changed: a setting's steps or choices, what makes an outcome better, "
                + "or a part's flat sides; one JSON message a line");

        trial.MapGet("/bed", async Task<Results<FileContentHttpResult,
            JsonHttpResult<Refusal>>> (Guid id, TrialDesk desk, CancellationToken stop, string format = "3mf") =>
        {
            var (laidOut, refusal) = await desk.LayOutAsync(id, toSlice: false, stop);
            if (laidOut is null) return Refusal.Answer(refusal!);
            var job = await desk.JobAsync(laidOut, stop);
            if (job.Parts.Count == 0) return Refusal.Sentence(422, "There is nothing to save.", "No part lies on the bed.");
            FilePart[] parts = [.. job.Parts.Select(p => new FilePart(p.Part.Name, Placement.Place(p.Mesh, p.Part)))];
            return format == "stl"
                ? TypedResults.Bytes(Stl.Write(MeshFile.Joined([.. parts.Select(p => p.Mesh)])), "model/stl", $"{job.Name}.stl")
                : TypedResults.Bytes(ThreeMf.Write(job.Name, parts), "model/3mf", $"{job.Name}.3mf");
        })
            .Produces<Refusal>(422, Refusal.MediaType).WithSummary("The arranged bed as 3MF, or with format=stl as STL");
    }
}

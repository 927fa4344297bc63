using Microsoft.AspNetCore.Http.Features;
using MillCard.Core.Documents;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Core.Slicing;
using MillCard.Web.Hosting;

namespace MillCard.Web.Endpoints;

/// <summary>A multipart job: the field <c>job</c> and the files that its parts name.</summary>
internal sealed class JobForm
{
    /// <summary>The job, JSON.</summary>
    public required string Job { get; init; }
    /// <summary>The files.</summary>
    public required IFormFileCollection Files { get; init; }
}

/// <summary>A job with its meshes read.</summary>
internal sealed record ReadJob(Job Job, Machine Machine, IReadOnlyList<PartToSlice> Parts, IReadOnlyList<ZoneToSlice> Zones)
{
    /// <summary>The parts as they stand.</summary>
    public IReadOnlyList<StandingPart> Standing => [.. Parts.Select(p => StandingPart.Of(p.Part, p.Footprints))];

    /// <summary>Reads a job from a form.</summary>
    /// <param name="request">The request.</param>
    /// <param name="toSlice">Whether filament and recipe are needed.</param>
    /// <param name="stop">Ends the wait.</param>
    /// <exception cref="MeshRefusedException">A file is refused; the message names it.</exception>
    public static async Task<Reading<ReadJob>> OfAsync(HttpRequest request, bool toSlice, CancellationToken stop)
    {
        if (!request.HasFormContentType) return Refused("", "The body must be multipart/form-data with a field job and the files.");
        if (request.HttpContext.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit) limit.MaxRequestBodySize = Bounds.Job;
        request.HttpContext.Features.Set<IFormFeature>(new FormFeature(request, new FormOptions
        {
            MultipartBodyLengthLimit = Bounds.Mesh,
            ValueLengthLimit = (int)Bounds.Document,
            ValueCountLimit = Bounds.JobFiles,
            KeyLengthLimit = 200,
        }));
        var form = await request.ReadFormAsync(stop);
        if (form.Files.Count > Bounds.JobFiles) return Refused("", $"A job takes {Bounds.JobFiles} files; this one has {form.Files.Count}.");
        if (form["job"] is not [{ } json]) return Refused("/job", "The field job is missing.");
        var reading = DocumentReader.Read<Job>(System.Text.Encoding.UTF8.GetBytes(json));
        if (reading.Document is not { } job) return new Reading<ReadJob>(null, reading.Errors);
        if (toSlice && job.Filament is null) return Refused("/filament", "Filament is missing.");
        if (toSlice && job.Recipe is null) return Refused("/recipe", "Recipe is missing.");
        var meshes = new Dictionary<string, Mesh>();
        var projected = new Dictionary<(string, PartScale?, Tilt?), Footprints>();
        var parts = new List<PartToSlice>();
        for (var i = 0; i < job.Parts.Count; i++)
        {
            var part = job.Parts[i];
            if (!meshes.TryGetValue(part.File, out var mesh))
            {
                if (form.Files.FirstOrDefault(f => f.FileName == part.File) is not { } file)
                    return Refused($"/parts/{i}/file", $"{part.Name} names the file {part.File}, which was not sent along.");
                meshes[part.File] = mesh = await MeshOfAsync(file, stop);
            }
            if (!projected.TryGetValue((part.File, part.Scale, part.Tilt), out var footprints))
                projected[(part.File, part.Scale, part.Tilt)] = footprints = new Footprints(Placement.Oriented(mesh, part.Scale, part.Tilt));
            parts.Add(new PartToSlice(part, mesh, footprints));
        }
        var zones = new List<ZoneToSlice>();
        for (var i = 0; i < job.Zones.Count; i++)
        {
            var zone = job.Zones[i];
            if (zone is MeshZone { File: var named } && form.Files.FirstOrDefault(f => f.FileName == named) is null) return Refused($"/zones/{i}/file", $"{zone.Name} names the file {named}, which was not sent along.");
            zones.Add(new ZoneToSlice(zone, zone is MeshZone { File: var sent } ? await MeshOfAsync(form.Files.First(f => f.FileName == sent), stop) : null));
        }
        return new Reading<ReadJob>(new ReadJob(job, Machine.Of(job.Card!), parts, zones), []);
    }

    private static async Task<Mesh> MeshOfAsync(IFormFile file, CancellationToken stop)
    {
        var bytes = new byte[file.Length];
        await using var content = file.OpenReadStream();
        await content.ReadExactlyAsync(bytes, stop);
        try
        {
            return MeshFile.ReadOne(bytes);
        }
        catch (MeshRefusedException refused)
        {
            throw new MeshRefusedException($"{file.FileName}: {refused.Message}", refused);
        }
    }

    private static Reading<ReadJob> Refused(string pointer, string message) => new(null, [new FieldError(pointer, message, "required")]);
}

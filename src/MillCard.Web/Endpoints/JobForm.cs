using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Machines;
using MillCard.Core.Meshes;
using MillCard.Core.Reach;
using MillCard.Core.Slicing.Jobs;
using MillCard.Core.Slicing.Sections;
using MillCard.Web.Http;

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
}

/// <summary>A job as it was sent: its documents read, its files not yet.</summary>
internal sealed record SentJob(Job Job, IReadOnlyDictionary<string, byte[]> Files)
{
    /// <summary>Bytes of all files.</summary>
    public long Bytes => Files.Values.Sum(f => (long)f.Length);

    /// <summary>Takes a job from a form.</summary>
    /// <param name="request">The request.</param>
    /// <param name="toSlice">Whether filament and recipe are needed.</param>
    /// <param name="stop">Ends the wait.</param>
    public static async Task<Reading<SentJob>> OfAsync(HttpRequest request, bool toSlice, CancellationToken stop)
    {
        if (!request.HasFormContentType) return Refused("", "The body must be multipart/form-data with a field job and the files.");
        var form = await request.ReadBoundedFormAsync(Bounds.Job, Bounds.Mesh, Bounds.JobFiles, stop);
        if (form.Files.Count > Bounds.JobFiles)
            return new(null,
                [new FieldError("", FieldProblem.TooMany, $"A job takes {Bounds.JobFiles} files; this one has {form.Files.Count}.")]);
        if (await JsonOfAsync(form, stop) is not { } json) return Refused("/job", "The field job is missing.");
        var reading = DocumentReader.Read<Job>(json);
        if (reading.Document is not { } job) return new Reading<SentJob>(null, reading.Errors);
        if (toSlice && job.Filament is null) return Refused("/filament", "Filament is missing.");
        if (toSlice && job.Recipe is null) return Refused("/recipe", "Recipe is missing.");
        var named = job.Parts.Select((p, i) => (Pointer: JsonPointer.Root / "parts" / i / "file", p.Name, p.File))
            .Concat(job.Zones.Select((z, i) => (Pointer: JsonPointer.Root / "zones" / i / "file", z.Name, File: (z as MeshZone)?.File!))
                .Where(z => z.File is not null)).ToArray();
        var files = new Dictionary<string, byte[]>();
        foreach (var (pointer, name, wanted) in named)
        {
            if (files.ContainsKey(wanted)) continue;
            if (form.Files.FirstOrDefault(f => f.FileName == wanted) is not { } file)
                return Refused(pointer, $"{name} names the file {wanted}, which was not sent along.");
            files[wanted] = await file.BytesAsync(stop);
        }
        return new Reading<SentJob>(new SentJob(job, files), []);
    }

    /// <summary>Reads the files. Long work: it belongs in the queue.</summary>
    /// <exception cref="MeshRefusedException">A file is refused; the message names it.</exception>
    public ReadJob Read(CancellationToken stop)
    {
        var meshes = Files.ToDictionary(f => f.Key, f => MeshOf(f.Key, f.Value, stop));
        var projected = new Dictionary<(string, Stance), Footprints>();
        var parts = new List<PartToSlice>();
        foreach (var part in Job.Parts)
        {
            stop.ThrowIfCancellationRequested();
            var mesh = meshes[part.File];
            var stance = Stance.Of(part);
            if (!projected.TryGetValue((part.File, stance), out var footprints))
                projected[(part.File, stance)] = footprints = stance.Stood(mesh, stop);
            parts.Add(new PartToSlice(part, mesh, footprints));
        }
        return new ReadJob(Job, Machine.Of(Job.Card!), parts,
            [.. Job.Zones.Select(z => new ZoneToSlice(z, z is MeshZone { File: var file } ? meshes[file] : null))]);
    }

    /// <summary>The job's JSON, whether it was sent as a field or as a file part; null where there is none.</summary>
    private static async Task<byte[]?> JsonOfAsync(IFormCollection form, CancellationToken stop)
    {
        if (form["job"] is [{ } field]) return System.Text.Encoding.UTF8.GetBytes(field);
        if (form.Files.GetFile("job") is not { } file) return null;
        if (file.Length > Bounds.Document) throw new BadHttpRequestException("too large", StatusCodes.Status413PayloadTooLarge);
        return await file.BytesAsync(stop);
    }

    private static Mesh MeshOf(string name, byte[] bytes, CancellationToken stop)
    {
        try
        {
            return MeshFile.ReadOne(bytes, stop);
        }
        catch (MeshRefusedException refused)
        {
            throw new MeshRefusedException($"{name}: {refused.Message}", refused);
        }
    }

    private static Reading<SentJob> Refused(string pointer, string message) => new(null, [FieldError.Missing(pointer, message)]);
}

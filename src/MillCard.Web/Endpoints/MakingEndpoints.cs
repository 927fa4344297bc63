using Microsoft.AspNetCore.Http.HttpResults;
using MillCard.Core.Documents;
using MillCard.Core.Files;
using MillCard.Core.Making;
using MillCard.Core.Meshes;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Trials;
using MillCard.Web.Work;

namespace MillCard.Web.Endpoints;

/// <summary>Parts of a trial made from others: cut, taken apart into bodies, joined; and how they meet.</summary>
internal static class MakingEndpoints
{
    private const int MostParts = 100;

    /// <summary>A part and where it is to be cut.</summary>
    internal sealed record CutQuestion : OpenRecord
    {
        /// <summary>The part as it stands; file is a hash.</summary>
        [Field("part", Needed = true)] public TrialPart? Part { get; init; }
        /// <summary>The axis across which the plane stands.</summary>
        public CutAlong Along { get; init; } = CutAlong.Z;
        /// <summary>From the part's lowest place along it, mm.</summary>
        [Field("cut", "mm", Needed = true, Above = 0, AtMost = 4000)] public double? At { get; init; }
        /// <summary>Whether both sides are laid on their cut faces.</summary>
        public bool OnCutFaces { get; init; }
        /// <summary>What joins them; null for nothing.</summary>
        public PegSizes? Pegs { get; init; }
    }

    /// <summary>Parts that stand as they do.</summary>
    internal sealed record PartsQuestion : OpenRecord
    {
        /// <summary>The parts; file is a hash.</summary>
        [Field("parts", Needed = true, Fewest = 1, Most = MostParts)] public IReadOnlyList<TrialPart> Parts { get; init; } = [];
    }

    /// <summary>An assembly and how one of its parts is to stand.</summary>
    internal sealed record TiltQuestion : OpenRecord
    {
        /// <summary>Parts that belong together; file is a hash.</summary>
        [Field("parts", Needed = true, Fewest = 1, Most = MostParts)] public IReadOnlyList<TrialPart> Parts { get; init; } = [];
        /// <summary>The part whose tilt is asked for, by its place in the list.</summary>
        [Field("the part that leads", AtLeast = 0, AtMost = MostParts - 1)] public int Leads { get; init; }
        /// <summary>Its tilt.</summary>
        public Tilt Tilt { get; init; } = new();
        /// <summary>Whether the lowest point comes to lie on the bed.</summary>
        public bool OnBed { get; init; }
    }

    /// <summary>Parts that were made; their files are kept.</summary>
    internal sealed record MadeParts(IReadOnlyList<TrialPart> Parts);

    /// <summary>How parts meet.</summary>
    /// <param name="BelongTogether">Whether all of them hang together by bodies that touch, or that lie in others.</param>
    /// <param name="Meetings">Pairs that meet.</param>
    internal sealed record MeetingAnswer(bool BelongTogether, IReadOnlyList<MeetingOf> Meetings);

    /// <summary>Two parts that meet, by their places in the list.</summary>
    internal sealed record MeetingOf(int First, int Second, Meeting How);

    public static void MapMaking(this IEndpointRouteBuilder api)
    {
        var parts = api.MapGroup("/parts").WithTags("Parts");

        parts.MapPost("/cut", async Task<Results<Ok<MadeParts>, JsonHttpResult<Refusal>>> (
            HttpRequest request, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<CutQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { Part: { } part } question) return Refusal.Fields(reading.Errors);
            var mesh = await shelf.AsReadAsync(part.File, blobs, stop);
            var cut = await queue.BySizeAsync(MeshShelf.SizeOf(mesh), left => PartCut.Of(Placement.Oriented(mesh, part.Scale, part.Tilt),
                question.Along, question.At!.Value, question.OnCutFaces, question.Pegs, left), stop);
            var made = new List<TrialPart>
            {
                await KeptAsync(part, $"{part.Name}, lower", cut.Lower, question.OnCutFaces ? 0 : part.Lift),
                await KeptAsync(part, $"{part.Name}, upper", cut.Upper, 0),
            };
            if (cut.Peg is { } peg)
                for (var i = 1; i <= cut.Pegs; i++)
                    made.Add(await KeptAsync(part with { Turn = 0 }, $"{part.Name}, peg {i}", peg, 0));
            return TypedResults.Ok(new MadeParts(made));

            async Task<TrialPart> KeptAsync(TrialPart from, string name, Mesh half, double lift) => Bare(from) with
            {
                Name = name,
                File = await KeepAsync(half, shelf, blobs, stop),
                Lift = lift,
                Assembly = null,
            };
        })
            .Accepts<CutQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("A part cut by a plane, both sides closed, with pegs and holes where they are asked for");

        parts.MapPost("/split", async Task<Results<Ok<MadeParts>, JsonHttpResult<Refusal>>> (
            HttpRequest request, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<PartsQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { Parts: [var part, ..] }) return Refusal.Fields(reading.Errors);
            var mesh = await shelf.AsReadAsync(part.File, blobs, stop);
            var bodies = await queue.BySizeAsync(MeshShelf.SizeOf(mesh), left => MeshBodies.Of(Placement.Place(mesh, part), left), stop);
            if (bodies.Count > MostParts) throw new MeshRefusedException(
                $"This part has {bodies.Count} bodies; at most {MostParts} are made parts of their own.");
            var made = new List<TrialPart>(bodies.Count);
            foreach (var (i, body) in bodies.Index())
                made.Add(AtItsPlace(part, body, bodies.Count == 1 ? part.Name : $"{part.Name} {i + 1}") with
                {
                    File = await KeepAsync(body, shelf, blobs, stop),
                    Assembly = part.Assembly ?? $"{part.Name} {part.File[..6]}",
                });
            return TypedResults.Ok(new MadeParts(made));
        })
            .Accepts<PartsQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("The bodies of the first part as parts of their own, each where it stands");

        parts.MapPost("/join", async Task<Results<Ok<MadeParts>, JsonHttpResult<Refusal>>> (
            HttpRequest request, BlobStore blobs, MeshShelf shelf, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<PartsQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            var meshes = await StandingAsync(question.Parts, shelf, blobs, stop);
            var joined = MeshBodies.Joined(meshes);
            var first = question.Parts[0];
            return TypedResults.Ok(new MadeParts([AtItsPlace(first, joined, first.Name) with
            {
                File = await KeepAsync(joined, shelf, blobs, stop),
                Assembly = null,
            }]));
        })
            .Accepts<PartsQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Parts as one, each where it stands, by the first one's nozzle and settings");

        parts.MapPost("/tilt", async Task<Results<Ok<MadeParts>, JsonHttpResult<Refusal>>> (
            HttpRequest request, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<TiltQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            if (question.Leads >= question.Parts.Count) return Refusal.Fields([new FieldError(JsonPointer.Root / "leads",
                FieldProblem.OutOfRange, $"There are {question.Parts.Count} parts; none of them has this place.")]);
            var meshes = await AsReadAsync(question.Parts, shelf, blobs, stop);
            return TypedResults.Ok(new MadeParts(await queue.BySizeAsync(meshes.Sum(MeshShelf.SizeOf),
                _ => TiltedTogether.Of(question.Parts, meshes, question.Leads, question.Tilt, question.OnBed), stop)));
        })
            .Accepts<TiltQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("Parts that belong together, tilted as one piece");

        parts.MapPost("/meeting", async Task<Results<Ok<MeetingAnswer>, JsonHttpResult<Refusal>>> (
            HttpRequest request, BlobStore blobs, MeshShelf shelf, WorkQueue queue, CancellationToken stop) =>
        {
            var reading = await request.ReadDocumentAsync<PartsQuestion>(Bounds.Document, draft: false, stop);
            if (reading.Document is not { } question) return Refusal.Fields(reading.Errors);
            var meshes = await StandingAsync(question.Parts, shelf, blobs, stop);
            return TypedResults.Ok(await queue.BySizeAsync(meshes.Sum(MeshShelf.SizeOf), left => Met(meshes, left), stop));
        })
            .Accepts<PartsQuestion>("application/json").Produces<Refusal>(422, Refusal.MediaType)
            .WithSummary("How parts meet where they stand");
    }

    private static MeetingAnswer Met(IReadOnlyList<Mesh> meshes, CancellationToken stop)
    {
        var (met, piece) = (new List<MeetingOf>(), Enumerable.Range(0, meshes.Count).ToArray());
        for (var a = 0; a < meshes.Count; a++)
            for (var b = a + 1; b < meshes.Count; b++)
            {
                if (Meetings.Of(meshes[a], meshes[b], stop) is var how && how == Meeting.Apart) continue;
                met.Add(new(a, b, how));
                if (how == Meeting.Through) continue;
                var (from, to) = (piece[a], piece[b]);
                for (var i = 0; i < piece.Length; i++) if (piece[i] == from) piece[i] = to;
            }
        return new(piece.Distinct().Count() == 1 && met.All(m => m.How != Meeting.Through), met);
    }

    private static async Task<IReadOnlyList<Mesh>> StandingAsync(IReadOnlyList<TrialPart> parts, MeshShelf shelf, BlobStore blobs,
        CancellationToken stop)
    {
        var meshes = await AsReadAsync(parts, shelf, blobs, stop);
        return [.. parts.Select((part, i) => Placement.Place(meshes[i], part))];
    }

    private static async Task<IReadOnlyList<Mesh>> AsReadAsync(IReadOnlyList<TrialPart> parts, MeshShelf shelf, BlobStore blobs,
        CancellationToken stop)
    {
        var meshes = new List<Mesh>(parts.Count);
        foreach (var part in parts) meshes.Add(await shelf.AsReadAsync(part.File, blobs, stop));
        return meshes;
    }

    /// <summary>What a part is but for its shape: marks number faces that are no more.</summary>
    private static TrialPart Bare(TrialPart part) => part with { Id = null, Scale = null, Tilt = null, Marks = [] };

    /// <summary>A mesh of the bed frame as a part that stands there.</summary>
    private static TrialPart AtItsPlace(TrialPart from, Mesh mesh, string name) => Bare(from) with
    {
        Name = name,
        X = ((double)mesh.Box.MinX + mesh.Box.MaxX) / 2,
        Y = ((double)mesh.Box.MinY + mesh.Box.MaxY) / 2,
        Lift = Math.Round(mesh.Box.MinZ, 4),
        Turn = 0,
    };

    private static async Task<string> KeepAsync(Mesh mesh, MeshShelf shelf, BlobStore blobs, CancellationToken stop)
    {
        var hash = await blobs.KeepAsync(Stl.Write(mesh), "model/stl", stop);
        shelf.Put(hash, mesh);
        return hash;
    }
}

using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.FileProviders;
using MillCard.Core.Documents;
using MillCard.Core.Slicing.Jobs;
using MillCard.Store;
using MillCard.Web.Http;
using MillCard.Web.Lines;
using MillCard.Web.Sources;
using MillCard.Web.Trials;
using MillCard.Web.Work;
using Serilog;

namespace MillCard.Web.Hosting;

/// <summary>The data was made by a newer version; the message says what to do.</summary>
internal sealed class NewerDataException(string message) : Exception(message);

/// <summary>Puts the server together.</summary>
internal static class Setup
{
    public static void AddMillCard(this WebApplicationBuilder builder)
    {
        builder.Services.AddSerilog(log => ToFiles(log, builder.Configuration["Logs"]).MinimumLevel.Information()
            .MinimumLevel.Override("Microsoft", Serilog.Events.LogEventLevel.Warning)
            // a failed command throws, and is told of there; a new database fails its first look for a history
            .MinimumLevel.Override("Microsoft.EntityFrameworkCore", Serilog.Events.LogEventLevel.Fatal)
            .WriteTo.Console(formatProvider: CultureInfo.InvariantCulture, outputTemplate: $"{{Timestamp:HH:mm:ss}} {Line}"));
        builder.WebHost.ConfigureKestrel(server =>
        {
            server.AddServerHeader = false;
            server.Limits.MaxRequestBodySize = Bounds.Document;
        });
        var services = builder.Services;
        services.ConfigureHttpJsonOptions(json => DocumentJson.Apply(json.SerializerOptions));
        services.AddOpenApi("v1", Description.Shape);
        services.AddSingleton<Failures>();
        services.AddExceptionHandler<Failures>();
        services.AddProblemDetails();
        services.AddSingleton(TimeProvider.System);
        services.AddDbContext<MillCardContext>(db => db.UseNpgsql(builder.Configuration.GetConnectionString("MillCard")));
        services.AddScoped<BlobStore>();
        services.AddScoped<RunStore>();
        services.AddScoped<RevisionStore>();
        services.AddScoped<PacketStore>();
        services.AddScoped<SearchStore>();
        services.AddScoped<PatternStore>();
        services.AddScoped<SourceDesk>();
        services.AddSingleton<SourcePlaces>();
        services.AddScoped<Bin>();
        services.AddScoped<Leftovers>();
        services.AddHostedService<Housekeeping>();
        services.AddHostedService<PatternWatch>();
        services.AddSingleton<Rehearsal>();
        services.AddSingleton<WarmUp>();
        services.AddHostedService(all => all.GetRequiredService<WarmUp>());
        services.AddHostedService<DemoProofs>();
        services.AddScoped(typeof(DocumentStore<>));
        services.AddScoped<TrialDesk>();
        services.AddScoped<ProofDesk>();
        services.AddScoped<DemoData>();
        services.AddSignalR().AddJsonProtocol(json => DocumentJson.Apply(json.PayloadSerializerOptions));
        services.AddScoped<JobStore>();
        services.AddSingleton<LineDesk>();
        services.AddSingleton<IHostLifetime, Stopping>();
        services.AddHostedService<InterruptedJobs>();
        services.AddHostedService<NothingLeftHot>();
        services.Configure<HostOptions>(host => host.ShutdownTimeout = TimeSpan.FromSeconds(45));
        services.AddHttpContextAccessor();
        services.AddSingleton(all => MemoryWatch.Of(all.GetRequiredService<IConfiguration>()));
        services.AddSingleton<WorkQueue>();
        services.AddSingleton<MeshShelf>();
        services.AddSingleton(new StageShelf(StageBytes));
        services.AddSingleton<FitShelf>();
        services.AddSingleton<FiguresShelf>();
        services.AddSingleton<RunShelf>();
    }

    /// <summary>What stages of slicing may hold in memory: an eighth of it, a GiB at most.</summary>
    private static readonly long StageBytes = Math.Min(1L << 30, GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / 8);

    private const string Line = "{Level:u3} {Message:lj}{NewLine}{Exception}";
    private const long LogBytes = 5 << 20;
    private const int LogFiles = 6;

    /// <summary>The log as files of bounded size, the oldest dropped, where a folder is given.</summary>
    private static LoggerConfiguration ToFiles(LoggerConfiguration log, string? folder) => folder is null
        ? log
        : log.WriteTo.File(
            Path.Combine(folder, "server.log"), formatProvider: CultureInfo.InvariantCulture,
                outputTemplate: $"{{Timestamp:yyyy-MM-dd HH:mm:ss}} {Line}",
            fileSizeLimitBytes: LogBytes, rollOnFileSizeLimit: true, retainedFileCountLimit: LogFiles);

    public static void UseMillCard(this WebApplication app)
    {
        var names = KnownHost.Names(app.Configuration);
        app.Use(next => context => KnownHost.Check(context, next, names));
        app.Use(next => context => SameOrigin.Check(context, next));
        app.UseExceptionHandler();
        app.UseStatusCodePages(answer => Refusal.OfStatus(answer.HttpContext.Response.StatusCode).ExecuteAsync(answer.HttpContext));
        app.MapOpenApi("/openapi/{documentName}.json");
        ServePages(app);
    }

    /// <summary>Migrates, and fills an empty database with the demo data once.</summary>
    public static async Task PrepareDatabaseAsync(this WebApplication app)
    {
        if (app.Configuration.GetConnectionString("MillCard") is null || !app.Configuration.GetValue("PrepareDatabase", true)) return;
        await using var scope = app.Services.CreateAsyncScope();
        var database = scope.ServiceProvider.GetRequiredService<MillCardContext>().Database;
        if (await database.CanConnectAsync() && (await database.GetAppliedMigrationsAsync()).Except(database.GetMigrations())
            .FirstOrDefault() is { } unknown)
            throw new NewerDataException($"This data was made by a newer Mill Card (it knows the change {unknown}). Bring this "
                + $"Mill Card up to date, or restore a backup that it made itself into an empty folder.");
        await database.MigrateAsync();
        if (app.Configuration["Demo"] is { } folder)
            await scope.ServiceProvider.GetRequiredService<DemoData>().SeedOnceAsync(folder, CancellationToken.None);
    }

    private static void ServePages(WebApplication app)
    {
        var folder = app.Configuration["Pages"] ?? Path.Combine(app.Environment.ContentRootPath, "wwwroot");
        if (!Directory.Exists(folder)) return;
        var files = new PhysicalFileProvider(Path.GetFullPath(folder));
        var named = new StaticFileOptions
        {
            FileProvider = files,
            OnPrepareResponse = answer => answer.Context.Response.Headers.CacheControl =
                answer.Context.Request.Path.StartsWithSegments("/assets") ? "public, max-age=31536000, immutable" : "no-cache",
        };
        app.UseStaticFiles(named);
        app.MapFallbackToFile("", "index.html", named);
        app.MapFallbackToFile("{*path:nonfile:regex(^(?!api/|openapi/|hubs/).*$)}", "index.html", named);
    }
}

using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting.Internal;
using Microsoft.Extensions.Logging;
using Microsoft.Extensions.Logging.Abstractions;
using MillCard.Web.Hosting;
using Xunit;

namespace MillCard.Web.Tests;

/// <summary>The slice behind everything else after a start.</summary>
public sealed class WarmUpTests : IAsyncLifetime
{
    private readonly Server _server = new() { Demo = null };

    public ValueTask InitializeAsync() => _server.InitializeAsync();

    public ValueTask DisposeAsync() => _server.DisposeAsync();

    private sealed class Said : ILogger<WarmUp>
    {
        public TaskCompletionSource<string> First { get; } = new();
        public IDisposable? BeginScope<TState>(TState state) where TState : notnull => null;
        public bool IsEnabled(LogLevel logLevel) => true;
        public void Log<TState>(LogLevel logLevel, EventId eventId, TState state, Exception? exception,
            Func<TState, Exception?, string> formatter) => First.TrySetResult(formatter(state, exception));
    }

    private (WarmUp Service, ApplicationLifetime Life, Said Said) Of(string? warmUp, string? database = "Host=127.0.0.1")
    {
        var (life, said) = (new ApplicationLifetime(NullLogger<ApplicationLifetime>.Instance), new Said());
        var configuration = new ConfigurationBuilder().AddInMemoryCollection([new("WarmUp", warmUp),
            new("ConnectionStrings:MillCard", database)]).Build();
        return (new WarmUp(life, configuration, _server.Services.GetRequiredService<Rehearsal>(), said), life, said);
    }

    [Fact]
    public async Task The_server_is_warm_some_time_after_it_has_started_and_not_before()
    {
        var (service, life, said) = Of(null);
        await service.StartAsync(TestContext.Current.CancellationToken);
        Assert.False(said.First.Task.IsCompleted);
        life.NotifyStarted();
        Assert.StartsWith("Warm after", await said.First.Task.WaitAsync(TimeSpan.FromMinutes(5), TestContext.Current.CancellationToken),
            StringComparison.Ordinal);
    }

    [Fact]
    public async Task The_solids_are_sliced_once_whether_the_host_is_up_or_not()
    {
        var (service, life, said) = Of(null);
        var begun = service.Begin(TestContext.Current.CancellationToken);
        await begun;
        Assert.Same(begun, service.Begin(TestContext.Current.CancellationToken));
        await service.StartAsync(TestContext.Current.CancellationToken);
        life.NotifyStarted();
        await said.First.Task.WaitAsync(TimeSpan.FromMinutes(5), TestContext.Current.CancellationToken);
        Assert.Same(begun, service.Begin(TestContext.Current.CancellationToken));
    }

    [Theory]
    [InlineData("false", "Host=127.0.0.1")]
    [InlineData(null, null)]
    public async Task Nothing_is_warmed_where_it_is_switched_off_or_there_is_no_database(string? warmUp, string? database)
    {
        var (service, life, said) = Of(warmUp, database);
        Assert.True(service.Begin(TestContext.Current.CancellationToken).IsCompletedSuccessfully);
        await service.StartAsync(TestContext.Current.CancellationToken);
        life.NotifyStarted();
        await service.ExecuteTask!;
        Assert.False(said.First.Task.IsCompleted);
    }
}

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

    private (WarmUp Service, ApplicationLifetime Life, Said Said) Of(string? warmUp)
    {
        var (life, said) = (new ApplicationLifetime(NullLogger<ApplicationLifetime>.Instance), new Said());
        var configuration = new ConfigurationBuilder().AddInMemoryCollection([new("WarmUp", warmUp)]).Build();
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
    public async Task It_can_be_switched_off()
    {
        var (service, life, said) = Of("false");
        await service.StartAsync(TestContext.Current.CancellationToken);
        life.NotifyStarted();
        await service.ExecuteTask!;
        Assert.False(said.First.Task.IsCompleted);
    }
}

using MillCard.Web.Endpoints;
using MillCard.Web.Hosting;

const int NewerData = 78;

if (args is ["patterns", .. var words]) return PatternTool.Run(words, Console.Out, Console.Error, DateTimeOffset.UtcNow);
var builder = WebApplication.CreateBuilder(args);
builder.AddMillCard();
var app = builder.Build();
app.UseMillCard();
app.MapApi();
if (args.Contains("--check")) return await app.Services.CheckDataAsync(Console.Out);
_ = app.Services.GetRequiredService<WarmUp>().Begin(app.Lifetime.ApplicationStopping);
try
{
    await app.PrepareDatabaseAsync();
}
catch (NewerDataException newer)
{
    Console.Error.WriteLine(newer.Message);
    return NewerData;
}
await app.RunAsync();
return 0;

/// <summary>The server. Named so that tests can start it.</summary>
public partial class Program;

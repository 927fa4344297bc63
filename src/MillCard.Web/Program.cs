using MillCard.Web.Endpoints;
using MillCard.Web.Hosting;

var builder = WebApplication.CreateBuilder(args);
builder.AddMillCard();
var app = builder.Build();
app.UseMillCard();
app.MapApi();
await app.PrepareDatabaseAsync();
await app.RunAsync();

/// <summary>The server. Named so that tests can start it.</summary>
public partial class Program;

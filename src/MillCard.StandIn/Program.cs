using System.Globalization;
using MillCard.Core.Documents;
using MillCard.StandIn;

string? Option(string name) => Array.IndexOf(args, name) is var at and >= 0 && at + 1 < args.Length ? args[at + 1] : null;
var folder = Option("--cards") ?? "demo/cards";
var name = Option("--card") ?? "dunlin";
if (CardNamed(name) is not { } card)
{
    await Console.Error.WriteLineAsync($"There is no card {name} in {folder}. Use: --cards FOLDER --card NAME --port PORT --speed TIMES");
    return 2;
}
await using var printer = StandInPrinter.Start(card, int.Parse(Option("--port") ?? "7421", CultureInfo.InvariantCulture),
    double.Parse(Option("--speed") ?? "1", CultureInfo.InvariantCulture), CardNamed);
Console.WriteLine($"A stand-in for {card.Name} answers on 127.0.0.1:{printer.Port}");
using var off = new CancellationTokenSource();
Console.CancelKeyPress += (_, pressed) => { pressed.Cancel = true; off.Cancel(); };
AppDomain.CurrentDomain.ProcessExit += (_, _) => off.Cancel();
try { await Task.Delay(Timeout.Infinite, off.Token); }
catch (OperationCanceledException) { }
return 0;

Card? CardNamed(string wanted)
{
    var file = Path.Combine(folder, $"{Path.GetFileName(wanted).ToLowerInvariant()}.json");
    return File.Exists(file) ? DocumentReader.Read<Card>(File.ReadAllBytes(file)).Document : null;
}

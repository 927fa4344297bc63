using System.Globalization;
using BenchmarkDotNet.Running;
using MillCard.Bench;

switch (args)
{
    case ["files"]: BenchFiles.Make(); break;
    case ["growth"]: Growth.Fit(); break;
    case ["memory"]: Growth.Memory(); break;
    case ["ball", .. var sizes]: RoughBall.Run([.. sizes.Select(s => int.Parse(s, CultureInfo.InvariantCulture))]); break;
    case ["threads"]: Growth.Threads(); break;
    default: BenchmarkSwitcher.FromAssembly(typeof(BenchFiles).Assembly).Run(args); break;
}

using System.Globalization;
using BenchmarkDotNet.Running;
using MillCard.Bench;

switch (args)
{
    case ["files"]: BenchFiles.Make(); break;
    case ["growth"]: Growth.Fit(); break;
    case ["memory"]: Growth.Memory(); break;
    case ["ball", .. var sizes]: RoughBall.Run(Faces(sizes)); break;
    case ["projections", .. var sizes]: Projections.Run(Faces(sizes)); break;
    case ["threads"]: Growth.Threads(); break;
    default: BenchmarkSwitcher.FromAssembly(typeof(BenchFiles).Assembly).Run(args); break;
}

static int[] Faces(string[] sizes) => [.. sizes.Select(size => int.Parse(size, CultureInfo.InvariantCulture))];

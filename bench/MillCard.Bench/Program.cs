using BenchmarkDotNet.Running;
using MillCard.Bench;

if (args is ["files"]) BenchFiles.Make();
else BenchmarkSwitcher.FromAssembly(typeof(BenchFiles).Assembly).Run(args);

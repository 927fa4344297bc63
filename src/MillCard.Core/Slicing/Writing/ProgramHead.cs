using System.Text;
using MillCard.Core.Documents;
using MillCard.Core.DryRun;
using MillCard.Core.Gcode;
using MillCard.Core.Slicing.Jobs;

namespace MillCard.Core.Slicing.Writing;

/// <summary>The remarks at the head of a program: what it was made from, how long it takes, what it uses.</summary>
/// <remarks>It has the same lines before the dry run, without figures, and after it, so that a run holds for both.</remarks>
internal sealed class ProgramHead
{
    private readonly SliceJob _job;
    private readonly IReadOnlyList<int> _nozzles;
    private readonly int _layers;

    /// <param name="job">What was sliced.</param>
    /// <param name="layers">How many layers it has.</param>
    public ProgramHead(SliceJob job, int layers)
    {
        (_job, _nozzles, _layers) = (job, job.NozzlesInUse, layers);
        Open = Bytes(null);
    }

    /// <summary>The remarks, the figures left open.</summary>
    public ReadOnlyMemory<byte> Open { get; }

    /// <summary>The program of a run, the figures of the run in its head.</summary>
    /// <param name="run">Of a program that begins with the open remarks.</param>
    public GcodeText Filled(DryRunReport run) => run.Text.BegunBy(Open.Length, Bytes(run));

    private byte[] Bytes(DryRunReport? run) =>
        Encoding.UTF8.GetBytes(string.Concat(Lines(run).Select(line => $"; {line.Name}: {OneLine(line.Value)}\n")));

    private IEnumerable<(string Name, string Value)> Lines(DryRunReport? run)
    {
        var spent = run is null ? null : Spent.Of(run, _job.Machine.Card, _job.Filaments, _job.Copies);
        yield return ("job", _job.Name);
        yield return ("card", $"{_job.Machine.Card.Name}{(_job.Revision is null ? "" : $", revision {_job.Revision}")}");
        yield return ("filament", _job.FilamentOf(_job.FirstNozzle).Name!);
        if (_nozzles.Count > 1)
            foreach (var nozzle in _nozzles)
                yield return ($"nozzle {_job.Machine.Nozzles[nozzle].Id}", $"{_job.FilamentOf(nozzle).Name}, {Used(spent, nozzle)}");
        yield return ("recipe", _job.Recipe.Name!);
        if (_job.Sequence == Sequence.OneAtATime) yield return ("sequence", "one at a time");
        if (_job.Mode is { } mode) yield return ("mode", ModeNames.Of(mode.Kind));
        yield return ("layers", Invariant($"{_layers}"));
        yield return ("estimate", run is null ? "" : $"{Time(run.TotalSeconds)}, filament {Length(spent!.Filament, spent.Grams)}");
    }

    private static string Used(Spent? spent, int nozzle) =>
        spent?.ByNozzle.FirstOrDefault(used => used.Nozzle == nozzle) is { } used ? Length(used.Filament, used.Grams) : "";

    private static string Time(double seconds)
    {
        var time = TimeSpan.FromSeconds(seconds);
        return Invariant($"{(int)time.TotalHours} h {time.Minutes} min {time.Seconds} s");
    }

    private static string Length(double filament, double? grams) =>
        Invariant($"{filament:0} mm") + (grams > 0 ? Invariant($", {grams:0.0} g") : "");

    private static string OneLine(string text) => new([.. text.Select(c => char.IsControl(c) ? ' ' : c)]);
}

using MillCard.Core.Slicing.Jobs;

namespace MillCard.Core.Slicing.Writing;

/// <summary>The fans that cool what is laid, as a program has set them.</summary>
internal sealed class WrittenFans(SliceJob job, Spelling spelling)
{
    private readonly Dictionary<int, (string Name, double Share)> _running = [];
    private double _share;
    private int _nozzle;

    /// <summary>The fans of a nozzle run at a share from 0 to 1, those of the others not.</summary>
    public void To(int nozzle, double share)
    {
        share = Math.Round(share, 2);
        // asked before every line: nothing changes while the same nozzle wants the same
        if (share == _share && nozzle == _nozzle) return;
        (_share, _nozzle) = (share, nozzle);
        var wanted = PartFans.Running(job, nozzle, share).ToArray();
        foreach (var (number, (name, _)) in _running.ToArray())
            if (wanted.All(r => r.Fan.Number != number)) Set(new(number, name), 0);
        foreach (var (fan, its) in wanted) Set(fan, its);
    }

    /// <summary>Stops those that an owner's own line for the first one does not stop.</summary>
    public void NumberedOff()
    {
        foreach (var (number, (name, _)) in _running.ToArray())
            if (number != 0) Set(new(number, name), 0);
    }

    private void Set(PartFans.Told fan, double share)
    {
        if (share == (_running.TryGetValue(fan.Number, out var before) ? before.Share : 0)) return;
        _running[fan.Number] = (fan.Name, share);
        if (fan.Number != 0)
            spelling.Say("fan-of", ("fan", fan.Number), ("name", fan.Name), ("fan255", Math.Round(255 * share)),
                ("fan1", Math.Round(share, 3)));
        else if (share > 0) spelling.Say("fan", ("fan255", Math.Round(255 * share)), ("fan1", Math.Round(share, 3)));
        else spelling.Say("fan-off");
    }
}

using MillCard.Core.Slicing.Jobs;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Tells a dialect that can skip parts which lines belong to which.</summary>
internal sealed class PartLabels(SliceJob job, Spelling spelling)
{
    private int? _now;

    /// <summary>Which parts there are.</summary>
    public void Define()
    {
        spelling.Say("parts-count", ("count", job.Parts.Count));
        for (var i = 0; i < job.Parts.Count; i++) spelling.Say("part-define", ("key", KeyOf(i)));
    }

    /// <summary>What comes belongs to another part, or to none.</summary>
    public void Begin(int? part)
    {
        if (part == _now) return;
        if (_now is { } before) spelling.Say("part-end", ("key", KeyOf(before)));
        if (part is { } index && index < job.Parts.Count)
            spelling.Say("part-begin", ("index", index), ("key", KeyOf(index)),
                ("name", job.Parts[index].Part.Name.Replace('"', '\'').Replace(';', ',')));
        _now = part;
    }

    private static string KeyOf(int part) => $"part_{part + 1}";
}

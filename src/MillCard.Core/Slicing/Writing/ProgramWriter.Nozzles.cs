using MillCard.Core.Documents;
using MillCard.Core.Routines;

namespace MillCard.Core.Slicing.Writing;

/// <summary>Heat, changes of nozzle and stops.</summary>
internal sealed partial class ProgramWriter
{
    private void HeatFirst() => Heat(n => n.First, b => b.First);

    private void HeatOthers() => Heat(n => n.Others, b => b.Others);

    /// <summary>Nothing is said where the first layer and the others ask for the same.</summary>
    private void Heat(Func<NozzleHeat, double?> nozzle, Func<BedHeat, double> bed)
    {
        if (Filament.Nozzle.Others != Filament.Nozzle.First && !_ownHeat)
            _spelling.Say("nozzle-set", ("value", nozzle(Filament.Nozzle)!.Value));
        if (_job.Machine.Card.Envelope.Heated == true && _job.BedFor(b => b.Others) != _job.BedFor(b => b.First))
            _spelling.Say("bed-set", ("value", _job.BedFor(bed)));
    }

    /// <summary>Pulls back and rises off the print; to what height, mm.</summary>
    private double RiseAbove(double top)
    {
        Leave();
        var high = Math.Min(top + WaitsAbove, _job.Machine.Card.Envelope.Height!.Value);
        if (!(high <= _head.Z)) _head.Rise(high);
        return high;
    }

    /// <summary>Rises off the print and stops; what the owner did meanwhile may have changed speed and position.</summary>
    private void Stop(StopKind kind, double z)
    {
        var high = RiseAbove(z);
        WrittenStops.Say(kind, _spelling);
        Forget();
        _head.ResetFilament();
        _head.Rise(Math.Max(high, ClearOfAll(z)));
    }

    /// <summary>What an event asks for from the layer on that is about to be laid.</summary>
    private void FromHereOn(TrialStop stop)
    {
        switch (stop.For)
        {
            case StopKind.Temperature:
                _ownHeat = true;
                _spelling.Say("nozzle-set", ("value", stop.Value!.Value));
                break;
            case StopKind.Speed:
                _ownSpeed = stop.Value!.Value;
                _out.Command("M220").Whole('S', Math.Round(100 * _ownSpeed)).End();
                break;
            case StopKind.Fan:
                _ownFan = stop.Value!.Value;
                break;
            case StopKind.Lines:
                Leave();
                _out.Line(Invariant($"; own lines at {stop.Z:0.###} mm"));
                foreach (var line in stop.Lines!.ReplaceLineEndings("\n").Trim('\n').Split('\n')) _out.Line(line.TrimEnd());
                Forget();
                break;
        }
    }

    /// <summary>Ends the share of speed that an event asked for.</summary>
    private void AtFullSpeed()
    {
        if (_ownSpeed == 1) return;
        _ownSpeed = 1;
        _out.Command("M220").Whole('S', 100).End();
    }

    /// <summary>The one nozzle to its standby where that pays, the owner's routine, the other nozzle hot.</summary>
    private void ChangeTool(int next, double z, bool cools)
    {
        Leave(_recipe.NozzleChanges.Retraction);
        (_values["tool.now"], _values["tool.next"]) = (_head.Nozzle, next);
        if (cools && Filament.Nozzle.Standby is { } standby && _head.Nozzle < _job.Machine.Nozzles.Count)
            _out.Command("M104").Whole('T', _head.Nozzle).Whole('S', standby).End();
        _head.Nozzle = next;
        Routine(RoutineMoment.ToolChange);
        _spelling.Say("tool", ("tool", next));
        Compensation();
        _out.Command("M109").Whole('T', next).Whole('S', (_pace.Number == 1 ? Filament.Nozzle.First : Filament.Nozzle.Others)!.Value).End();
        Forget();
        _head.ResetFilament();
        _head.Rise(Math.Max(z, ClearOfAll(z)));
    }
}

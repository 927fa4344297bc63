using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Findings;
using MillCard.Core.Rules;
using MillCard.Core.Patterns;
using Xunit;

namespace MillCard.Core.Tests;

public class CardRuleTests
{
    private static Card With(params KeepOut[] keepOuts) =>
        Cards.Dunlin with { Envelope = Cards.Dunlin.Envelope with { KeepOuts = keepOuts } };

    private static Card WithFilament(double diameter) =>
        Cards.Dunlin with
        {
            Head = Cards.Dunlin.Head with
            {
                Nozzles = [
        Cards.Dunlin.Head.Nozzles![0] with { FilamentDiameter = diameter }]
            }
        };

    private static Card WithNozzle(Func<Nozzle, Nozzle> change) =>
        Cards.Dunlin with { Head = Cards.Dunlin.Head with { Nozzles = [change(Cards.Dunlin.Head.Nozzles![0])] } };

    private static Card LongTube(double? length, double? speed) =>
        WithNozzle(n => n with { Feed = new() { Kind = FeedKind.LongTube }, Retraction = new() { Length = length, Speed = speed } });

    private static Card TwoNozzles(double z, OffsetsUse? use) => Cards.Dunlin with
    {
        Head = Cards.Dunlin.Head with
        {
            Nozzles = [Cards.Dunlin.Head.Nozzles![0],
            Cards.Dunlin.Head.Nozzles[0] with { Id = "n2", Offset = new() { X = 24, Z = z } }],
            Offsets = use
        },
    };

    private static Card TwoCarriages(Func<Card, Card>? change = null)
    {
        const string start = "{% if mode.name == 'copy' %}M605 S2 X{{ mode.offset }}{% elsif mode.name == 'mirror' %}M605 S3"
            + "{% else %}M605 S1{% endif %}\nG28\n";
        var card = ReachTests.TwoCarriages() with { Routines = new() { Start = start, End = "M104 S0\n" } };
        return change?.Invoke(card) ?? card;
    }

    private static Card WithX(Func<Axis, Axis> change, double? stepRate = null)
    {
        var x = new Axis
        {
            StepsPerMm = 80,
            MaxSpeed = 180,
            Drive = new BeltDrive { StepAngle = 1.8, Microsteps = 16, Teeth = 20, Pitch = 2 }
        };
        return Cards.Dunlin with { Motion = Cards.Dunlin.Motion with { StepRate = stepRate, Axes = new() { X = change(x) } } };
    }

    private static Card Homed(double y) => Bare(y: new() { Min = -10, Max = 165 }) is var card
        ? card with { Envelope = card.Envelope with { Home = new() { X = 0, Y = y } } } : card;

    /// <summary>A beam along X as deep as the bed behind and before the nozzle, over a post in the middle.</summary>
    private static Card Beamed(double underside, double top) => Kept(Cards.Box("post", KeepOutKind.Obstacle, 80, 80, 5, 5, top)) is var card
        ? card with { Head = card.Head with { Beams = [new() { Along = BeamAxis.X, Near = -80, Far = 80, Underside = underside }] } }
            : card;

    private static ScrewDrive Screw(int? starts) => new() { Pitch = 2, Starts = starts, StepAngle = 1.8, Microsteps = 16 };

    private static Card Stated => Cards.Dunlin with { Motion = Cards.Dunlin.Motion with { Limits = LimitsUse.Stated } };

    private static Card WithDelta(double radius, double segments) => Cards.Dunlin with
    {
        Motion = new()
        {
            Layout = MotionLayout.Delta,
            Axes = new() { X = new() { Max = radius } },
            Delta = new() { Arm = 215, Radius = 105, SegmentsPerSecond = segments }
        },
    };

    private static Card WithLog(double length) => Cards.Dunlin with
    {
        Heat = Cards.Dunlin.Heat with
        {
            Bed = new()
            {
                Max = 70,
                Log = [.. Enumerable.Range(0, 12).Select(i => length * i / 11)
            .Select(s => (IReadOnlyList<double>)[s, Math.Round(90 - 70 * Math.Exp(-s / 300), 1)])]
            }
        },
    };

    public static TheoryData<string, string, Card, Card> Pairs => new()
    {
        { "bad-outline", "/envelope/keepOuts/0/outline", With(Polygon([0, 0], [10, 10], [10, 0], [0, 10])),
            With(Polygon([0, 0], [10, 0], [10, 10])) },
        { "bad-outline", "/envelope/keepOuts/0/outline", With(Polygon([0, 0], [4000.5, 0], [10, 10])),
            With(Polygon([0, 0], [4000, 0], [10, 10])) },
        { "bad-outline", "/head/beams/0/far", Cards.Dunlin with { Head = Cards.Dunlin.Head with { Beams = [
            new() { Along = BeamAxis.X, Near = 30, Far = -22, Underside = 28 }] } }, Cards.Dunlin },
        { "bad-outline", "/head/beams/0/far", Beam(30, 30), Beam(30, 30.1) },
        { "bad-outline", "/head/bodies/0/outline", Ducted([0, 0], [10, 10], [10, 0], [0, 10]), Ducted([0, 0], [10, 0], [10, 10]) },
        { "keep-out-off-bed", "/envelope/keepOuts/0/outline", With(Cards.Box("far", KeepOutKind.Reserved, 200, 0, 5, 5)),
            With(Cards.Box("near", KeepOutKind.Reserved, 179, 0, 5, 5)) },
        { "obstacle-without-top", "/envelope/keepOuts/0/top", With(Cards.Box("clip", KeepOutKind.Obstacle, 0, 0, 5, 5)),
            With(Cards.Box("clip", KeepOutKind.Obstacle, 0, 0, 5, 5, 4)) },
        { "use-beyond-height", "/envelope/use/height",
            Cards.Dunlin with { Envelope = Cards.Dunlin.Envelope with { Use = new() { Height = 180 } } },
            Cards.Dunlin with { Envelope = Cards.Dunlin.Envelope with { Use = new() { Height = 170 } } } },
        { "uncommon-filament-diameter", "/head/nozzles/0/filamentDiameter", WithFilament(3), WithFilament(2.85) },
        { "broken-routine", "/routines/start", Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = "{{ bad }}" } },
            Cards.Dunlin },
        { "broken-routine", "/modes/1/start", TwoCarriages(c => c with { Modes = [c.Modes[0], c.Modes[1] with { Start = "{{ bad }}" }] }),
            TwoCarriages() },
        { "unknown-name-on-head", "/head/nozzles/0/fans", WithNozzle(n => n with { Fans = ["left"] }), WithNozzle(n => n) },
        { "unknown-name-on-head", "/head/carriages/1/nozzle",
            TwoCarriages(c => c with { Head = c.Head with { Carriages = [c.Head.Carriages[0],
            c.Head.Carriages[1] with { Nozzle = "n3" }] } }), TwoCarriages() },
        { "offsets-applied", "/head/offsets", TwoNozzles(0, new() { Firmware = true, Gcode = true }),
            TwoNozzles(0, new() { Gcode = true }) },
        { "offsets-applied", "/head/offsets", TwoNozzles(0, null), TwoNozzles(0, new() { Firmware = true, Gcode = false }) },
        { "idle-nozzle-lower", "/head/nozzles/0/offset/z", TwoNozzles(-0.3, new() { Gcode = true }),
            TwoNozzles(0, new() { Gcode = true }) },
        { "retraction-for-feed", "/head/nozzles/0/retraction/length", WithNozzle(n => n with { Retraction = new() { Length = 4 } }),
            WithNozzle(n => n with { Retraction = new() { Length = 1 } }) },
        { "retraction-for-feed", "/head/nozzles/0/retraction/length",
            WithNozzle(n => n with { Feed = new() { Kind = FeedKind.LongTube }, Retraction = new() { Length = 1 } }),
            WithNozzle(n => n with { Feed = new() { Kind = FeedKind.LongTube }, Retraction = new() { Length = 5, Speed = 40 } }) },
        { "retraction-for-feed", "/head/nozzles/0/retraction/length", WithNozzle(n => n with { Retraction = new() { Length = 2.1 } }),
            WithNozzle(n => n with { Retraction = new() { Length = 2, Lift = 0.5 } }) },
        { "retraction-for-feed", "/head/nozzles/0/retraction/length", LongTube(7.1, 40), LongTube(7, 60) },
        { "retraction-for-feed", "/head/nozzles/0/retraction/length", LongTube(3.9, 40), LongTube(4, 25) },
        { "retraction-for-feed", "/head/nozzles/0/retraction/speed", LongTube(5, 61), LongTube(5, null) },
        { "retraction-for-feed", "/head/nozzles/0/retraction/speed", LongTube(5, 24), LongTube(null, 40) },
        { "retraction-for-feed", "/head/nozzles/0/retraction/lift", WithNozzle(n => n with { Retraction = new() { Lift = 0.6 } }),
            WithNozzle(n => n with { Retraction = new() { Lift = 0.5 } }) },
        { "carriages-incomplete", "/head/leastDistance", TwoCarriages(c => c with { Head = c.Head with { LeastDistance = null } }),
            TwoCarriages() },
        { "carriages-incomplete", "/head/carriages/1/park",
            TwoCarriages(c => c with { Head = c.Head with { Carriages = [c.Head.Carriages[0],
            c.Head.Carriages[1] with { Park = 320 }] } }), TwoCarriages() },
        { "carriages-incomplete", "/modes", Cards.Dunlin with { Modes = [new() { Kind = ModeKind.Single }] }, Cards.Dunlin },
        { "mode-not-set", "/modes/0", TwoCarriages(c => c with { Routines = c.Routines with { Start = "G28\n; M605 S1\n" } }),
            TwoCarriages() },
        { "mode-not-set", "/modes/1", TwoCarriages(c => c with { Routines = c.Routines with { Start = "M605 S1\nG28\n" } }),
            TwoCarriages() },
        { "steps-differ", "/motion/axes/x/stepsPerMm", WithX(x => x with { StepsPerMm = 40 }), WithX(x => x) },
        { "steps-differ", "/motion/axes/x/stepsPerMm", WithX(x => x with { StepsPerMm = 80.5 }), WithX(x => x with { StepsPerMm = 80.3 }) },
        { "steps-differ", "/motion/axes/x/stepsPerMm", WithX(x => x with { StepsPerMm = 79.5 }), WithX(x => x with { StepsPerMm = 79.7 }) },
        { "starts-not-said", "/motion/axes/x/drive/starts", WithX(x => x with { Drive = Screw(null), StepsPerMm = 400 }),
            WithX(x => x with { Drive = Screw(4), StepsPerMm = 400 }) },
        { "step-rate-too-high", "/motion/axes/x/maxSpeed", WithX(x => x with { MaxSpeed = 600 }, 40_000),
            WithX(x => x with { MaxSpeed = 500 }, 40_000) },
        { "segments-per-second", "/motion/delta/segmentsPerSecond", WithDelta(97, 30), WithDelta(97, 100) },
        { "segments-per-second", "/motion/delta/segmentsPerSecond", WithDelta(97, 59), WithDelta(97, 60) },
        { "segments-per-second", "/motion/delta/segmentsPerSecond", WithDelta(97, 201), WithDelta(97, 200) },
        { "delta-beyond-arms", "/motion/axes/x/max", WithDelta(98, 100), WithDelta(97, 100) },
        { "heat-log", "/heat/bed/log", WithLog(120), WithLog(1500) },
        { "limits-stated-and-trusted", "/motion/limits",
            Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = "G28\nM203 X200 Y200\n" } }, Cards.Dunlin },
        // alone it asks what they are
        { "limits-stated-and-trusted", "/motion/limits",
            Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = "\nM203\nM203 X200\n" } },
            Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { Start = "G28\n\nM203\n" } } },
        { "limits-stated-and-trusted", "/motion/limits",
            Stated with { Routines = Cards.Dunlin.Routines with { Start = "G28\nM201 X900\n" } }, Stated },
        { "axis-short-of-bed", "/motion/axes/x/max", Bare(x: new() { Min = 0, Max = 150 }), Bare(x: new() { Min = -3, Max = 185 }) },
        { "axis-short-of-bed", "/motion/axes/y/min", Bare(y: new() { Min = 0, Max = 160 }, origin: 80),
            Bare(y: new() { Min = -80, Max = 80 }, origin: 80) },
        { "axis-short-of-bed", "/motion/axes/x/max", Bare(x: new() { Min = 0, Max = 179.2 }), Bare(x: new() { Min = 0, Max = 179.6 }) },
        { "axis-short-of-bed", "/motion/axes/x/min", Bare(x: new() { Min = 0.8, Max = 180 }), Bare(x: new() { Min = 0.4, Max = 180 }) },
        { "axis-short-of-bed", "/motion/axes/z/max", Bare(z: new() { Max = 150 }), Bare(z: new() { Max = 170 }) },
        { "axis-short-of-bed", "/motion/axes/z/max", Bare(z: new() { Max = 169.4 }), Bare(z: new() { Max = 169.5 }) },
        { "travel-past-bed", "/motion/axes/x/max", Bare(x: new() { Min = 0, Max = 211 }), Bare(x: new() { Min = -30, Max = 210 }) },
        { "travel-past-bed", "/motion/axes/y/max", Bare(y: new() { Min = -80, Max = 111 }, origin: 80),
            Bare(y: new() { Min = -80, Max = 110 }, origin: 80) },
        { "travel-past-bed", "/motion/axes/x/max", BesideX(new() { Min = -50, Max = 161 }, 50),
            BesideX(new() { Min = -50, Max = 160 }, 50) },
        { "home-off-travel", "/envelope/home/y", Homed(-12), Homed(-10) },
        { "home-off-travel", "/envelope/home/y", Homed(-10.8), Homed(-10.4) },
        { "faster-than-axis", "/motion/axes/x/homingSpeed", WithX(x => x with { HomingSpeed = 181 }),
            WithX(x => x with { HomingSpeed = 180 }) },
        { "beam-never-clears", "/head/beams/0/underside", Beamed(0, 5), Beamed(0.5, 0.4) },
        { "beam-never-clears", "/head/beams/0", Beamed(20, 21), Beamed(20, 20) },
        { "origin-off-machine", "/envelope/origin/y", Bare(origin: 400), Bare(origin: -20) },
        { "origin-off-machine", "/envelope/origin/y", Bare(origin: 311), Bare(origin: 310) },
        { "origin-off-machine", "/envelope/origin/y", Bare(origin: -151), Bare(origin: -150) },
        { "probe-reaches-nothing", "/head/probe/x", Probed(181), Probed(180) },
        { "probe-reaches-nothing", "/head/probe/x", Probed(-181), Probed(-180) },
        { "nothing-left-to-print-on", "/envelope/use/margin",
            Bare() with { Envelope = Bare().Envelope with { Use = new() { Margin = 90 } } },
            Bare() with { Envelope = Bare().Envelope with { Use = new() { Margin = 60 } } } },
        { "nothing-left-to-print-on", "/envelope/use/edges", Edged(100, 80), Edged(100, 79) },
        { "nothing-left-to-print-on", "/envelope/keepOuts/0/outline", Kept(Cards.Box("all", KeepOutKind.Obstacle, 0, 0, 180, 160, 5)),
            Kept(Cards.Box("worn", KeepOutKind.BadSurface, 0, 0, 180, 160)) },
        { "nothing-left-to-print-on", "/envelope/keepOuts/0/outline", Kept(Cards.Box("all", KeepOutKind.Reserved, 0, 0, 180, 160)),
            Kept(Cards.Box("most", KeepOutKind.Reserved, 0, 0, 180, 150)) },
        { "same-name", "/envelope/keepOuts/1/name", Kept(Cards.Box("clip", KeepOutKind.Reserved, 0, 0, 5, 5),
            Cards.Box("Clip", KeepOutKind.Reserved, 9, 0, 5, 5)),
            Kept(Cards.Box("clip", KeepOutKind.Reserved, 0, 0, 5, 5), Cards.Box("clip 2", KeepOutKind.Reserved, 9, 0, 5, 5)) },
        { "same-name", "/head/nozzles/1/id",
            Bare() with { Head = Bare().Head with { Nozzles = [Bare().Head.Nozzles![0], Bare().Head.Nozzles![0]] } }, Bare() },
        { "obstacle-above-machine", "/envelope/keepOuts/0/top", Kept(Cards.Box("post", KeepOutKind.Obstacle, 0, 0, 5, 5, 171)),
            Kept(Cards.Box("post", KeepOutKind.Obstacle, 0, 0, 5, 5, 170)) },
        { "body-below-tip", "/head/bodies/0/underside", Bodied(0), Bodied(0.5) },
        { "probe-reaches-nothing", "/head/probe/x", Probed(200), Probed(170) },
        { "rating-beyond-heater", "/head/nozzles/0/maxTemperature",
            WithNozzle(n => n with { MaxTemperature = 300, Heater = new() { Best = 250 } }),
            WithNozzle(n => n with { MaxTemperature = 250, Heater = new() { Best = 250 } }) },
        { "heats-what-is-not-there", "/routines/start", Unheated("G28\nM190 S60"), Unheated("G28\nM190 S0\nM140 S{{ heat.bed }}") },
        { "heats-what-is-not-there", "/routines/start", Cards.Dunlin with { Heat = Cards.Dunlin.Heat with { Housing = Housing.Open },
            Routines = new() { Start = "G28\nM191 S40", End = "M84" } },
            Cards.Dunlin with { Heat = Cards.Dunlin.Heat with { Housing = Housing.HeatedChamber },
            Routines = new() { Start = "G28\nM191 S40", End = "M84" } } },
        { "heats-what-is-not-there", "/routines/start", Unheated("G28\nM190 R1"), Unheated("G28\nM190 R0\nM140 S-1") },
        { "unknown-name-on-head", "/head/bodies/0/on", DuctOn("n9"), DuctOn("n1") },
        { "faster-than-axis", "/modes/0/maxSpeed", WithMode(201), WithMode(200) },
        { "axis-short-of-bed", "/motion/axes/x/max", BesideX(new() { Min = -50, Max = 129.4 }, 50),
            BesideX(new() { Min = -50, Max = 129.5 }, 50) },
        { "axis-short-of-bed", "/motion/axes/x/min", BesideX(new() { Min = -49.4, Max = 130 }, 50),
            BesideX(new() { Min = -49.5, Max = 130 }, 50) },
        { "probe-reaches-nothing", "/head/probe/x", ProbedBeside(new() { Min = -50, Max = 130 }, 181),
            ProbedBeside(new() { Min = -50, Max = 130 }, 180) },
        { "probe-reaches-nothing", "/head/probe/x", ProbedBeside(new() { Min = -50, Max = 130 }, -181),
            ProbedBeside(new() { Min = -50, Max = 130 }, -180) },
        { "probe-reaches-nothing", "/head/probe/x", ProbedBeside(null, -181), ProbedBeside(null, -180) },
        { "probe-reaches-nothing", "/head/probe/x", ProbedBeside(null, 181), ProbedBeside(null, 180) },
        { "hard-coded-size", "/routines/start", Starting(Cards.Bare(20, 160, 170), "G28\nG1 X20\n"),
            Starting(Cards.Bare(19.9, 160, 170), "G28\nG1 X19.9\n") },
        { "hard-coded-size", "/routines/start", Starting(Cornered, "G1 Y90\nG28\n"), Starting(Cornered, "G1 Y89\nG28\n") },
        { "heats-what-is-not-there", "/routines/start", Unheated("M190 S60\nG28") is var cold
            ? cold with { Heat = cold.Heat with { Housing = null } } : cold, Unheated("M190 S0\nG28") },
        { "travel-past-bed", "/motion/axes/x/min", BesideX(new() { Min = -81, Max = 130 }, 50),
            BesideX(new() { Min = -80, Max = 130 }, 50) },
        { "body-below-tip", "/head/bodies/0/underside", WithTip(3), WithTip(0.9) },
        { "beam-never-clears", "/head/beams/0", Beamed(20, 21), Beamed(20, 21) is var besides
            ? besides with { Envelope = besides.Envelope with { KeepOuts = [Cards.Box("post", KeepOutKind.Obstacle, 80, 80.5, 5, 5, 21)] } }
            : besides },
        { "rating-beyond-heater", "/head/nozzles/0/maxTemperature", Logged(300), Logged(240) },
        { "no-routine", "/routines/end", Cards.Dunlin with { Routines = Cards.Dunlin.Routines with { End = " " } }, Cards.Dunlin },
    };

    private static Card Bare(Axis? x = null, Axis? y = null, Axis? z = null, double origin = 0)
    {
        var card = Cards.Bare(180, 160, 170);
        return card with
        {
            Envelope = card.Envelope with { Origin = new() { X = 0, Y = origin } },
            Motion = card.Motion with { Axes = new() { X = x, Y = y, Z = z } }
        };
    }

    /// <summary>With zero of X so far within the bed.</summary>
    private static Card BesideX(Axis? x, double origin) => Bare(x) is var card
        ? card with { Envelope = card.Envelope with { Origin = new() { X = origin, Y = 0 } } } : card;

    private static Card Kept(params KeepOut[] keepOuts) => Bare() with { Envelope = Bare().Envelope with { KeepOuts = keepOuts } };

    private static Card Bodied(double underside) =>
        Bare() with
        {
            Head = Bare().Head with
            {
                Bodies = [
            new() { Name = "duct", Underside = underside, Outline = new RectangleOutline { X = 5, Y = -5, Width = 10, Depth = 10 } }]
            }
        };

    private static Card WithDuct(Func<Body, Body> change) => Bodied(1) is var card
        ? card with { Head = card.Head with { Bodies = [change(card.Head.Bodies[0])] } } : card;

    private static Card Ducted(params double[][] corners) =>
        WithDuct(duct => duct with { Outline = new PolygonOutline { Points = corners } });

    private static Card DuctOn(string nozzle) => WithDuct(duct => duct with { On = nozzle });

    private static Card Beam(double near, double far) =>
        Bare() with { Head = Bare().Head with { Beams = [new() { Along = BeamAxis.X, Near = near, Far = far, Underside = 28 }] } };

    private static Card Edged(double left, double right) => Bare() with
    {
        Envelope = Bare().Envelope with { Use = new() { Edges = new() { Left = left, Right = right, Front = 5, Back = 5 } } },
    };

    /// <summary>With a body 1 mm up and the nozzle's tip so far.</summary>
    private static Card WithTip(double z) => Bodied(1) is var card
        ? card with { Head = card.Head with { Nozzles = [card.Head.Nozzles![0] with { Offset = new() { Z = z } }] } } : card;

    /// <summary>Its nozzle's log ends at 250 °C.</summary>
    private static Card Logged(double rated) => WithNozzle(n => n with
    {
        MaxTemperature = rated,
        Heater = new()
        {
            Log = [.. Enumerable.Range(0, 20).Select(i => (IReadOnlyList<double>)[30 * i,
            Math.Round(250 - 230 * Math.Exp(-30 * i / 60.0), 1)])]
        },
    });

    private static Card WithMode(double speed) => TwoCarriages(c => c with
    {
        Motion = c.Motion with { Axes = c.Motion.Axes with { X = new() { MaxSpeed = 150 }, Y = new() { MaxSpeed = 200 } } },
        Modes = [c.Modes[0] with { MaxSpeed = speed }, .. c.Modes.Skip(1)],
    });

    private static Card ProbedBeside(Axis? x, double offset) => Probed(offset, BesideX(x, 50));

    private static Card Starting(Card card, string start) => card with { Routines = new() { Start = start, End = "M84" } };

    private static Card Cornered => Bare() with
    {
        Envelope = Bare().Envelope with { Bed = new PolygonBed { Points = [[0, 0], [100, 0], [50, 90]] } },
    };

    private static Card Probed(double x) => Probed(x, Bare());

    private static Card Probed(double x, Card card) =>
        card with { Head = card.Head with { Probe = new() { Kind = ProbeKind.Inductive, X = x, Y = 0 } } };

    private static Card Unheated(string start) =>
        Bare() with { Envelope = Bare().Envelope with { Heated = false }, Routines = new() { Start = start, End = "M84" } };

    /// <summary>No card that ships says anything against itself by these rules, and what a cure changes ends the finding.</summary>
    [Fact]
    public void Cures_end_what_they_cure_and_no_pattern_has_anything_to_cure()
    {
        string[] own = ["axis-short-of-bed", "origin-off-machine", "nothing-left-to-print-on", "same-name", "obstacle-above-machine",
            "body-below-tip", "probe-reaches-nothing", "rating-beyond-heater", "heats-what-is-not-there", "starts-not-said",
                "travel-past-bed", "home-off-travel",
            "faster-than-axis", "beam-never-clears"];
        foreach (var pattern in Pattern.All) Assert.DoesNotContain(RuleBook.Check(pattern.Card), f => own.Contains(f.Rule));
        foreach (var demo in new[] { "avocet", "cormorant", "dunlin", "kittiwake" })
            Assert.DoesNotContain(RuleBook.Check(DemoParts.Card(demo)), f => own.Contains(f.Rule));
        var lacking = new SortedSet<string>();
        foreach (var (rule, pointer, bad, _) in Pairs.Select(p => p.Data).Where(d => own.Contains(d.Item1)))
        {
            var finding = RuleBook.Check(bad).First(f => f.Rule == rule && f.Pointer == pointer);
            if (finding.Remedy is null) { lacking.Add(rule); continue; }
            Assert.DoesNotContain(RuleBook.Check(Cured(bad, finding.Remedy)), f => f.Rule == rule && f.Pointer == pointer);
        }
        // what only a ruler can say
        Assert.Equal(["body-below-tip", "probe-reaches-nothing"], lacking);
    }

    private static readonly Func<Card, Card>[] Breaks =
    [
        c => c with { Motion = c.Motion with { Axes = c.Motion.Axes with { X = c.Motion.Axes.X! with { Max = 90 } } } },
        c => c with { Motion = c.Motion with { Axes = c.Motion.Axes with { Y = c.Motion.Axes.Y! with { Min = -300 } } } },
        c => c with { Motion = c.Motion with { Axes = c.Motion.Axes with { Z = c.Motion.Axes.Z! with { Max = 40, HomingSpeed = 400 } } } },
        c => c with { Envelope = c.Envelope with { Origin = new() { X = 700, Y = 0 } } },
        c => c with { Envelope = c.Envelope with { Home = new() { X = -90, Y = 400 } } },
        c => c with { Envelope = c.Envelope with { Use = new() { Margin = 120 } } },
        c => c with { Envelope = c.Envelope with { KeepOuts = [Cards.Box("all", KeepOutKind.Reserved, -5, -5, 400, 400),
            Cards.Box("all", KeepOutKind.Obstacle, 10, 10, 5, 5, 900)] } },
        c => c with { Head = c.Head with { Bodies = [.. c.Head.Bodies.Select(b => b with { Underside = 0 })] } },
        c => c with { Head = c.Head with { Beams = [new() { Along = BeamAxis.X, Near = -400, Far = 400, Underside = 0 }] } },
        c => c with { Head = c.Head with { Nozzles = [
            .. c.Head.Nozzles!.Select(n => n with { MaxTemperature = 400, Heater = new() { Best = 250 } })] } },
        c => c with { Envelope = c.Envelope with { Heated = false }, Routines = c.Routines with { Start = "M140 S60\nG28\nM190 S60\n" } },
        c => c with { Motion = c.Motion with { Axes = c.Motion.Axes with { Z = c.Motion.Axes.Z! with { StepsPerMm = 400,
            Drive = Screw(null) } } } },
    ];

    // Whatever is wrong at once, and in whatever order its cures are taken, no finding is left that offers one.
    [Fact]
    public void Any_sequence_of_cures_ends() =>
        Gen.Select(Gen.Shuffle(Breaks, 1, Breaks.Length), Gen.Int[0, 1000].List[60]).Sample((breaks, picks) =>
        {
            var card = breaks.Aggregate(Bare(new() { Min = 0, Max = 180, MaxSpeed = 150 }, new() { Min = 0, Max = 160, MaxSpeed = 150 },
                new() { Min = 0, Max = 170, MaxSpeed = 10 }), (c, f) => f(c));
            Finding[] Curable() => [.. RuleBook.Check(card).Where(f => f.Remedy is not null)];
            foreach (var pick in picks)
            {
                if (Curable() is not { Length: > 0 } curable) break;
                card = Cured(card, curable[pick % curable.Length].Remedy!);
            }
            Assert.Empty(Curable().Select(f => f.Message));
        }, iter: 300);

    private static Card Cured(Card card, Remedy remedy)
    {
        var json = JsonSerializer.SerializeToNode(card, DocumentJson.Options)!;
        foreach (var edit in remedy.Edits)
            if (edit.How == EditKind.SetFact) Set(json, edit.Pointer!.Split('/')[1..], edit.Value?.DeepClone());
            else
            {
                Assert.Equal(EditKind.Remove, edit.How);
                var lines = ((string)json["routines"]!["start"]!).Split('\n').ToList();
                lines.RemoveAt(edit.Line!.Value - 1);
                json["routines"]!["start"] = string.Join('\n', lines);
            }
        return json.Deserialize<Card>(DocumentJson.Options)!;
    }

    private static void Set(JsonNode node, string[] path, JsonNode? value)
    {
        for (var i = 0; i < path.Length - 1; i++)
            node = node is JsonArray list ? list[int.Parse(path[i], CultureInfo.InvariantCulture)]! : node[path[i]]!;
        if (node is not JsonArray last) node[path[^1]] = value;
        else if (value is null) last.RemoveAt(int.Parse(path[^1], CultureInfo.InvariantCulture));
        else last[int.Parse(path[^1], CultureInfo.InvariantCulture)] = value;
    }

    [Theory, MemberData(nameof(Pairs))]
    public void A_rule_fires_where_it_should_and_not_where_it_should_not(string rule, string pointer, Card bad, Card good)
    {
        Assert.Contains(Spoken.AllKept(RuleBook.Check(bad)), f => f.Rule == rule && f.Pointer == pointer);
        Assert.DoesNotContain(RuleBook.Check(good), f => f.Rule == rule);
    }

    // (1.75/2.85)² = 37.7 %: areas of circles.
    [Fact]
    public void The_wrong_filament_is_told_as_a_share_of_plastic() =>
        Assert.Contains("90.3 %", RuleBook.Check(WithFilament(3))
            .Single(f => f.Rule == "uncommon-filament-diameter").Message, StringComparison.Ordinal);

    [Fact]
    public void An_accepted_finding_carries_the_reason_and_comes_last()
    {
        // a stop accepted comes after the cautions that are not, and of those what is about no line first
        var card = WithFilament(3) with
        {
            Envelope = Cards.Dunlin.Envelope with { Use = new() { Height = 180 } },
            Accepted = [new() { Rule = "use-beyond-height", At = "/envelope/use/height", Why = "taller frame ordered" }],
        };
        var findings = RuleBook.Check(card);
        Assert.True(findings.Count > 1);
        Assert.Equal([.. findings.SkipLast(1).Select(_ => (string?)null), "taller frame ordered"], findings.Select(f => f.AcceptedBecause));
        Assert.Equal(findings.SkipLast(1).OrderByDescending(f => f.Severity), findings.SkipLast(1));
    }

    private static KeepOut Polygon(params double[][] points) =>
        new() { Name = "k", Kind = KeepOutKind.Reserved, Outline = new PolygonOutline { Points = points } };
}

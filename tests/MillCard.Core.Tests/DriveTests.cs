using CsCheck;
using MillCard.Core.Documents;
using MillCard.Core.Flow;
using MillCard.Core.Motion;
using Xunit;

namespace MillCard.Core.Tests;

/// <summary>Steps per mm, the ladder, deltas and speed ceilings against values worked out by hand.</summary>
public class DriveTests
{
    private static Drive Belt(double angle, int micro) => new BeltDrive { StepAngle = angle, Microsteps = micro, Teeth = 20, Pitch = 2 };
    private static Drive Screw(double pitch, int starts) =>
        new ScrewDrive { StepAngle = 1.8, Microsteps = 16, Pitch = pitch, Starts = starts };
    private static Drive Hob(double diameter, double ratio = 1) =>
        new GearDrive { StepAngle = 1.8, Microsteps = 16, Diameter = diameter, Ratio = ratio };

    // (360/α · μ) / way per turn; leads after ISO 2904 (Tr8×8 P2 has four starts) and ISO 261 (M5 × 0.8).
    public static TheoryData<Drive, double> Known => new()
    {
        { Belt(1.8, 16), 80 }, { Belt(1.8, 8), 40 }, { Belt(0.9, 16), 160 },
        { Screw(2, 4), 400 }, { Screw(2, 1), 1600 }, { Screw(0.8, 1), 4000 },
        { Hob(11), 92.60 }, { Hob(10), 101.86 }, { Hob(8, 2.5), 318.31 },
    };

    [Theory, MemberData(nameof(Known))]
    public void Steps_follow_from_the_parts(Drive drive, double steps) => Assert.Equal(steps, Drives.StepsPerMm(drive)!.Value, 0.006);

    [Fact]
    public void A_missing_part_leaves_the_steps_open() =>
        Assert.Null(Drives.StepsPerMm(new BeltDrive { StepAngle = 1.8, Microsteps = 16, Teeth = 20 }));

    // sin(90°/μ), motor makers' application notes; from memory.
    [Theory, InlineData(1, 100), InlineData(2, 70.71), InlineData(4, 38.27), InlineData(8, 19.51), InlineData(16, 9.80),
        InlineData(32, 4.91)]
    public void A_microstep_is_held_by_a_part_of_the_torque(int microsteps, double percent) =>
        Assert.Equal(percent, 100 * Drives.HeldTorque(microsteps), 0.006);

    [Fact]
    public void A_measured_move_names_the_microsteps_that_explain_it()
    {
        // at 80 steps per mm 100 mm were asked for and 199 came: the board runs 1/8, so 40 are right
        var right = Drives.Corrected(80, 100, 199);
        Assert.Equal(40.2, right, 0.01);
        Assert.Equal(8, Candidate.That(Belt(1.8, 16), right)!.Microsteps);
        Assert.Null(Candidate.That(Belt(1.8, 16), 60));
    }

    // a belt of 2 mm on 20 teeth moves 0.2 mm a full step of 1.8°: 5 steps per mm for each microstep
    [Theory, InlineData(1), InlineData(2), InlineData(4), InlineData(8), InlineData(16), InlineData(32), InlineData(64), InlineData(128),
        InlineData(256)]
    public void Every_usual_number_of_microsteps_is_found(int microsteps) =>
        Assert.Equal(microsteps, Candidate.That(Belt(1.8, 16), 5.02 * microsteps)!.Microsteps);

    [Fact]
    public void Candidates_come_the_likeliest_first_and_none_without_the_parts()
    {
        var all = Candidate.For(Belt(1.8, 16), 42);
        Assert.Equal(9, all.Count);
        Assert.Equal([8, 16, 4], all.Take(3).Select(c => c.Microsteps));
        Assert.Equal(40 / 42.0 - 1, all[0].Off, 1e-9);
        Assert.Empty(Candidate.For(null, 42));
    }

    [Fact]
    public void The_ladder_has_a_rung_every_full_step()
    {
        var ladder = new Ladder(Drives.FullStep(Screw(2, 4))!.Value, 16);
        Assert.Equal(0.04, ladder.FullStep, 1e-12);
        Assert.Equal([0.12, 0.16, 0.2, 0.24, 0.28], ladder.Between(0.25 * 0.4, 0.75 * 0.4).Select(r => r.Height));
        Assert.Equal([0.10, 0.12, 0.14], ladder.Between(0.1, 0.15, halves: true).Select(r => r.Height));
        Assert.Equal(0.01, Drives.FullStep(Screw(2, 1))!.Value, 1e-12);
        Assert.Equal((LadderPlace.WholeSteps, LadderPlace.HalfSteps, LadderPlace.Between),
            (ladder.PlaceOf(0.2), ladder.PlaceOf(0.22), ladder.PlaceOf(0.25)));
        Assert.Equal((0.24, 0.04), (ladder.Nearest(0.25).Height, ladder.Nearest(0.001).Height));
        Assert.InRange(new Ladder(0.00125, null).Between(0.1, 1, most: 100).Count, 50, 101);
    }

    [Fact]
    public void A_recipe_in_rungs_takes_the_steps_of_the_machine()
    {
        var (motion, axes) = (Cards.Dunlin.Motion, Cards.Dunlin.Motion.Axes);
        Card With(Drive z) => Cards.Dunlin with { Motion = motion with { Axes = axes with { Z = axes.Z! with { Drive = z } } } };
        var recipe = Cards.Standard with { Layers = new() { Others = 0.2, First = 0.24, Rungs = 5, FirstRungs = 6 } };
        Assert.Equal((0.2, 0.24), Heights(Ladder.Resolved(recipe, With(Screw(2, 4)))));
        Assert.Equal((0.2, 0.24), Heights(Ladder.Resolved(recipe, Cards.Dunlin)));
        var fine = Heights(Ladder.Resolved(recipe, With(Screw(1.25, 1))));
        Assert.Equal((0.03125, 0.0375), (Math.Round(fine.Item1, 9), Math.Round(fine.Item2, 9)));

        static (double, double) Heights(Recipe r) => (Math.Round(r.Layers.Others!.Value, 9), Math.Round(r.Layers.First!.Value, 9));
    }

    [Theory]
    [InlineData(0.2, 0.04, HeightFrom.NearestRung, 0.2)]
    [InlineData(0.25, 0.04, HeightFrom.NearestRung, 0.24)]
    [InlineData(0.2, 0.08, HeightFrom.NearestHalfRung, 0.2)]
    [InlineData(0.22, 0.1, HeightFrom.NearestRung, 0.2)]
    [InlineData(0.23, 0.1, HeightFrom.NearestHalfRung, 0.25)]
    [InlineData(0.2, 0.2, HeightFrom.LadderTooCoarse, 0.2)]
    [InlineData(0.3, 0.1001, HeightFrom.LadderTooCoarse, 0.3)]
    public void A_height_on_a_rung_is_the_nearest_one_unless_the_ladder_is_coarse(double about, double step, HeightFrom from, double height)
    {
        var settled = SettledHeight.Of(about, null, true, new Ladder(step, 16), 0.4);
        Assert.Equal((from, height), (settled.From, settled.Height!.Value));
        Assert.NotNull(settled.Why);
    }

    // Rungs of 0.04: 0.2 is the fifth. Both ends count, to half a thousandth.
    [Theory, InlineData(0.2, 0.2), InlineData(0.1996, 0.2), InlineData(0.1994, 0.16), InlineData(0.2399, 0.24), InlineData(0.239, 0.2)]
    public void The_ladder_ends_at_its_upper_rung(double to, double last)
    {
        var rungs = new Ladder(0.04, 16).Between(0.08, to);
        Assert.Equal((0.08, last), (rungs[0].Height, rungs[^1].Height));
    }

    // 11 mm³/s by the closed form of a line of 0.45 × 0.2: (0.25 · 0.2 + π · 0.01) = 0.081416 mm².
    [Theory, InlineData(null, 135.11), InlineData(1.25, 108.09), InlineData(0.8, 168.89)]
    public void The_hot_ends_ceiling_counts_the_filaments_flow(double? flow, double speed)
    {
        var nozzle = new Nozzle { Id = "n1", Diameter = 0.4, FilamentDiameter = 1.75, MaxFlow = 11 };
        var ceiling = SpeedCeiling.All(Cards.Bare(), nozzle, Cards.Petg with { Flow = flow, MaxFlow = null }, 0.45, 0.2)
            .Single(c => c.By == CeilingBy.HotEnd);
        Assert.Equal(speed, ceiling.Speed, 0.02);
    }

    [Fact]
    public void A_settled_height_stays_and_counts_in_steps_go_before_it()
    {
        Gen.Select(Gen.Double[0.03, 0.09], Gen.Double[0.05, 0.4]).Sample((step, about) =>
        {
            var once = SettledHeight.Of(about, null, true, new Ladder(step, 16), 0.4).Height!.Value;
            Assert.Equal(once, SettledHeight.Of(once, null, true, new Ladder(step, 16), 0.4).Height!.Value, 1e-6);
            Assert.True(Math.Abs(once - about) <= Math.Max(0.1 * about, step / 4) + 1e-6 || about < step / 4);
        });
        Assert.Equal(0.2, SettledHeight.Of(0.3, 5, true, new Ladder(0.04, 16), 0.4).Height);
        Assert.Equal(HeightFrom.LadderUnknown, SettledHeight.Of(0.3, null, true, null, 0.4).From);
        Assert.Null(SettledHeight.Of(0.3, null, false, new Ladder(0.04, 16), 0.4).Why);
    }

    // A screw of 2 mm pitch: 3200 microsteps a turn over 2 or 8 mm.
    [Fact]
    public void A_screw_without_starts_has_no_ladder_and_two_usual_readings()
    {
        var screw = new ScrewDrive { Pitch = 2, StepAngle = 1.8, Microsteps = 16 };
        Assert.Null(Drives.FullStep(screw));
        Assert.Equal([(1, 2.0, 1600.0), (4, 8.0, 400.0)], ScrewStarts.Usual(screw).Select(r => (r.Starts, r.Lead, r.StepsPerMm!.Value)));
        // 8 mm is the lead already: one coarse start, or four of 2 mm
        Assert.Equal([(1, 8.0, 8.0), (4, 2.0, 8.0)], ScrewStarts.Usual(screw with { Pitch = 8 }).Select(r => (r.Starts, r.Pitch, r.Lead)));
        Assert.Equal(4, ScrewStarts.That(screw, 400)!.Starts);
        Assert.Equal(2, ScrewStarts.That(screw, 800)!.Starts);
        Assert.Null(ScrewStarts.That(screw, 700));
        Assert.Null(ScrewStarts.That(screw with { Pitch = 8 }, 400));
    }

    // √(215² − 105²) = 187.617, worked by hand.
    [Fact]
    public void A_delta_has_its_carriages_where_its_arms_put_them()
    {
        var delta = new DeltaGeometry(215, 105);
        var (back, left, right) = delta.Carriages(0, 0, 10);
        Assert.All([back, left, right], h => Assert.Equal(197.617, h, 0.001));
        Assert.Equal(400 - 187.617, delta.Ceiling(0, 0, 400), 0.001);
        Assert.True(delta.Ceiling(50, 0, 400) < delta.Ceiling(0, 0, 400));
        // at the edge of the reach, opposite a tower, the flattest arm stands at 20°
        Assert.Equal(20, delta.FlattestArm(0, -delta.ReachRadius), 0.001);
        Assert.Equal(215 * Math.Cos(Math.PI / 9) - 105, delta.ReachRadius, 1e-9);
        Assert.True(double.IsNaN(delta.FlattestArm(0, -200)));
    }

    [Fact]
    public void A_motor_may_have_to_turn_faster_than_the_nozzle_moves()
    {
        Card With(MotionFacts motion) => Cards.Dunlin with { Motion = motion };
        Assert.Equal(1, Drives.WorstMotor(With(new() { Layout = MotionLayout.MovingBed })));
        Assert.Equal(Math.Sqrt(2), Drives.WorstMotor(With(new() { Layout = MotionLayout.CrossedBelts })));
        // at the edge of the reach the flattest arm stands at 20°: cot 20° = 2.747
        Assert.Equal(2.747, Drives.WorstMotor(With(new() { Layout = MotionLayout.Delta, Delta = new() { Arm = 215, Radius = 105 } })),
            0.001);
    }

    [Fact]
    public void The_slowest_cause_sets_the_speed_of_a_line()
    {
        var card = Cards.Dunlin with
        {
            Motion = Cards.Dunlin.Motion with
            {
                Axes = new()
                {
                    X = new() { MaxSpeed = 180, StepsPerMm = 80 },
                    Y = new() { MaxSpeed = 160, StepsPerMm = 80 },
                    E = new() { MaxSpeed = 60 }
                }
            }
        };
        var nozzle = card.Head.Nozzles![0] with { MaxFlow = 11 };
        // v = Q / A at Q = 11: 154.0 at 0.40 × 0.20, 68.5 at 0.60 × 0.30 (trade values, worked again)
        Assert.Equal((154.0, CeilingBy.HotEnd),
            (Math.Round(SpeedCeiling.Of(card, nozzle, null, 0.4, 0.2).Speed, 1), SpeedCeiling.Of(card, nozzle, null, 0.4, 0.2).By));
        Assert.Equal(68.5, SpeedCeiling.Of(card, nozzle, null, 0.6, 0.3).Speed, 0.05);
        Assert.Equal(CeilingBy.Axis, SpeedCeiling.Of(card, nozzle with { MaxFlow = 30 }, null, 0.4, 0.2).By);
        Assert.Equal(CeilingBy.Filament, SpeedCeiling.Of(card, nozzle, Cards.Petg with { MaxFlow = 5, Flow = 1 }, 0.4, 0.2).By);
        var slow = card with { Motion = card.Motion with { StepRate = 8000, Layout = MotionLayout.CrossedBelts } };
        Assert.Equal((70.71, CeilingBy.StepRate),
            (Math.Round(SpeedCeiling.Of(slow, nozzle, null, 0.4, 0.2).Speed, 2), SpeedCeiling.Of(slow, nozzle, null, 0.4, 0.2).By));
        var weak = card with { Motion = card.Motion with { Axes = card.Motion.Axes with { E = new() { MaxSpeed = 2 } } } };
        // 2 mm/s of filament at 0.029691 mm per mm: 67.4 mm/s
        Assert.Equal((67.4, CeilingBy.FilamentDrive),
            (Math.Round(SpeedCeiling.Of(weak, nozzle, null, 0.4, 0.2).Speed, 1), SpeedCeiling.Of(weak, nozzle, null, 0.4, 0.2).By));
    }
}

using CsCheck;
using Tensarch.Core.Measuring;

namespace Tensarch.Core.Tests.Measuring;

public class DerivedTests
{
    private static readonly Gen<double> Leg = Gen.Double[60, 110];
    private static readonly Gen<PlanePoint> Point = Gen.Select(
        Gen.Double[-200, 200],
        Gen.Double[-200, 200],
        (x, y) => new PlanePoint(x, y)
    );

    [Theory]
    [InlineData(17, 112.48)]
    [InlineData(0, 136.94)]
    public void Straddle_angle_from_the_heel_distance(double hipWidth, double angle) =>
        Assert.Equal(angle, Straddle.Angle(86, 86, 160, hipWidth).Value, 2);

    [Theory]
    [InlineData(17, 47.79)]
    [InlineData(0, 31.56)]
    public void Expected_straddle_gap(double hipWidth, double gap) =>
        Assert.Equal(gap, Straddle.ExpectedGap(86, 86, 160, hipWidth).Value, 2);

    [Fact]
    public void A_gate_on_the_straddle_angle_is_judged_in_centimetres_and_comes_back() =>
        Gen.Select(Leg, Leg, Gen.Double[0, 180], Gen.Double[0, 30])
            .Sample(
                (left, right, angle, hips) =>
                    Math.Abs(Straddle.Angle(left, right, Straddle.HeelDistance(left, right, angle, hips).Value, hips).Value - angle) < 1e-4
            );

    [Theory]
    [InlineData(86, 86, 10, 17, "heelsInsideHips", "heelDistanceCm")]
    [InlineData(86, 86, 190, 17, "heelsBeyondLegs", "heelDistanceCm")]
    [InlineData(0, 86, 160, 17, "legNotPositive", "leftLegCm")]
    [InlineData(86, double.NaN, 160, 17, "notANumber", "rightLegCm")]
    [InlineData(86, 86, double.NaN, 17, "notANumber", "heelDistanceCm")]
    [InlineData(86, 86, 160, -1, "hipWidthNegative", "hipWidthCm")]
    public void A_straddle_outside_the_domain_is_a_coded_problem(double left, double right, double d, double w, string code, string field)
    {
        Assert.Contains(Straddle.Angle(left, right, d, w).Problems, p => p.Code == code && p.Field == field);
        Assert.Contains(Straddle.ExpectedGap(left, right, d, w).Problems, p => p.Code == code && p.Field == field);
    }

    [Fact]
    public void At_the_ends_of_its_domain_the_straddle_is_closed_or_flat()
    {
        Assert.Equal(0, Straddle.Angle(86, 86, 17).Value, 9);
        Assert.Equal(180, Straddle.Angle(86, 86, 189).Value, 5);
        Assert.Equal(0, Straddle.ExpectedGap(86, 86, 189).Value, 5);
    }

    [Fact]
    public void The_two_readings_of_a_middle_split_are_checked_against_each_other()
    {
        var heels = new Estimate(160, 1.5);
        var tolerance = 8 + 1.96 * Math.Sqrt(0.6 * 0.6 + Math.Pow(143 / (4 * 47.788) * 1.5, 2));
        var check = Straddle.CrossCheck(86, 86, heels, new(47.788 + tolerance - 0.1, 0.6)).Value;
        Assert.Equal(tolerance, check.ToleranceCm!.Value, 2);
        Assert.False(check.Disagree);
        Assert.True(Straddle.CrossCheck(86, 86, heels, new(47.788 + tolerance + 0.1, 0.6)).Value.Disagree);
        Assert.Null(Straddle.CrossCheck(86, 86, new(188, 1.5), new(60, 1)).Value.ToleranceCm);
        Assert.False(Straddle.CrossCheck(86, 86, new(188, 1.5), new(60, 1)).Value.Disagree);
    }

    [Fact]
    public void Handstand_line_from_four_landmarks()
    {
        var line = LineDeviation.Handstand(new(0, 0), new(2, 55), new(-1, 105), new(3, 190)).Value;
        Assert.Equal(5.516, line.ShoulderDeg!.Value, 3);
        Assert.Equal(6.128, line.HipDeg, 3);
        Assert.Equal(0.9046, line.LeanDeg, 4);
        Assert.Equal(6.128, line.LineDeg, 3);
    }

    [Fact]
    public void A_mirrored_picture_of_someone_facing_the_other_way_says_the_same() =>
        Gen.Select(Point, Point, Point, Point)
            .Sample(
                (w, s, h, a) =>
                {
                    static PlanePoint Mirror(PlanePoint p) => new(-p.X, p.Y);
                    var one = LineDeviation.Handstand(w, s, h, a);
                    var other = LineDeviation.Handstand(Mirror(w), Mirror(s), Mirror(h), Mirror(a), facing: Facing.Right);
                    return one.IsOk == other.IsOk && (!one.IsOk || Same(one.Value, other.Value));
                }
            );

    [Fact]
    public void Swapping_the_facing_swaps_every_sign_and_keeps_the_line() =>
        Gen.Select(Point, Point, Point, Point)
            .Sample(
                (w, s, h, a) =>
                {
                    var (one, other) = (LineDeviation.Handstand(w, s, h, a), LineDeviation.Handstand(w, s, h, a, facing: Facing.Right));
                    return !one.IsOk
                        || Near(one.Value.ShoulderDeg!.Value, -other.Value.ShoulderDeg!.Value)
                            && Near(one.Value.HipDeg, -other.Value.HipDeg)
                            && Near(one.Value.LeanDeg, -other.Value.LeanDeg)
                            && Near(one.Value.LineDeg, other.Value.LineDeg);
                }
            );

    /// <summary>A camera held askew turns all landmarks and the horizon alike.</summary>
    [Fact]
    public void A_tilted_camera_changes_nothing_when_the_horizon_is_marked() =>
        Gen.Double[-30, 30]
            .Sample(tilt =>
            {
                PlanePoint Turned(double x, double y)
                {
                    var (c, s) = (Math.Cos(tilt * Math.PI / 180), Math.Sin(tilt * Math.PI / 180));
                    return new(c * x - s * y, s * x + c * y);
                }
                var found = LineDeviation.Tilt(Turned(-100, 0), Turned(100, 0)).Value;
                var line = LineDeviation.Handstand(Turned(0, 0), Turned(2, 55), Turned(-1, 105), Turned(3, 190), found).Value;
                return Near(found, tilt) && Same(line, LineDeviation.Handstand(new(0, 0), new(2, 55), new(-1, 105), new(3, 190)).Value);
            });

    [Fact]
    public void A_shoulderstand_line_is_the_larger_of_hip_and_lean()
    {
        var line = LineDeviation.Shoulderstand(new(0, 0), new(5, 50), new(20, 130)).Value;
        Assert.Null(line.ShoulderDeg);
        Assert.Equal(8.746, line.LeanDeg, 3);
        Assert.Equal(4.909, line.HipDeg, 3);
        Assert.Equal(8.746, line.LineDeg, 3);
    }

    [Fact]
    public void Landmarks_on_one_spot_or_without_a_number_are_coded_problems()
    {
        Assert.Equal("landmarksCoincide", LineDeviation.Handstand(new(0, 0), new(0, 0), new(1, 1), new(2, 2)).Problems[0].Code);
        Assert.Equal("landmarksCoincide", LineDeviation.Handstand(new(0, 0), new(1, 1), new(2, 2), new(0, 0)).Problems[0].Code);
        Assert.Equal("notANumber", LineDeviation.Shoulderstand(new(0, double.NaN), new(1, 1), new(2, 2)).Problems[0].Code);
        Assert.Equal("landmarksCoincide", JointAngle.At(new(1, 1), new(1, 1), new(2, 2)).Problems[0].Code);
        Assert.Equal("horizonTooShort", LineDeviation.Tilt(new(1, 1), new(1, 1)).Problems[0].Code);
    }

    [Fact]
    public void No_four_points_make_a_number_that_is_none() =>
        Gen.Select(Point, Point, Point, Point)
            .Sample((w, s, h, a) => LineDeviation.Handstand(w, s, h, a) is { IsOk: false } or { Value.LineDeg: >= 0 and <= 180 });

    [Fact]
    public void A_joint_angle_from_three_landmarks()
    {
        Assert.Equal(90, JointAngle.At(new(1, 0), new(0, 0), new(0, 3)).Value, 9);
        Assert.Equal(180, JointAngle.At(new(-1, 0), new(0, 0), new(2, 0)).Value, 9);
        Assert.Equal(45, JointAngle.At(new(1, 0), new(0, 0), new(1, -1)).Value, 9);
    }

    [Fact]
    public void A_picture_is_read_with_its_y_down_and_asks_for_all_landmarks()
    {
        var protocol = Shipped.Content.Measure("handstand-line").Picture!;
        var placed = PictureReading.Of(protocol, new([new(100, 300), new(102, 245), new(99, 195), new(103, 110)])).Value;
        Assert.Equal(6.128, placed.Value, 3);
        Assert.Equal(5.516, placed.ShoulderDeg!.Value, 3);
        Assert.Equal("landmarksCount", PictureReading.Of(protocol, new([new(1, 1)])).Problems[0].Code);
        var wrist = Shipped.Content.Measure("wrist-extension").Picture!;
        Assert.Equal(90, PictureReading.Of(wrist, new([new(0, 0), new(0, 50), new(30, 50)])).Value.Value, 9);
    }

    [Fact]
    public void Seven_of_ten_kick_ups_with_their_Wilson_interval()
    {
        var rate = SuccessRate.Of(7, 10).Value;
        Assert.Equal(0.7, rate.Share, 12);
        Assert.Equal(0.3968, rate.Lower95, 4);
        Assert.Equal(0.8922, rate.Upper95, 4);
        Assert.Equal("attemptsNotPositive", SuccessRate.Of(0, 0).Problems[0].Code);
        Assert.Equal("successesOutOfRange", SuccessRate.Of(11, 10).Problems[0].Code);
    }

    [Fact]
    public void A_Wilson_interval_holds_its_share_and_narrows_with_attempts() =>
        Gen.Select(Gen.Int[0, 40], Gen.Int[1, 40])
            .Where((k, n) => k <= n)
            .Sample(
                (k, n) =>
                {
                    var (rate, more) = (SuccessRate.Of(k, n).Value, SuccessRate.Of(10 * k, 10 * n).Value);
                    return 0 <= rate.Lower95
                        && rate.Lower95 <= rate.Share
                        && rate.Share <= rate.Upper95
                        && rate.Upper95 <= 1
                        && more.Upper95 - more.Lower95 < rate.Upper95 - rate.Lower95;
                }
            );

    [Fact]
    public void Two_blocks_low_and_middle_are_22_5_cm()
    {
        var stack = BlockFaces.ToCm([new("standard", Face.Low), new("standard", Face.Middle)], [BlockKind.Standard]).Value;
        Assert.Equal(22.5, stack.Cm);
        Assert.Equal(7.5 / 2 / Math.Sqrt(3), stack.ResolutionCm, 12);
        Assert.Equal("unknownBlock", BlockFaces.ToCm([new("other", Face.Low)], [BlockKind.Standard]).Problems[0].Code);
        Assert.Equal(0, BlockFaces.ToCm([], [BlockKind.Standard]).Value.Cm);
    }

    [Fact]
    public void Block_faces_round_trip_through_centimetres() =>
        Gen.Enum<Face>()
            .List[0, BlockFaces.MostBlocks]
            .Sample(faces =>
            {
                List<BlockKind> kinds = [BlockKind.Standard];
                var stack = faces.Select(f => new StackedBlock("standard", f)).ToList();
                var height = BlockFaces.ToCm(stack, kinds).Value.Cm;
                var back = BlockFaces.Nearest(height, BlockKind.Standard).Value;
                return Near(BlockFaces.ToCm(back, kinds).Value.Cm, height) && back.Count <= stack.Count;
            });

    [Fact]
    public void A_block_has_three_ascending_faces()
    {
        Assert.Empty(BlockKind.Standard.Check());
        Assert.Equal("facesNotAscending", (BlockKind.Standard with { MiddleCm = 30 }).Check().Single().Code);
        Assert.Equal("outOfRange", (BlockKind.Standard with { LowCm = 0 }).Check().Single().Code);
    }

    [Fact]
    public void Breaths_become_seconds_and_back()
    {
        Assert.Equal(27, Breaths.ToSeconds(6, 4.5).Value);
        Assert.Equal(6, Breaths.FromSeconds(27, 4.5).Value);
        Assert.Equal(5, Breaths.Length(12, 60).Value);
        Assert.Equal("outOfRange", Breaths.ToSeconds(6, 0).Problems[0].Code);
        Assert.Equal("outOfRange", Breaths.Length(1, 60).Problems[0].Code);
        Assert.Equal("negative", Breaths.FromSeconds(-1, 4.5).Problems[0].Code);
    }

    private static bool Near(double one, double other) => Math.Abs(one - other) < 1e-9 || Math.Abs(Math.Abs(one - other) - 360) < 1e-9;

    private static bool Same(Line one, Line other) =>
        Near(one.ShoulderDeg!.Value, other.ShoulderDeg!.Value) && Near(one.HipDeg, other.HipDeg) && Near(one.LeanDeg, other.LeanDeg);
}

package zesty.signal.core.prove;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import zesty.signal.core.scale.Converter;
import zesty.signal.core.scale.Divisor;

/** Proving, with answers worked by hand. */
class ProveTest {
    @Test
    void aFitTellsWhatIsLeftOver() {
        // Through (0,1) (1,3) (2,5) (3,8): slope 2.3, offset 0.8, worked by hand from the sums 6, 17, 14, 37.
        List<ReferencePoint> points = List.of(
                new ReferencePoint(0, 1), new ReferencePoint(1, 3), new ReferencePoint(2, 5), new ReferencePoint(3, 8));
        Fit fit = Fitting.fit(FitModel.LINE, points);
        assertThat(fit.coefficients()[0]).isCloseTo(0.8, within(1e-12));
        assertThat(fit.coefficients()[1]).isCloseTo(2.3, within(1e-12));
        // Left over 0.2, −0.1, −0.4, 0.3: squares 0.04 + 0.01 + 0.16 + 0.09 = 0.3.
        assertThat(fit.rmsResidual()).isCloseTo(Math.sqrt(0.3 / 4), within(1e-12));
        assertThat(fit.maxResidual()).isCloseTo(0.4, within(1e-12));
        assertThat(fit.r2()).isCloseTo(1 - 0.3 / 26.75, within(1e-12));
        assertThat(Fitting.verdict(fit, "g"))
                .startsWith("Largest error 0.4 g at 5 g")
                .contains("a curve would");
        assertThat(Fitting.fit(FitModel.RATIO, points).coefficients()[1]).isCloseTo(37.0 / 14, within(1e-12));
        assertThat(Fitting.fit(FitModel.OFFSET, points).coefficients()).containsExactly(2.75, 1);
        assertThat(Fitting.verdict(Fitting.fit(FitModel.LINE, points.subList(0, 2)), "g"))
                .contains("with 2 points a line always fits: 2 more points would tell");
    }

    @Test
    void uncertaintyAddsBySquares() {
        // A step of 0.12 is 0.034641 as a standard uncertainty; noise 0.3 over 25 samples is 0.06; 0.05 and 0.02
        // besides.
        Uncertainty limits = Uncertainty.of(0.12, 0.3, 25, 0.05, 0.02);
        assertThat(limits.parts())
                .extracting(Uncertainty.Part::name)
                .containsExactly("noise", "reference", "converter step", "fit");
        assertThat(limits.standard()).isCloseTo(Math.sqrt(0.0012 + 0.0036 + 0.0025 + 0.0004), within(1e-12));
        assertThat(limits.words("°C")).isEqualTo("± 0.18 °C, mostly noise");
    }

    @Test
    void steadyIsToldFromMoving() {
        Random random = new Random(4);
        double[] steady = random.doubles(200).map(d -> 50 + d).toArray();
        double[] moving = new double[200];
        for (int i = 0; i < 200; i++) {
            moving[i] = 50 + 0.01 * i + random.nextDouble();
        }
        assertThat(SteadyMean.of(steady, 200, 0.01).steady()).isTrue();
        assertThat(SteadyMean.of(steady, 200, 0.01).noise()).isCloseTo(Math.sqrt(1.0 / 12), within(0.03));
        SteadyMean.Held drifting = SteadyMean.of(moving, 200, 0.01);
        assertThat(drifting.steady()).isFalse();
        assertThat(drifting.drift()).isCloseTo(1, within(0.15));
    }

    @Test
    void aSensorThatAnswersIsToldFromOneThatDoesNot() {
        int n = 400;
        double[] seconds = new double[n];
        double[] warmed = new double[n];
        double[] dead = new double[n];
        Random random = new Random(9);
        for (int i = 0; i < n; i++) {
            double t = i * 0.1;
            seconds[i] = t;
            // Quiet to 10 s, then up by 8 with a time constant of 2 s, let go at 25 s.
            double up = t < 10 ? 0 : t < 25 ? 8 * (1 - Math.exp(-(t - 10) / 2)) : 8 * Math.exp(-(t - 25) / 2);
            warmed[i] = 20 + up + 0.05 * random.nextGaussian();
            dead[i] = 20 + 0.05 * random.nextGaussian();
        }
        Response moved = Response.of(seconds, warmed, 10, 25, 0.1);
        assertThat(moved.moved()).isTrue();
        assertThat(moved.change()).isCloseTo(8, within(0.1));
        assertThat(moved.goSeconds()).isCloseTo(2, within(0.3));
        assertThat(moved.backSeconds()).isCloseTo(2, within(0.3));
        assertThat(moved.words("°C")).startsWith("It answers: up by ");
        Response none = Response.of(seconds, dead, 10, 25, 0.1);
        assertThat(none.moved()).isFalse();
        assertThat(none.words("°C")).contains("power to the sensor and to whatever it is to feel (a heater");
        for (int i = 0; i < n; i++) {
            warmed[i] = 40 - warmed[i];
        }
        assertThat(Response.of(seconds, warmed, 10, 25, 0.1).direction("warm it"))
                .contains("leads are swapped");
    }

    @Test
    void theRangeIsWatched() {
        Converter tenBits = new Converter(10, 5, Divisor.STEPS);
        assertThat(RangeWatch.of(filled(0), tenBits)).singleElement().asString().startsWith("It sits at 0");
        assertThat(RangeWatch.of(filled(1023), tenBits))
                .singleElement()
                .asString()
                .startsWith("It sits at full scale");
        assertThat(RangeWatch.of(filled(2000), tenBits)).first().asString().startsWith("Counts go beyond a 10-bit");
        double[] little = new Random(1).doubles(100, 500, 520).map(Math::rint).toArray();
        assertThat(RangeWatch.of(little, tenBits)).singleElement().asString().startsWith("It uses 2 %");
        double[] good = new Random(1).doubles(100, 100, 900).map(Math::rint).toArray();
        assertThat(RangeWatch.of(good, tenBits)).isEmpty();
    }

    private static double[] filled(double value) {
        double[] values = new double[100];
        java.util.Arrays.fill(values, value);
        return values;
    }

    @Test
    void weightsAndPointsLeftOutAreThoseWorkedByHand() {
        // 1/u² of 1 and 4: the mean difference is (1·1 + 4·2)/5, the ratio (1·2·3 + 4·4·6)/(1·4 + 4·16).
        List<ReferencePoint> two = List.of(new ReferencePoint(2, 3, 1), new ReferencePoint(4, 6, 0.5));
        assertThat(Fitting.fit(FitModel.OFFSET, two).coefficients()[0]).isCloseTo(1.8, within(1e-12));
        assertThat(Fitting.fit(FitModel.RATIO, two).coefficients()[1]).isCloseTo(102.0 / 68, within(1e-12));
        // A line through (0,0) (1,1) and a third at (2,5) of ten times their uncertainty: weighted sums by hand.
        List<ReferencePoint> three =
                List.of(new ReferencePoint(0, 0, 0.1), new ReferencePoint(1, 1, 0.1), new ReferencePoint(2, 5, 1));
        double[] line = Fitting.fit(FitModel.LINE, three).coefficients();
        double w = 100 + 100 + 1;
        double x = 100 + 2;
        double y = 100 + 5;
        double slope = (w * (100 + 10) - x * y) / (w * (100 + 4) - x * x);
        assertThat(line[1]).isCloseTo(slope, within(1e-9));
        assertThat(line[0]).isCloseTo((y - slope * x) / w, within(1e-9));
        // Of an offset through 1, 3 and 8: each point against the mean of the other two, 4.5, 1.5 and 6 off.
        List<ReferencePoint> offsets =
                List.of(new ReferencePoint(0, 1), new ReferencePoint(1, 4), new ReferencePoint(2, 10));
        assertThat(Fitting.fit(FitModel.OFFSET, offsets).leaveOneOut())
                .isCloseTo(Math.sqrt((4.5 * 4.5 + 1.5 * 1.5 + 6 * 6) / 3), within(1e-12));
        assertThat(Fitting.fit(FitModel.OFFSET, offsets.subList(0, 1)).leaveOneOut())
                .isNaN();
        assertThat(Fitting.fit(FitModel.LINE, offsets.subList(0, 2)).leaveOneOut())
                .isNaN();
        // Without one of these no two different points are left for a line.
        assertThat(Fitting.fit(
                                FitModel.LINE,
                                List.of(new ReferencePoint(1, 1), new ReferencePoint(1, 2), new ReferencePoint(3, 4)))
                        .leaveOneOut())
                .isNaN();
        assertThat(Fitting.fit(FitModel.OFFSET, List.of(new ReferencePoint(0, 5), new ReferencePoint(1, 5)))
                        .r2())
                .isNaN();
    }

    @Test
    void aVerdictSaysWhatWouldBetterIt() {
        List<ReferencePoint> bent = new java.util.ArrayList<>();
        List<ReferencePoint> straight = new java.util.ArrayList<>();
        double[] off = {0.1, -0.1, -0.1, 0.1, 0.1, -0.1};
        for (int i = 0; i < 6; i++) {
            bent.add(new ReferencePoint(i, i * i));
            straight.add(new ReferencePoint(i, 2 * i + off[i]));
        }
        assertThat(Fitting.verdict(Fitting.fit(FitModel.LINE, bent), "N"))
                .contains("a curve would bring it to")
                .contains("a point left out is missed by");
        assertThat(Fitting.verdict(Fitting.fit(FitModel.LINE, straight), "")).contains("a curve would do no better");
        assertThat(Fitting.verdict(Fitting.fit(FitModel.LINE, straight.subList(0, 3)), ""))
                .doesNotContain("curve");
        assertThat(Fitting.verdict(Fitting.fit(FitModel.QUADRATIC, bent), "N")).doesNotContain("curve");
        assertThat(Fitting.verdict(Fitting.fit(FitModel.OFFSET, straight.subList(0, 1)), ""))
                .isEqualTo("Largest error 0 at 0.1; with 1 point an offset always fits: 1 more point would tell its"
                        + " uncertainty.");
    }

    @Test
    void aFitBecomesTheSimplestConversion() {
        List<ReferencePoint> points = List.of(
                new ReferencePoint(-1, 2),
                new ReferencePoint(0, 1),
                new ReferencePoint(1, 2),
                new ReferencePoint(2, 5));
        Fit curve = Fitting.fit(FitModel.QUADRATIC, points);
        assertThat(curve.conversion()).isInstanceOf(zesty.signal.core.scale.Polynomial.class);
        assertThat(curve.apply(3)).isCloseTo(10, within(1e-9));
        Fit flat = new Fit(FitModel.CUBIC, points, new double[] {1, 2, 0, 0}, new double[4], 0, 0, 1, 0);
        assertThat(flat.conversion()).isEqualTo(new zesty.signal.core.scale.Line(2, 1));
        Fit missed = new Fit(FitModel.LINE, points, new double[] {0, 1}, new double[] {0.5, -2, 2, 1}, 1, 2, 1, 0);
        assertThat(missed.worst()).isEqualTo(1);
    }

    @Test
    void aCheckPassesUpToItsToleranceAndCountsTheReferencesOwnDoubt() {
        List<ReferencePoint> points =
                List.of(new ReferencePoint(10.5, 10), new ReferencePoint(19.5, 20, 0.25), new ReferencePoint(30, 30));
        Check check = new Check(points, 0.5);
        assertThat(check.passes(0)).isTrue();
        assertThat(check.passes(1)).isFalse();
        assertThat(check.error(1)).isEqualTo(-0.5);
        assertThat(check.words("V"))
                .isEqualTo("Fail: 2 of 3 readings within ± 0.5 V; the worst is off by 0.5 V at 10 V.");
        assertThat(new Check(points.subList(2, 3), 0.1).words(""))
                .isEqualTo("Pass: all 1 reading within ± 0.1; the worst is off by 0 at 30.");
        assertThat(new Check(List.of(), 1).words("V")).isEqualTo("Hold a point first.");
    }

    @Test
    void responseAndRangeAtTheirEdges() {
        double[] seconds = new double[40];
        double[] values = new double[40];
        for (int i = 0; i < 40; i++) {
            seconds[i] = i;
            // Without a trace of noise: up by 10 at once from 10 s, down again from 30 s.
            values[i] = i >= 10 && i < 30 ? 10 : 0;
        }
        Response square = Response.of(seconds, values, 10, 30, 1);
        assertThat(square.goSeconds()).isZero();
        assertThat(square.backSeconds()).isZero();
        assertThat(square.change()).isEqualTo(10);
        assertThat(square.words("N"))
                .isEqualTo("It answers: up by 10 N, with no noise to speak of; there in 0 s, back in 0 s.");
        assertThat(square.direction("load it")).isEmpty();
        // Two steps of the converter are no answer yet.
        assertThat(Response.of(seconds, values, 10, 30, 5).moved()).isFalse();
        // Between two samples it was touched; it never comes back; one value is missing.
        double[] stays = values.clone();
        java.util.Arrays.fill(stays, 30, 40, 10);
        stays[3] = Double.NaN;
        Response held = Response.of(seconds, stays, 9.5, 29.5, 1);
        assertThat(held.goSeconds()).isEqualTo(0.5);
        assertThat(held.backSeconds()).isNaN();
        assertThat(held.words("")).endsWith("; not back yet.");
        for (int i = 0; i < 40; i++) {
            stays[i] = -stays[i];
        }
        Response down = Response.of(seconds, stays, 9.5, 29.5, 1);
        assertThat(down.words("")).startsWith("It answers: down by 10");
        assertThat(down.direction("load it")).contains("reads less when loaded");
        assertThat(down.direction("touch it")).isEmpty();

        Converter tenBits = new Converter(10, 5, Divisor.STEPS);
        double[] some = new Random(1).doubles(40, 100, 900).map(Math::rint).toArray();
        some[5] = 1023;
        some[6] = Double.NaN;
        assertThat(RangeWatch.of(some, tenBits))
                .singleElement()
                .asString()
                .startsWith("Some samples are at full scale (2.6 %)");
        assertThat(RangeWatch.of(java.util.Arrays.copyOf(some, 20), tenBits)).isEmpty();
        assertThat(RangeWatch.of(new double[] {Double.NaN}, tenBits)).isEmpty();
        double[] half = new double[40];
        java.util.Arrays.fill(half, 0, 20, 500);
        // Half of it at 0 is not more than half.
        assertThat(RangeWatch.of(half, tenBits)).isEmpty();
        half[19] = 0;
        assertThat(RangeWatch.of(half, tenBits)).singleElement().asString().startsWith("It sits at 0");
        double[] few = filled(500);
        assertThat(RangeWatch.of(few, tenBits)).singleElement().asString().startsWith("It uses 0.1 %");
        assertThat(RangeWatch.of(java.util.Arrays.copyOf(few, 19), tenBits)).isEmpty();
    }

    @Test
    void aMeanIsSteadyUpToAStepAndOneJumpIsNoNoise() {
        double[] step = {1, 1, 1, 1, 2, 2, 2, 2};
        SteadyMean.Held held = SteadyMean.of(step, 8, 1);
        assertThat(held.mean()).isEqualTo(1.5);
        assertThat(held.drift()).isEqualTo(1);
        assertThat(held.noise()).isZero();
        assertThat(held.steady()).isTrue();
        assertThat(SteadyMean.of(step, 8, 0.9).steady()).isFalse();
        assertThat(SteadyMean.of(step, 7, 1).mean()).isNaN();
        double[] missing = {1, Double.NaN, 1, 1, 1, 1, 1, 1, 1};
        assertThat(SteadyMean.of(missing, 9, 1).samples()).isEqualTo(8);
        // By hand: the differences are 2 but for one that is left out; half of 4 over the share that is kept.
        double[] swings = {0, 2, 0, 2, 0, 2, 0, 2, 0, 9};
        assertThat(SteadyMean.of(swings, 10, 1).noise()).isCloseTo(Math.sqrt(4.0 / 2 / 0.759), within(1e-12));
    }
}

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
}
